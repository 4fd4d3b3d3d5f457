/** The words with their first letter large. */
export const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);
