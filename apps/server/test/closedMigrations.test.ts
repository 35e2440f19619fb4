// Migrations are closed once they have landed: databases out there have run them as they were. What is wrong is mended by a new one.
import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, it } from 'vitest';

const folder = join(import.meta.dirname, '..', 'src', 'database', 'migrations');
const closed = new Map(
  readFileSync(join(folder, 'closed.sha256'), 'utf8')
    .trim()
    .split('\n')
    .map((line) => line.split(/\s+/u) as [string, string])
    .map(([sum, name]) => [name, sum]),
);

it('no migration is another one than it was when it was closed, and each that is there is closed', () => {
  const names = readdirSync(folder).filter((name) => name.endsWith('.ts'));
  const sums = names.map(
    (name) =>
      [
        name,
        createHash('sha256')
          .update(readFileSync(join(folder, name)))
          .digest('hex'),
      ] as const,
  );
  expect(new Map(sums)).toEqual(closed);
});
