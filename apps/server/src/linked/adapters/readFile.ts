// Files as text: their size is bounded, and how they are written is told apart or asked.
import { readFile } from 'node:fs/promises';
import type { Encoding, TextFileSettingsDto } from '@dellum/contract';
import type { ReadingContext } from './adapter.js';
import { needed, SourceFault } from './adapter.js';

const mostBytes = 20_000_000;
/** Bytes that Windows-1252 has no character for. */
const noWindows = /[\x81\x8D\x8F\x90\x9D]/u;

const strictly = (encoding: string, bytes: Buffer): string | undefined => {
  try {
    return new TextDecoder(encoding, { fatal: true }).decode(bytes);
  } catch {
    return undefined;
  }
};

function byMark(bytes: Buffer): string | undefined {
  if (bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf) return 'utf-8';
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return 'utf-16le';
  return bytes[0] === 0xfe && bytes[1] === 0xff ? 'utf-16be' : undefined;
}

/** In UTF-16 without a mark, western texts have a zero in nearly every second byte. */
function byZeros(bytes: Buffer): string | undefined {
  const sample = bytes.subarray(0, 4000);
  const zeros = [0, 0];
  sample.forEach((byte, at) => byte === 0 && zeros[at % 2]!++);
  const half = sample.length / 2;
  if (zeros[1]! > half * 0.6 && zeros[0]! < half * 0.1) return 'utf-16le';
  return zeros[0]! > half * 0.6 && zeros[1]! < half * 0.1 ? 'utf-16be' : undefined;
}

/** The text of some bytes. Throws when it cannot be told how they are written, or when they are no text. */
export function decode(bytes: Buffer, encoding: Encoding | undefined): string {
  const known = encoding && encoding !== 'told apart' ? encoding : (byMark(bytes) ?? byZeros(bytes));
  const text = known ? strictly(known, bytes) : strictly('utf-8', bytes);
  if (text !== undefined) {
    if (text.includes('\u0000')) throw new SourceFault('This is not a text file: it holds bytes that no text has. Choose another file.');
    return text;
  }
  if (known) throw new SourceFault(`The file is not written in ${known}. Choose another way of reading it.`);
  if (bytes.includes(0)) throw new SourceFault('This is not a text file: it holds bytes that no text has. Choose another file.');
  if (noWindows.test(bytes.toString('latin1')))
    throw new SourceFault('It cannot be told how this file is written. Choose UTF-8, UTF-16 or Windows-1252.');
  return new TextDecoder('windows-1252').decode(bytes);
}

export async function readTextFile(
  { path, encoding }: Pick<TextFileSettingsDto, 'path' | 'encoding'>,
  { reachable }: ReadingContext,
): Promise<string> {
  const wanted = needed(path, 'Choose the file.');
  const { real, isFolder, size } = await reachable.under(wanted);
  if (isFolder) throw new SourceFault(`“${wanted}” is a folder. Choose a file in it.`);
  if (size > mostBytes)
    throw new SourceFault(`“${wanted}” has ${Math.round(size / 1e6).toLocaleString('en-GB')} MB; at most ${mostBytes / 1e6} MB are read.`);
  return decode(await readFile(real), encoding);
}
