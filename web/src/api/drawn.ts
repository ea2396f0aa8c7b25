/** Once what has come is on the screen: what is asked then holds up nothing that is to be drawn. */
export const drawn = (): Promise<void> =>
  new Promise((go) => (document.hidden ? setTimeout(go) : requestAnimationFrame(() => setTimeout(go))));
