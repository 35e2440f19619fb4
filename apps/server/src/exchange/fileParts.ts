// A file as it comes, kept in parts: none of it is held longer than a part takes to fill.
import { mostFileBytes } from '@dellum/contract';
import { ProblemError } from '../problems/index.js';

const partSize = 1024 * 1024;

/** Hands the parts to `store`, one after another, and each piece to `seen` as it comes; returns the size. Throws `too-large`. */
export async function keptInParts(
  bytes: AsyncIterable<Buffer>,
  store: (part: number, bytes: Buffer) => Promise<void>,
  seen: (piece: Buffer) => void = () => undefined,
): Promise<number> {
  let [part, size, held, filled]: [number, number, Buffer[], number] = [0, 0, [], 0];
  const put = async () => {
    await store(part, Buffer.concat(held));
    [part, held, filled] = [part + 1, [], 0];
  };
  for await (const piece of bytes) {
    size += piece.length;
    if (size > mostFileBytes)
      throw new ProblemError('too-large', `A file may have ${mostFileBytes / 1024 / 1024} MB, and this one has more. Bring it in parts.`);
    seen(piece);
    held.push(piece);
    filled += piece.length;
    if (filled >= partSize) await put();
  }
  if (held.length > 0) await put();
  return size;
}
