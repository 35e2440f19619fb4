// The texts of a file of texts, whatever its encoding.
import { TextDecoder } from 'node:util';
import { beginningOf, type FileBytes } from './fileBytes.js';
import { UnreadableFile } from './models.js';

/** Bytes that are taken for one piece: rows of a small one are forgotten before they grow old, which costs more than reading them. */
const chunkSize = 64 * 1024;
const headSize = 256 * 1024;

/** What it begins with. */
export async function headOf(file: FileBytes): Promise<string> {
  const head = await beginningOf(file, headSize);
  return new TextDecoder(await encodingOf(head, file)).decode(head, { stream: true });
}

/** The whole, a piece after another. */
export async function* textsOf(file: FileBytes): AsyncIterable<{ text: string; isLast: boolean }> {
  const decoder = new TextDecoder(await encodingOf(await beginningOf(file, looked), file));
  let read = 0;
  for await (const part of file.parts()) {
    for (let at = 0; at < part.length; at += chunkSize) {
      const chunk = part.subarray(at, at + chunkSize);
      read += chunk.length;
      const isLast = read === file.size;
      yield { text: decoder.decode(chunk, { stream: !isLast }), isLast };
    }
  }
}

const looked = 4096;

/** By its first bytes, and by whether it is UTF-8 at all; what is not is taken for the encoding that offices used before. */
async function encodingOf(beginning: Buffer, file: FileBytes): Promise<string> {
  const [first, second] = beginning;
  if (first === 0xff && second === 0xfe) return 'utf-16le';
  if (first === 0xfe && second === 0xff) return 'utf-16be';
  const head = beginning.subarray(0, looked);
  const blank = (odd: number) => head.filter((byte, at) => at % 2 === odd && byte === 0).length;
  if (blank(1) > head.length / 8 && blank(0) === 0) return 'utf-16le';
  if (blank(0) > head.length / 8 && blank(1) === 0) return 'utf-16be';
  if (head.includes(0))
    throw new UnreadableFile('The file is neither a workbook nor a table of texts. Save it as a workbook or as CSV, and bring that.');
  return (await file.isUtf8()) ? 'utf-8' : 'windows-1252';
}
