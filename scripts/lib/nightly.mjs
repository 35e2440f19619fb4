// The backup of the night, in a process of its own: the start command goes on watching meanwhile. Arguments: address, folder.
import { backUpNightly } from './backups.mjs';
import { runScript, say } from './say.mjs';

await runScript(() => {
  const made = backUpNightly(process.argv[2], process.argv[3]);
  if (made) say(`The backup of the night is ${made.file}.`);
});
