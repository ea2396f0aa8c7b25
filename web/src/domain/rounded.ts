/** A number to so many digits after the point. */
export const rounded = (digits: number, value: number): number => Math.round(value * 10 ** digits) / 10 ** digits;
