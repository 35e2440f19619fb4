// One start a data folder. What a start that was killed has left behind is ended by the next one.
import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { makeFolder } from './postgres.mjs';
import { Stop, say } from './say.mjs';

const endsWithin = 15_000;

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

/** Takes the folder for this process; `note` says which server runs for it, `free` gives it back. */
export async function lockFolder(folder) {
  const file = join(folder, 'start.json');
  if (existsSync(file)) {
    const { start, server } = JSON.parse(readFileSync(file, 'utf8') || '{}');
    if (start !== process.pid && commandOf(start).includes('start.mjs'))
      throw new Stop(`Dellum runs from ${folder} already (process ${start}). Use that one, or end it first.`);
    if (server && commandOf(server).includes('main.js')) {
      say('Ending a server that an interrupted start has left behind …');
      await end(server);
    }
  }
  makeFolder(folder);
  const note = (server) => writeFileSync(file, JSON.stringify({ start: process.pid, ...(server && { server }) }));
  note();
  return { note, free: () => rmSync(file, { force: true }) };
}
