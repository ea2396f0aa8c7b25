import type { Schemas } from "../../api/client";
import { holdsAll } from "../../ui/holdsAll";

type Entry = Schemas["EntryOut"];

/** Entries that hold every word (name, tags, note, notation, calls) and that nothing speaks against on the bag. */
export function find(book: Entry[], search: string, bag: string): Entry[] {
  return book.filter(
    ({ name, tags, note, drill }) =>
      holdsAll(search, [name, ...tags, note, drill.text, ...drill.whole.calls]) &&
      (bag === "" || drill.whole.suits.includes(bag)),
  );
}
