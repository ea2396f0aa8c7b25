import { shelf } from "../../domain/device/shelf";

interface Heat {
  day: string;
  wbgt: number;
}

const heat = shelf<Heat>("heat", 1, (value) => {
  const kept = value as Partial<Heat> | null;
  return typeof kept?.wbgt === "number" && typeof kept.day === "string" ? { day: kept.day, wbgt: kept.wbgt } : null;
});

/** The heat noted today in the hall [°C WBGT]; yesterday's is forgotten. */
export function recallHeat(today = new Date().toDateString()): number | null {
  const kept = heat.get();
  return kept?.day === today ? kept.wbgt : null;
}

export function keepHeat(wbgt: number | null, today = new Date().toDateString()): void {
  if (wbgt === null) heat.remove();
  else heat.set({ day: today, wbgt });
}

/** null for nothing, undefined for what is no temperature. */
export function readHeat(text: string): number | null | undefined {
  const plain = text.trim().replace(",", ".");
  if (plain === "") return null;
  const value = /^-?\d{1,2}(\.\d*)?$/.test(plain) ? Number(plain) : Number.NaN;
  return value >= -20 && value <= 60 ? value : undefined;
}
