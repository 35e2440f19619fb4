// Evaluates one expression of the Common Expression Language in a thread of its own, which can be ended from outside.
import { Environment } from '@marcbachmann/cel-js';
import { parentPort, workerData } from 'node:worker_threads';

const { expression, catalogs } = workerData as { expression: string; catalogs: Record<string, unknown> };

function evaluate(): { result: unknown } | { fault: string } {
  try {
    const environment = new Environment({ unlistedVariablesAreDyn: true, homogeneousAggregateLiterals: false });
    const result: unknown = environment.evaluate(expression, catalogs);
    return {
      result: JSON.parse(JSON.stringify(result, (_key, value: unknown) => (typeof value === 'bigint' ? String(value) : value))) as unknown,
    };
  } catch (error) {
    return { fault: error instanceof Error ? error.message : String(error) };
  }
}

parentPort!.postMessage(evaluate());
