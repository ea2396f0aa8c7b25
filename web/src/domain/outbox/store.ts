import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import type { Owner } from "../device/owner";
import type { Fresh } from "../devices/watch";

/** Why the server would not take a thing: it has come back, and stays here until somebody has seen to it. */
export interface Refusal {
  status: number;
  message: string;
  /** The field that is wrong, where one is named. */
  field: string | null;
}

/** What waits on this device to be sent. The same thing sent again takes the place of what waited. */
export interface Waiting {
  /** What it is, such as the log of a run. */
  key: string;
  path: string;
  body: unknown;
  /** What people call it. */
  title: string;
  /** The run it is of. */
  runId: string;
  /** The log entry itself: as it is taken, the run may leave the device. */
  entry: boolean;
  since: string;
  owner: Owner | null;
  /** How often the server has failed with it. */
  tries: number;
  /** Not before [epoch ms]. */
  notBefore: number;
  refusal: Refusal | null;
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

/** What waited before things had owners and could come back. */
const asToday = (old: Partial<Waiting> & Pick<Waiting, "key">): Waiting => ({
  path: "",
  body: null,
  title: "",
  since: "",
  owner: null,
  tries: 0,
  notBefore: 0,
  refusal: null,
  runId: old.key.split(" ")[1] ?? "",
  entry: old.key.startsWith("log "),
  ...old,
});

/** The shelves of this device that outlive a closed tab. */
export function shelves(): Promise<IDBPDatabase<Shelves>> {
  opened ??= openDB<Shelves>("yoisho", 3, {
    async upgrade(database, before, _now, change) {
      if (before < 1) {
        database.createObjectStore("outbox", { keyPath: "key" });
        database.createObjectStore("journal", { autoIncrement: true }).createIndex("runId", "runId");
      }
      if (before < 2) database.createObjectStore("told", { autoIncrement: true }).createIndex("runId", "runId");
      if (before >= 1 && before < 3) {
        const outbox = change.objectStore("outbox");
        for (const old of await outbox.getAll()) await outbox.put(asToday(old));
      }
    },
  });
  return opened;
}

/** Take away all that is kept of a run on a shelf. */
export async function forget(shelf: "journal" | "told", runId: string): Promise<void> {
  const database = await shelves();
  for (const key of await database.getAllKeysFromIndex(shelf, "runId", runId)) await database.delete(shelf, key);
}
