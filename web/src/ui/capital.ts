/** The words with a capital, as a sentence begins. */
export const capital = (words: string): string => words.slice(0, 1).toUpperCase() + words.slice(1);
