// Brings a database to its newest form as its owner, and the server's own role to what it may do there: `node dist/database/prepare.js`
// with DATABASE_URL of the owner, and DELLUM_ROLE and DELLUM_ROLE_PASSWORD of the server.
import { prepareAppRole } from './appRole.js';
import { Database } from './database.js';
import { migrate } from './migrate.js';

const database = new Database(process.env['DATABASE_URL']!, 1);
try {
  await migrate(database.kysely);
  await prepareAppRole(database.kysely, { name: process.env['DELLUM_ROLE']!, password: process.env['DELLUM_ROLE_PASSWORD']! });
} catch (error) {
  // One line for the start command, which says what to do about it.
  process.stderr.write(`${error instanceof Error ? error.message || error.name : String(error)}\n`);
  process.exitCode = 1;
} finally {
  await database.kysely.destroy();
}
