import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import type { Fresh } from "../devices/watch";

/** What waits on this device to be sent. The same thing sent again takes the place of what waited. */
export interface Waiting {
  /** What it is, such as the log of a run. */
  key: string;
  path: string;
  body: unknown;
  /** What people call it. */
  title: string;
  since: string;
}

/** One thing that happened in a run. */
export interface Happened {
  runId: string;
  kind: string;
  /** Session time [s]; negative in the count-in. */
  at_s: number;
  /** When it happened, by this device [ISO 8601]. */
  moment: string;
  more?: Record<string, string | number>;
}

/** What a device has told of one of the people on the floor, some seconds of it. */
export interface Told extends Fresh {
  runId: string;
  /** Of the one it is told of, from 0. */
  place: number;
}

interface Shelves extends DBSchema {
  outbox: { key: string; value: Waiting };
  journal: { key: number; value: Happened; indexes: { runId: string } };
  told: { key: number; value: Told; indexes: { runId: string } };
}

let opened: Promise<IDBPDatabase<Shelves>> | null = null;

/** The shelves of this device that outlive a closed tab. */
export function shelves(): Promise<IDBPDatabase<Shelves>> {
  opened ??= openDB<Shelves>("yoisho", 2, {
    upgrade(database, before) {
      if (before < 1) {
        database.createObjectStore("outbox", { keyPath: "key" });
        database.createObjectStore("journal", { autoIncrement: true }).createIndex("runId", "runId");
      }
      if (before < 2) database.createObjectStore("told", { autoIncrement: true }).createIndex("runId", "runId");
    },
  });
  return opened;
}

/** Take away all that is kept of a run on a shelf. */
export async function forget(shelf: "journal" | "told", runId: string): Promise<void> {
  const database = await shelves();
  for (const key of await database.getAllKeysFromIndex(shelf, "runId", runId)) await database.delete(shelf, key);
}
