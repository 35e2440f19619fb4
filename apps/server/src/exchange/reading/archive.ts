// A ZIP whose parts are read one by one, each within bounds: what a part says of its size is checked before it is opened, and kept to while
// it is.
import { promisify } from 'node:util';
import type { Readable } from 'node:stream';
import { fromBuffer, type Entry, type ZipFile } from 'yauzl';
import { largestPart, mostPacked, suspicious, UnreadableFile } from './models.js';

const opened = promisify(fromBuffer as (bytes: Buffer, options: object, done: (error: Error | null, zip: ZipFile) => void) => void);
const mostParts = 5000;

const broken = () => new UnreadableFile('The file is damaged: its contents cannot be found. Save it again where it was made.');

export interface Archive {
  /** The paths of its parts. */
  readonly names: readonly string[];
  has(name: string): boolean;
  /** A part, in chunks. */
  part(name: string): AsyncIterable<Buffer>;
}

export async function openArchive(bytes: Buffer): Promise<Archive> {
  const parts = await partsOf(bytes);
  return {
    names: [...parts.entries.keys()],
    has: (name) => parts.entries.has(name),
    part: (name) => chunksOf(parts.zip, parts.entries.get(name), name),
  };
}

async function partsOf(bytes: Buffer): Promise<{ zip: ZipFile; entries: Map<string, Entry> }> {
  const zip = await opened(bytes, { lazyEntries: true, autoClose: false }).catch(() => {
    throw broken();
  });
  if (zip.entryCount > mostParts)
    throw new UnreadableFile(`The file has more than ${mostParts.toLocaleString('en-GB')} parts, which no workbook has.`);
  const entries = new Map<string, Entry>();
  await new Promise<void>((done, failed) => {
    zip.on('entry', (entry: Entry) => {
      entries.set(entry.fileName, entry);
      zip.readEntry();
    });
    zip.on('end', done);
    // Among others for paths that lead out of the archive.
    zip.on('error', () => failed(broken()));
    zip.readEntry();
  });
  return { zip, entries };
}

async function* chunksOf(zip: ZipFile, entry: Entry | undefined, name: string): AsyncIterable<Buffer> {
  if (!entry) throw new UnreadableFile(`The file is not whole: its part “${name}” is missing. Save it again where it was made.`);
  if (entry.isEncrypted()) throw withPassword();
  const packed = Math.max(1, entry.compressedSize);
  if (entry.uncompressedSize > largestPart || (entry.uncompressedSize > suspicious && entry.uncompressedSize / packed > mostPacked))
    throw new UnreadableFile(
      'The file would become far larger than it is when it is opened, so it was not opened. Send only the sheet that is needed.',
    );
  const stream = await new Promise<Readable>((done, failed) => {
    zip.openReadStream(entry, (error, found) => (error ? failed(broken()) : done(found)));
  });
  try {
    for await (const chunk of stream) yield chunk as Buffer;
  } catch (error) {
    throw error instanceof UnreadableFile ? error : broken();
  }
}

export const withPassword = () =>
  new UnreadableFile('The file is protected by a password. Take the password off where it was made, and bring it again.');
