// The texts of a file of texts, whatever its encoding.
import { isUtf8 } from 'node:buffer';
import { TextDecoder } from 'node:util';
import { UnreadableFile } from './models.js';

/** Bytes that are taken for one piece: rows of a small one are forgotten before they grow old, which costs more than reading them. */
const chunkSize = 64 * 1024;
const headSize = 256 * 1024;

/** What it begins with. */
export const headOf = (bytes: Buffer): string => new TextDecoder(encodingOf(bytes)).decode(bytes.subarray(0, headSize), { stream: true });

/** The whole, a piece after another. */
export function* textsOf(bytes: Buffer): Iterable<{ text: string; isLast: boolean }> {
  const decoder = new TextDecoder(encodingOf(bytes));
  for (let at = 0; at < bytes.length; at += chunkSize) {
    const isLast = at + chunkSize >= bytes.length;
    yield { text: decoder.decode(bytes.subarray(at, at + chunkSize), { stream: !isLast }), isLast };
  }
}

const looked = 4096;

/** By its first bytes, and by whether it is UTF-8 at all; what is not is taken for the encoding that offices used before. */
function encodingOf(bytes: Buffer): string {
  const [first, second] = bytes;
  if (first === 0xff && second === 0xfe) return 'utf-16le';
  if (first === 0xfe && second === 0xff) return 'utf-16be';
  const head = bytes.subarray(0, looked);
  const blank = (odd: number) => head.filter((byte, at) => at % 2 === odd && byte === 0).length;
  if (blank(1) > head.length / 8 && blank(0) === 0) return 'utf-16le';
  if (blank(0) > head.length / 8 && blank(1) === 0) return 'utf-16be';
  if (head.includes(0))
    throw new UnreadableFile('The file is neither a workbook nor a table of texts. Save it as a workbook or as CSV, and bring that.');
  return isUtf8(bytes) ? 'utf-8' : 'windows-1252';
}
