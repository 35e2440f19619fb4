// npm run restore -- FILE: brings a backup into an empty or new data folder (DELLUM_DATA).
import { resolve } from 'node:path';
import { restore } from './lib/backups.mjs';
import { dataFolderOf, withDatabase } from './lib/dataFolder.mjs';
import { lockFolder } from './lib/lock.mjs';
import { Stop, runScript, say } from './lib/say.mjs';

await runScript(async () => {
  const [file, ...more] = process.argv.slice(2);
  if (!file || more.length > 0) throw new Stop('Say which backup is restored: npm run restore -- FILE');
  const folder = dataFolderOf(true);
  const lock = process.env.DATABASE_URL ? undefined : await lockFolder(folder);
  try {
    await withDatabase(folder, ({ url }) => {
      const entries = restore(url, resolve(file));
      say(`${entries.toLocaleString('en-GB')} entries are back. Start with: npm start -- --empty`);
    });
  } finally {
    lock?.free();
  }
});
