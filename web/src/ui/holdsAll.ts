/** Whether the texts together hold every word that is searched for; all do where nothing is asked. */
export function holdsAll(search: string, texts: (string | null | undefined)[]): boolean {
  const text = texts.join(" ").toLowerCase();
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  return words.every((word) => text.includes(word));
}
