// The alphabetical order of people: by locale, numbers by size ("Berth 2" before "Berth 10"), stable and total.

/** Compares two texts by their code units: an order that no language and no database changes. */
export const byCodeUnits = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);

/** Compares two texts as people sort them; texts that only differ in form are told apart by code points. */
export function alphabetical(language: string): (a: string, b: string) => number {
  const collator = new Intl.Collator(language, { numeric: true, sensitivity: 'variant' });
  return (a, b) => collator.compare(a, b) || byCodeUnits(a, b);
}
