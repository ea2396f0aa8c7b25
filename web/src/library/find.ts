import type { Schemas } from "../api/client";

type Protocol = Schemas["ProtocolOut"];

/** Those that hold every word somewhere: name, meaning, other words, purpose, versions. */
export function find(protocols: Protocol[], search: string, nameOf: (target: string) => string): Protocol[] {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  return protocols.filter((protocol) => {
    const text = [
      protocol.name,
      protocol.meaning,
      protocol.reason,
      ...protocol.words,
      nameOf(protocol.target),
      ...protocol.versions.flatMap((version) => [version.name, version.note, version.lines]),
    ]
      .join(" ")
      .toLowerCase();
    return words.every((word) => text.includes(word));
  });
}
