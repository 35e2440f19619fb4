// Measuring: medians of repeated runs, and one JSON object a line.

export interface Result {
  readonly name: string;
  readonly value: number;
  readonly unit: string;
  readonly against: string;
  /** How many times better than the baseline; null where the aim is an absolute limit. */
  readonly ratio: number | null;
}

export function print(result: Result): void {
  const rounded = (number: number) => Number(number.toPrecision(4));
  process.stdout.write(
    `${JSON.stringify({ ...result, value: rounded(result.value), ratio: result.ratio === null ? null : rounded(result.ratio) })}\n`,
  );
}

/** A line that could not be measured, and why. */
export function printFailed(name: string, error: unknown): void {
  process.stdout.write(`${JSON.stringify({ name, failed: error instanceof Error ? error.message : String(error) })}\n`);
}

export const percentile = (values: readonly number[], share: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))]!;
export const median = (values: readonly number[]): number => percentile(values, 0.5);

/** Milliseconds of each of some runs, after a few that warm up. */
export async function times(runs: number, work: () => Promise<unknown>): Promise<number[]> {
  for (let warm = 0; warm < 3; warm++) await work();
  const spent: number[] = [];
  for (let run = 0; run < runs; run++) {
    const started = performance.now();
    await work();
    spent.push(performance.now() - started);
  }
  return spent;
}
