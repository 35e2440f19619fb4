// Keys under which two spellings count as one value (matchKey) or as probably one value (looseKey).
import { clean } from './clean.js';

/** Code points whose upper-to-lower round trip is not their case folding (Unicode CaseFolding.txt, status C and F). */
const foldsToItself = new Set(['ı']);

/** Full case folding of one code point: `ß` and `ẞ` fold to `ss`, a final sigma to a sigma. */
export function foldCase(codePoint: string): string {
  if (foldsToItself.has(codePoint)) return codePoint;
  return codePoint.toLowerCase().toUpperCase().toLowerCase().replaceAll('ς', 'σ');
}

const ascii = /^[ -~]*$/u;

function foldText(text: string): string {
  if (ascii.test(text)) return text.toLowerCase();
  let folded = '';
  for (const codePoint of text) folded += foldCase(codePoint);
  return folded;
}

/** Folding can make new compatibility forms and the other way round, so it is repeated until nothing changes. */
function untilStable(text: string, step: (text: string) => string): string {
  let before = text;
  let after = step(before);
  while (after !== before) {
    before = after;
    after = step(before);
  }
  return after;
}

const invisible = /\p{Default_Ignorable_Code_Point}/gu;

/**
 * One key means *the same value written differently*: other case, other blanks, compatibility forms.
 * Unicode NFKC with full case folding (after the Unicode Standard, 3.13, D146), cleaned. Idempotent.
 */
export function matchKey(text: string): string {
  // ASCII has no compatibility forms and nothing invisible: one step is enough.
  if (ascii.test(text)) return clean(text).toLowerCase();
  return untilStable(text, (step) => clean(foldText(clean(step).normalize('NFKC')).replace(invisible, '')));
}

const lettersAndDigits = /^[A-Za-z0-9 ]*$/u;
const accents = /\p{M}/gu;
const signBeforeDigit = /(?<![\p{L}\p{N}])[-−](?=[.,]?\p{Nd})/gu;
const separatorBetweenDigits = /(?<=\p{Nd})[.,:/-](?=\p{Nd})/gu;
const punctuation = /[\p{P}\p{S}]/gu;

/**
 * One loose key means *probably the same*: the match key without accents and punctuation. Signs and separators
 * of numbers stay (1.2 is not 12, −5 is not 5). Empty when nothing is left. For suggestions, never taken silently.
 */
export function looseKey(text: string): string {
  // Most texts have nothing that would be taken off them.
  if (lettersAndDigits.test(text)) return clean(text).toLowerCase();
  const plain = matchKey(text).normalize('NFD').replace(accents, '');
  const kept = plain
    .replace(signBeforeDigit, '\u0001')
    .replace(separatorBetweenDigits, (mark) => (mark === ',' ? '\u0003' : mark === '.' ? '\u0002' : '\u0004'));
  return clean(kept.replace(punctuation, ' '))
    .replaceAll('\u0001', '-')
    .replaceAll('\u0002', '.')
    .replaceAll('\u0003', ',')
    .replaceAll('\u0004', '/')
    .normalize('NFC');
}

/** The numbers in a text, parted by blanks: texts with other numbers are other things, however alike they are. */
export const digitsOf = (text: string): string => text.replace(/\D+/gu, ' ').trim();
