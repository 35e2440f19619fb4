// Computed values: an expression of the Common Expression Language (CEL) over the items of other catalogs, bounded in time,
// memory and size.
import { Worker } from 'node:worker_threads';
import type { LinkedRow } from '@dellum/core';
import { distinctRows, needed, SourceFault, type LinkedAdapter } from './adapter.js';

const mostMilliseconds = 3000;
const mostMegabytes = 128;

type Evaluated = { readonly result: unknown } | { readonly fault: string };

function evaluate(expression: string, catalogs: unknown): Promise<unknown> {
  const worker = new Worker(new URL('./celWorker.js', import.meta.url), {
    workerData: { expression, catalogs },
    resourceLimits: { maxOldGenerationSizeMb: mostMegabytes },
  });
  return new Promise<unknown>((resolve, reject) => {
    const timer = setTimeout(
      () => reject(new SourceFault('The expression takes longer than 3 seconds and was stopped. Make it simpler.')),
      mostMilliseconds,
    );
    worker.once('message', (evaluated: Evaluated) => {
      clearTimeout(timer);
      if ('fault' in evaluated) reject(new SourceFault(`The expression cannot be computed: ${evaluated.fault}`));
      else resolve(evaluated.result);
    });
    worker.once('error', () => {
      clearTimeout(timer);
      reject(new SourceFault(`The expression needs more than ${mostMegabytes} MB and was stopped. Make it simpler.`));
    });
  }).finally(() => worker.terminate());
}

function rowOf(element: unknown): LinkedRow {
  if (typeof element === 'string') return { value: element };
  if (typeof element === 'number' || typeof element === 'boolean') return { value: String(element) };
  if (typeof element === 'object' && element !== null && 'value' in element && typeof element.value === 'string') {
    return { value: element.value, ...('label' in element && typeof element.label === 'string' && { label: element.label }) };
  }
  throw new SourceFault('The expression must give a list of texts, or of maps with “value” and perhaps “label”.');
}

export const computed: LinkedAdapter<'computed'> = {
  kind: 'computed',
  async read(settings, context) {
    const expression = needed(settings.expression, 'Write the expression.');
    const result = await evaluate(expression, await context.catalogs(settings.catalogs ?? []));
    if (!Array.isArray(result)) throw new SourceFault('The expression must give a list. It gives a single value.');
    return { rows: distinctRows(result.map(rowOf)) };
  },
};
