import { useEffect, useState } from "react";
import { flushSync } from "react-dom";

/** Whether the page is being drawn for paper. */
export function usePrinting(): boolean {
  const [printing, setPrinting] = useState(false);
  useEffect(() => {
    const media = window.matchMedia("print");
    // Before the paper is laid out, not a frame later.
    const turn = () => flushSync(() => setPrinting(media.matches));
    media.addEventListener("change", turn);
    return () => media.removeEventListener("change", turn);
  }, []);
  return printing;
}
