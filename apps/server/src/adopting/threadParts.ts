// Parts of files on their way to a thread: it asks for one after another, and holds none that it has read.
import type { MessagePort } from 'node:worker_threads';

/** A part of a file, by its place among those that are read; undefined beyond the last. */
export type PartOf = (file: number, part: number) => Promise<Buffer | undefined>;

interface Asked {
  readonly file: number;
  readonly part: number;
}
type Answer = { readonly bytes: Uint8Array | undefined } | { readonly failed: string };

/** Answers what the thread asks for, in the order in which it asks. */
export function answerParts(port: MessagePort, part: PartOf): void {
  const answer = async ({ file, part: number }: Asked): Promise<Answer> => {
    try {
      return { bytes: await part(file, number) };
    } catch (error) {
      return { failed: error instanceof Error ? error.message : String(error) };
    }
  };
  let before: Promise<void> = Promise.resolve();
  port.on('message', (asked: Asked) => {
    const coming = answer(asked);
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
