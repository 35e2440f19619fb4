// Look-alikes of many values are sought in a thread of their own, so that nobody's request waits for them.
import { once } from 'node:events';
import { Worker } from 'node:worker_threads';
import { lookAlikes, type LookAlike, type Spelling } from '@dellum/core';

/** Fewer values take a few milliseconds. */
const few = 3000;

export async function lookAlikesOf(values: readonly Spelling[]): Promise<LookAlike[]> {
  if (values.length <= few) return lookAlikes(values);
  const worker = new Worker(new URL('./lookAlikesWorker.js', import.meta.url), { workerData: values });
  try {
    const [groups] = (await once(worker, 'message')) as [LookAlike[]];
    return groups;
  } finally {
    await worker.terminate();
  }
}
