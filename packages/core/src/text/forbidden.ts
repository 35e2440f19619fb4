// Characters that are refused everywhere, and the lengths that a cell may have.

/** The longest text a bound value or a source value may have, in UTF-16 code units. */
export const longestValue = 500;
/** The longest free text a cell may have, in UTF-16 code units. */
export const longestText = 20_000;
/** The longest name, heading or title. */
export const longestName = 120;

// NUL cannot be stored, U+001F joins the levels of a chain, a lone surrogate is not text.
const forbidden = /[\u0000\u001F\p{Surrogate}]/u;

const printable = /^[ -~]*$/u;

/** What can be stored of a text: what no text may hold becomes a blank, and what is beyond the longest is left out. */
export function storable(text: string): string {
  if (text.length <= longestText && printable.test(text)) return text;
  return text
    .replaceAll(new RegExp(forbidden, 'gu'), ' ')
    .slice(0, longestText)
    .replace(/\p{Surrogate}$/u, '');
}

/** The first forbidden character as `U+0000`, or undefined when the text has none. */
export function forbiddenCharacter(text: string): string | undefined {
  if (printable.test(text)) return undefined;
  const found = forbidden.exec(text)?.[0];
  return found && `U+${found.codePointAt(0)!.toString(16).toUpperCase().padStart(4, '0')}`;
}
