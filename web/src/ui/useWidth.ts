import { type RefObject, useLayoutEffect, useRef, useState } from "react";

/** How wide an element is [px]; 0 until it is there. */
export function useWidth<E extends HTMLElement>(): [RefObject<E | null>, number] {
  const frame = useRef<E>(null);
  const [width, setWidth] = useState(0);
  useLayoutEffect(() => {
    const element = frame.current;
    if (!element) return;
    const measure = () => setWidth(element.clientWidth);
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return [frame, width];
}
