// Loads the demo house: `node demo/dist/load.js [--fresh]`, with DATABASE_URL. Without --fresh, only into an
// instance that has no house yet; with it, an existing demo house is replaced.
import { Database, migrate } from '@dellum/server';
import { deleteHouse, loadHouse } from './loadHouse.js';
import { quillhaven } from './quillhaven.js';

const database = new Database(process.env['DATABASE_URL']!, 2);
const db = database.kysely;
try {
  await migrate(db);
  const fresh = process.argv.includes('--fresh');
  const houses = await db.selectFrom('houses').select(['id', 'key', 'demo']).execute();
  const old = houses.find(({ key, demo }) => demo && key === 'quillhaven');
  if (fresh && old) await deleteHouse(db, old.id);
  if (houses.length === 0 || fresh) await loadHouse(db, quillhaven(new Date()));
} catch (error) {
  // One line for the start command, which says what to do about it.
  process.stderr.write(`${error instanceof Error ? error.message || error.name : String(error)}\n`);
  process.exitCode = 1;
} finally {
  await db.destroy();
}
