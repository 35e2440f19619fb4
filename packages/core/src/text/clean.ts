// The one normal form of names, headings, source values and bound values.
// Free text is stored as typed and never passes through here.

/** Characters that nobody sees (Unicode Default_Ignorable_Code_Point): nobody can have meant them where they change nothing. */
const ignorable = /\p{Default_Ignorable_Code_Point}/gu;
/** Blanks, and the signs that look like one: the braille pattern without dots is drawn as nothing. */
const blanks = /[\p{White_Space}\u2800]+/gu;
/** Nothing to clean: words of signs of ASCII, with one blank between them. Nearly all names are of this kind. */
const plain = /^[!-~]+(?: [!-~]+)*$/u;
/** Nothing to clean but blanks: no sign beyond ASCII. */
const ascii = /^[ -~]*$/u;

const joiner = /[\u200C\u200D]/u;
/** Joined emoji are one picture. */
const pictureBefore = /\p{Extended_Pictographic}[\p{Emoji_Modifier}\uFE0F]?$/u;
const pictureAfter = /^\p{Extended_Pictographic}/u;
/** In these scripts letters join, and a joiner between two of them chooses their shape. */
const joins = String.raw`[\p{Script=Arabic}\p{Script=Syriac}\p{Script=Mongolian}\p{Script=Devanagari}\p{Script=Bengali}\p{Script=Gurmukhi}\p{Script=Gujarati}\p{Script=Oriya}\p{Script=Tamil}\p{Script=Telugu}\p{Script=Kannada}\p{Script=Malayalam}\p{Script=Sinhala}\p{Script=Khmer}\p{Script=Myanmar}]`;
const joiningBefore = new RegExp(`${joins}$`, 'u');
const joiningAfter = new RegExp(`^${joins}`, 'u');
const variant = /[\uFE00-\uFE0F\u{E0100}-\u{E01EF}]/u;
const variedBefore = /[\p{Extended_Pictographic}\p{Script=Han}0-9#*]$/u;
const direction = /[\u061C\u200E\u200F\u202A-\u202E\u2066-\u2069]/u;
const rightToLeft =
  /[\p{Script=Hebrew}\p{Script=Arabic}\p{Script=Syriac}\p{Script=Thaana}\p{Script=Nko}\p{Script=Samaritan}\p{Script=Mandaic}\p{Script=Adlam}]/u;

/** So many code units around a sign tell whether it does anything. */
const around = 4;

/** Whether a character that nobody sees changes what is seen of the text around it. */
function changesSomething(sign: string, at: number, text: string): boolean {
  const before = text.slice(Math.max(0, at - around), at);
  const after = text.slice(at + sign.length, at + sign.length + around);
  if (joiner.test(sign))
    return (pictureBefore.test(before) && pictureAfter.test(after)) || (joiningBefore.test(before) && joiningAfter.test(after));
  if (variant.test(sign)) return variedBefore.test(before);
  // Where all runs from left to right, marks of direction do nothing.
  return direction.test(sign) && rightToLeft.test(text);
}

/**
 * Unicode NFC without the characters that nobody sees; every run of blanks is one U+0020; no blank at the ends. Kept are
 * joiners and variants where they change what is seen, and marks of direction beside letters that run from right to left.
 * Idempotent.
 */
export function clean(text: string): string {
  if (plain.test(text)) return text;
  const seen = ascii.test(text) ? text : text.replace(ignorable, (sign, at: number) => (changesSomething(sign, at, text) ? sign : ''));
  return seen.replace(blanks, ' ').trim().normalize('NFC');
}

/** A text of several lines: each is cleaned, and the lines stay. */
export const cleanLines = (text: string): string =>
  /[\r\n]/u.test(text)
    ? text
        .split(/\r\n?|\n/u)
        .map(clean)
        .join('\n')
        .trim()
    : clean(text);

const plainlyVisible = /[!-~]/u;

/** True when nothing visible is left of the text. */
export function isBlank(text: string): boolean {
  if (plainlyVisible.test(text)) return false;
  return clean(text) === '';
}
