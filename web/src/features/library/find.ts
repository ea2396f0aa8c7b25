import type { Schemas } from "../../api/client";
import { holdsAll } from "../../ui/holdsAll";

type Protocol = Schemas["ProtocolOut"];

/** Those that hold every word somewhere: name, meaning, other words, purpose, versions. */
export function find(protocols: Protocol[], search: string, nameOf: (target: string) => string): Protocol[] {
  return protocols.filter((protocol) =>
    holdsAll(search, [
      protocol.name,
      protocol.meaning,
      protocol.reason,
      ...protocol.words,
      nameOf(protocol.target),
      ...protocol.versions.flatMap((version) => [version.name, version.note, version.lines]),
    ]),
  );
}
