// A ZIP (APPNOTE 6.3) written part by part. Each part is compressed up to a byte boundary, so that a job can put the file down after any
// part and another server can go on with it: the state is small, and no library of the registry lets go of its own in the middle.
import { promisify } from 'node:util';
import { constants, crc32, deflateRaw } from 'node:zlib';

const deflate = promisify<Buffer, object, Buffer>(deflateRaw);
/** Sizes stand behind the data, names are UTF-8. */
const flags = 0x0808;
const utf8 = 0x0800;
const deflated = 8;
const version = 20;
/** 1980-01-01, so that the same content is the same file. */
const date = 0x21;

interface Packed {
  readonly name: string;
  readonly crc: number;
  readonly packed: number;
  readonly size: number;
  readonly offset: number;
  /** True where it is not compressed. */
  readonly stored?: boolean;
}
/** What is written so far. */
export interface ZipState {
  readonly files: readonly Packed[];
  /** The file that is being written; its sizes so far. */
  readonly open: Packed | null;
  readonly offset: number;
}
export const noZip: ZipState = { files: [], open: null, offset: 0 };

interface Step {
  readonly state: ZipState;
  readonly bytes: Buffer;
}

function fields(...all: readonly (readonly [size: 2 | 4, value: number])[]): Buffer {
  const bytes = Buffer.alloc(all.reduce((sum, [size]) => sum + size, 0));
  let at = 0;
  for (const [size, value] of all) {
    if (size === 2) bytes.writeUInt16LE(value, at);
    else bytes.writeUInt32LE(value >>> 0, at);
    at += size;
  }
  return bytes;
}

/** A whole file that is not compressed, as the first of an OpenDocument package has to be. */
export function stored(state: ZipState, name: string, text: string): Step {
  const [called, plain] = [Buffer.from(name), Buffer.from(text)];
  const file = { name, crc: crc32(plain), packed: plain.length, size: plain.length, offset: state.offset, stored: true };
  const bytes = Buffer.concat([
    fields([4, 0x04034b50], [2, version], [2, utf8], [2, 0], [2, 0], [2, date], [4, file.crc], [4, file.packed], [4, file.size]),
    fields([2, called.length], [2, 0]),
    called,
    plain,
  ]);
  return { state: { ...state, files: [...state.files, file], offset: state.offset + bytes.length }, bytes };
}

/** Begins a file. */
export function begun(state: ZipState, name: string): Step {
  const called = Buffer.from(name);
  const bytes = Buffer.concat([
    fields([4, 0x04034b50], [2, version], [2, flags], [2, deflated], [2, 0], [2, date], [4, 0], [4, 0], [4, 0], [2, called.length], [2, 0]),
    called,
  ]);
  return {
    state: { ...state, open: { name, crc: 0, packed: 0, size: 0, offset: state.offset }, offset: state.offset + bytes.length },
    bytes,
  };
}

/** Adds to the file that is begun. */
export async function added(state: ZipState, text: string): Promise<Step> {
  // The sum over nothing would begin anew.
  if (text === '') return { state, bytes: Buffer.alloc(0) };
  const open = state.open!;
  const plain = Buffer.from(text);
  const bytes = await deflate(plain, { finishFlush: constants.Z_SYNC_FLUSH });
  return {
    state: {
      ...state,
      open: { ...open, crc: crc32(plain, open.crc), packed: open.packed + bytes.length, size: open.size + plain.length },
      offset: state.offset + bytes.length,
    },
    bytes,
  };
}

/** Ends the file that is begun. */
export function ended(state: ZipState): Step {
  // A last block that holds nothing.
  const last = Buffer.from([3, 0]);
  const open = { ...state.open!, packed: state.open!.packed + last.length };
  const bytes = Buffer.concat([last, fields([4, 0x08074b50], [4, open.crc], [4, open.packed], [4, open.size])]);
  return { state: { files: [...state.files, open], open: null, offset: state.offset + bytes.length }, bytes };
}

/** What stands at the end of the whole. */
export function closed({ files, offset }: ZipState): Buffer {
  const entries = files.map((file) => {
    const called = Buffer.from(file.name);
    return Buffer.concat([
      fields(
        [4, 0x02014b50],
        [2, version],
        [2, version],
        [2, file.stored ? utf8 : flags],
        [2, file.stored ? 0 : deflated],
        [2, 0],
        [2, date],
      ),
      fields([4, file.crc], [4, file.packed], [4, file.size], [2, called.length], [2, 0], [2, 0], [2, 0], [2, 0], [4, 0], [4, file.offset]),
      called,
    ]);
  });
  const directory = Buffer.concat(entries);
  return Buffer.concat([
    directory,
    fields([4, 0x06054b50], [2, 0], [2, 0], [2, files.length], [2, files.length], [4, directory.length], [4, offset], [2, 0]),
  ]);
}
