/** Gives a text to the device as a file. */
export function saveFile(name: string, type: string, text: string): void {
  const address = URL.createObjectURL(new Blob([text], { type }));
  Object.assign(document.createElement("a"), { href: address, download: name }).click();
  URL.revokeObjectURL(address);
}
