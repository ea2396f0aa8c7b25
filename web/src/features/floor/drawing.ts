/**
 * Draws a clock for as long as the page is seen. `draw` tells in how many milliseconds it wants to be drawn again, or null
 * where it is over. Gives what stops it.
 */
export function drawing(draw: () => number | null): () => void {
  let frame = 0;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const soon = () => {
    frame = requestAnimationFrame(() => {
      const again_ms = draw();
      if (again_ms !== null) timer = setTimeout(soon, again_ms);
    });
  };
  soon();
  return () => {
    cancelAnimationFrame(frame);
    clearTimeout(timer);
  };
}
