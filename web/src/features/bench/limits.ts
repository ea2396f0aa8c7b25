/** What the steppers of the outline go up to, and how far a step takes them. */

export const LONGEST_S = 7200;
export const MOST_REPS = 2000;
export const MOST_ROUNDS = 200;

export const stepOf = (seconds: number): number => (seconds < 10 ? 1 : seconds < 120 ? 5 : seconds < 600 ? 15 : 60);
export const readCount = (text: string): number | null => (/^\d{1,4}$/.test(text.trim()) ? Number(text) : null);
