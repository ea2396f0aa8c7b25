import type { Schemas } from "../api/client";

type Entry = Schemas["EntryOut"];

/** Entries that hold every word (name, tags, note, notation, calls) and that nothing speaks against on the bag. */
export function find(book: Entry[], search: string, bag: string): Entry[] {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  return book.filter((entry) => {
    const calls = entry.drill.whole.calls.join(" ");
    const text = [entry.name, ...entry.tags, entry.note, entry.drill.text, calls].join(" ").toLowerCase();
    return words.every((word) => text.includes(word)) && (bag === "" || entry.drill.whole.suits.includes(bag));
  });
}
