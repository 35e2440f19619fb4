// Names as both workbook standards take them, for sheets and for ranges.

/** Sheets are called by so many characters at most (ISO/IEC 29500). */
const longestSheet = 31;
const longestRange = 60;

function freeAs(wanted: string, taken: readonly string[], longest: number, numbered: (base: string, at: number) => string): string {
  const known = new Set(taken.map((name) => name.toLowerCase()));
  let name = wanted.slice(0, longest);
  for (let at = 2; known.has(name.toLowerCase()); at += 1) {
    const end = numbered('', at);
    name = `${wanted.slice(0, longest - end.length)}${end}`;
  }
  return name;
}

/** A name for a range that no other has: letters, digits and underscores, and nothing that could be taken for a cell. */
export function freeNameIn(title: string, taken: readonly string[]): string {
  const words = title
    .normalize('NFC')
    .replaceAll(/[^\p{L}\p{N}]+/gu, '_')
    .replaceAll(/^_+|_+$/gu, '');
  const base = `${/^\p{L}/u.test(words) ? words : `list_${words}`}`.slice(0, longestRange);
  return freeAs(`${base}_list`, taken, longestRange + 5, (_, at) => `_${at}`);
}

/** A title for a sheet that no other has, without the signs that references need. */
export function freeSheetIn(title: string, taken: readonly string[]): string {
  const words = title
    .replaceAll(/[\\/?*[\]:]+/gu, ' ')
    .replaceAll(/^'+|'+$/gu, '')
    .trim();
  return freeAs(words === '' ? 'Sheet' : words, taken, longestSheet, (_, at) => ` ${at}`);
}
