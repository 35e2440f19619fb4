// A file as it comes, kept in parts: none of it is held longer than a part takes to fill.
import { ProblemError } from '../problems/index.js';

const megabyte = 1024 * 1024;
const partSize = megabyte;

/**
 * Hands the parts to `store`, one after another, and each piece to `seen` as it comes; returns the size. Throws `too-large` beyond `most`
 * bytes.
 */
export async function keptInParts(
  bytes: AsyncIterable<Buffer>,
  most: number,
  store: (part: number, bytes: Buffer) => Promise<void>,
  seen: (piece: Buffer) => void = () => undefined,
): Promise<number> {
  let [part, size, held, filled]: [number, number, Buffer[], number] = [0, 0, [], 0];
  // One part is stored while the next one comes.
  let storing: Promise<void> = Promise.resolve();
  const put = async () => {
    const [number, own] = [part, Buffer.concat(held)];
    [part, held, filled] = [part + 1, [], 0];
    await storing;
    storing = store(number, own);
    // What goes wrong is told where the next part is put, or at the end.
    storing.catch(() => undefined);
  };
  try {
    for await (const piece of bytes) {
      size += piece.length;
      if (size > most)
        throw new ProblemError('too-large', `A file may have ${most / megabyte} MB, and this one has more. Bring it in parts.`);
      seen(piece);
      held.push(piece);
      filled += piece.length;
      if (filled >= partSize) await put();
    }
    if (held.length > 0) await put();
  } finally {
    // Nothing is stored any more by the time that what came is thrown away.
    await Promise.allSettled([storing]);
  }
  await storing;
  return size;
}
