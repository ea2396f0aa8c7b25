/** A time as m:ss. */
export function clock(seconds: number): string {
  const whole = Math.max(0, Math.round(seconds));
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, "0")}`;
}

/** Seconds from "20", "0:20" or "1:30"; null where it is none of them. */
export function readClock(text: string): number | null {
  const found = text.trim().match(/^(?:(\d{1,3}):([0-5]\d)|(\d{1,4}))$/);
  if (!found) return null;
  return found[3] !== undefined ? Number(found[3]) : Number(found[1]) * 60 + Number(found[2]);
}

/** A moment as people say it here: day and clock. */
export function when(moment: string): string {
  return new Date(moment).toLocaleString([], { dateStyle: "medium", timeStyle: "short" });
}

/** A day, such as "2026-05-14", as people say it here. */
export function day(date: string): string {
  return new Date(`${date}T12:00`).toLocaleDateString([], {
    weekday: "short",
    day: "numeric",
    month: "short",
    year: "numeric",
  });
}

/** Today where the device is, as "2026-05-14". */
export function today(): string {
  const now = new Date();
  const two = (number: number) => String(number).padStart(2, "0");
  return `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`;
}
