// One start a data folder. What a start that was killed has left behind is ended by the next one.
import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { makeFolder } from './postgres.mjs';
import { Stop, say } from './say.mjs';

const endsWithin = 15_000;
/** What may run for a folder. */
const ours = /main\.js|haproxy|pgbouncer/u;

/** What a process was called with; nothing where it is not there, or is not to be seen. */
function commandOf(pid) {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').split('\0').join(' ');
  } catch {
    return '';
  }
}

async function end(pid) {
  const until = Date.now() + endsWithin;
  process.kill(pid, 'SIGTERM');
  while (commandOf(pid) !== '') {
    if (Date.now() > until) process.kill(pid, 'SIGKILL');
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
}

/** Takes the folder for this process, which runs `script`; `note` says what else runs for it, `free` gives it back. */
export async function lockFolder(folder, script = 'start.mjs') {
  const file = join(folder, 'start.json');
  if (existsSync(file)) {
    const { start, processes = [] } = JSON.parse(readFileSync(file, 'utf8') || '{}');
    if (start !== process.pid && commandOf(start).includes(script))
      throw new Stop(`Dellum runs from ${folder} already (process ${start}). Use that one, or end it first.`);
    for (const left of processes.filter((pid) => ours.test(commandOf(pid)))) {
      say('Ending what an interrupted start has left behind …');
      await end(left);
    }
  }
  makeFolder(folder);
  const note = (...processes) => writeFileSync(file, JSON.stringify({ start: process.pid, processes }));
  note();
  return { note, free: () => rmSync(file, { force: true }) };
}
