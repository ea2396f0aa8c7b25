const KEY = "yoisho.heat";

/** The heat noted today in the hall [°C WBGT]; yesterday's is forgotten. */
export function recallHeat(today = new Date().toDateString()): number | null {
  try {
    const kept = JSON.parse(localStorage.getItem(KEY) ?? "null");
    return kept?.day === today && typeof kept.wbgt === "number" ? kept.wbgt : null;
  } catch {
    return null;
  }
}

export function keepHeat(wbgt: number | null, today = new Date().toDateString()): void {
  if (wbgt === null) localStorage.removeItem(KEY);
  else localStorage.setItem(KEY, JSON.stringify({ day: today, wbgt }));
}

/** null for nothing, undefined for what is no temperature. */
export function readHeat(text: string): number | null | undefined {
  const plain = text.trim().replace(",", ".");
  if (plain === "") return null;
  const value = /^-?\d{1,2}(\.\d*)?$/.test(plain) ? Number(plain) : Number.NaN;
  return value >= -20 && value <= 60 ? value : undefined;
}
