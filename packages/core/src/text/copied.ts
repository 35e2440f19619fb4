/** The same text in memory of its own: a piece of a larger one keeps all of that in memory for as long as it is kept itself. */
export const copied = (text: string): string => [...text].join('');
