// The one normal form of names, headings, source values and bound values.
// Free text is stored as typed and never passes through here.

/** Zero-width characters and the byte order mark: nobody sees them, so nobody can have meant them. */
const zeroWidth = /[\u180E\u200B-\u200D\u2060\uFEFF]/gu;
const blanks = /[\p{White_Space}]+/gu;

/**
 * Unicode NFC without zero-width characters; every run of Unicode blanks is one U+0020; no blank at the ends.
 * Idempotent. Right-to-left and combining characters are kept.
 */
export function clean(text: string): string {
  return text.replace(zeroWidth, '').replace(blanks, ' ').trim().normalize('NFC');
}

const plainlyVisible = /[!-~]/u;

/** True when nothing visible is left of the text. */
export function isBlank(text: string): boolean {
  if (plainlyVisible.test(text)) return false;
  return clean(text) === '';
}
