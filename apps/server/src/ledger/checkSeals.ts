// Reckons the seals of the ledger anew: `node dist/ledger/checkSeals.js [DIGEST]` with DATABASE_URL. Ends with 1 where one is broken, or
// the digest is none of them.
import { Database } from '../database/database.js';
import { SealsStore, type SealsChecked } from './seals.store.js';

function words({ house, rows, seals, unsealed, digest, broken }: SealsChecked): string {
  if (broken)
    return `${house}: BROKEN at seal ${broken.ord} (rows ${broken.after + 1} to ${broken.upto}, sealed ${broken.at.toISOString()}). Compare with a backup from before.`;
  const last = digest === null ? 'nothing is sealed yet' : `the last seal is ${digest}`;
  return `${house}: whole; ${rows} rows in ${seals} seals, ${unsealed} rows not sealed yet; ${last}`;
}

const database = new Database(process.env['DATABASE_URL']!, 1);
try {
  const store = new SealsStore(database);
  const houses = await store.check(database.kysely);
  for (const house of houses) process.stdout.write(`${words(house)}\n`);
  const noted = process.argv[2];
  const isKnown = noted === undefined || (await store.knows(database.kysely, noted));
  if (!isKnown) process.stdout.write(`${noted} is none of the seals: what it was taken of has been replaced or cut off.\n`);
  if (!isKnown || houses.some(({ broken }) => broken)) process.exitCode = 1;
} catch (error) {
  const isOlder = error instanceof Error && 'code' in error && error.code === '42P01';
  process.stderr.write(
    isOlder
      ? 'This database is of an older form, without seals. Start Dellum once, then check again.\n'
      : `The ledger cannot be checked: ${error instanceof Error ? error.message || error.name : String(error)}\n`,
  );
  process.exitCode = 1;
} finally {
  await database.kysely.destroy();
}
