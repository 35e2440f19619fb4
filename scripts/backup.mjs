// npm run backup -- FOLDER: a backup of the house, written while people go on working. --demo: of the demo instead.
import { resolve } from 'node:path';
import { backUp } from './lib/backups.mjs';
import { dataFolderOf, withDatabase } from './lib/dataFolder.mjs';
import { Stop, runScript, say } from './lib/say.mjs';

await runScript(async () => {
  const [folder, ...more] = process.argv.slice(2).filter((option) => option !== '--demo');
  if (!folder || more.length > 0) throw new Stop('Say where the backup goes: npm run backup -- FOLDER');
  await withDatabase(dataFolderOf(!process.argv.includes('--demo')), ({ url }) => {
    const { file, entries } = backUp(url, resolve(folder));
    say(`${file} holds ${entries.toLocaleString('en-GB')} entries; it was restored once to see that it is whole.`);
  });
});
