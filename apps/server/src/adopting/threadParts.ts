// Parts of files on their way to a thread: it asks for one after another, holds none that it has read, and tells how many rows they were.
import type { MessagePort } from 'node:worker_threads';

/** A part of a file, by its place among those that are read; undefined beyond the last. */
export type PartOf = (file: number, part: number) => Promise<Buffer | undefined>;

interface Asked {
  readonly file: number;
  readonly part: number;
}
/** So many rows are read. */
interface Told {
  readonly rows: number;
}
type Answer = { readonly bytes: Uint8Array | undefined } | { readonly failed: string };

/** Told so often; milliseconds. */
export const tellEvery = 500;

/** Answers what the thread asks for, in the order in which it asks; `told`: how many rows it has read. */
export function answerParts(port: MessagePort, part: PartOf, told: (rows: number) => void): void {
  const answer = async ({ file, part: number }: Asked): Promise<Answer> => {
    try {
      return { bytes: await part(file, number) };
    } catch (error) {
      return { failed: error instanceof Error ? error.message : String(error) };
    }
  };
  let before: Promise<void> = Promise.resolve();
  port.on('message', (message: Asked | Told) => {
    if ('rows' in message) {
      told(message.rows);
      return;
    }
    const coming = answer(message);
    before = before.then(async () => port.postMessage(await coming));
  });
}

/** In the thread: asks for them. */
export function askedParts(port: MessagePort): PartOf {
  const waiting: { done: (bytes: Buffer | undefined) => void; failed: (error: Error) => void }[] = [];
  port.on('message', (answer: Answer) => {
    const { done, failed } = waiting.shift()!;
    if ('failed' in answer) failed(new Error(answer.failed));
    else done(answer.bytes && Buffer.from(answer.bytes.buffer, answer.bytes.byteOffset, answer.bytes.byteLength));
  });
  return (file, part) =>
    new Promise((done, failed) => {
      waiting.push({ done, failed });
      port.postMessage({ file, part } satisfies Asked);
    });
}

/** In the thread: tells how many rows are read, now and then. */
export function tellRows(port: MessagePort): (rows: number) => void {
  let last = performance.now();
  return (rows) => {
    if (performance.now() - last < tellEvery) return;
    last = performance.now();
    port.postMessage({ rows } satisfies Told);
  };
}
