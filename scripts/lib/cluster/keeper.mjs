// A process that is kept running: one that dies is started again after a pause.
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { say } from '../say.mjs';

/** Milliseconds. */
const pause = 500;
const endsWithin = 15_000;

const wait = (milliseconds) => new Promise((resolve) => setTimeout(resolve, milliseconds));

/**
 * Starts a process and keeps it running. `command`: program, arguments, and options of spawn. `ready`: resolves once it takes what it is
 * for, given the process. Returns when it is ready for the first time.
 */
export async function keep(name, [program, args, options], ready) {
  let child;
  // What does not run the first time is not tried again: whoever starts it hears why.
  let kept = false;
  const start = async () => {
    child = spawn(program, args, { stdio: ['ignore', 'pipe', 'inherit'], detached: true, ...options });
    const ended = once(child, 'exit');
    ended.then(() => kept && again()).catch((error) => say(`${name} cannot be started: ${error.message}`));
    await Promise.race([ready(child), ended.then(([code, signal]) => Promise.reject(new Error(`${name} ended (${code ?? signal}).`)))]);
  };
  const again = async () => {
    say(`${name} stopped by itself; it is started again.`);
    await wait(pause);
    if (!kept) return;
    await start().then(
      () => say(`${name} is back.`),
      () => undefined,
    );
  };
  await start();
  kept = true;
  return {
    name,
    pid: () => child.pid,
    signal: (signal) => child.kill(signal),
    stop: async () => {
      kept = false;
      if (child.exitCode !== null || child.signalCode !== null) return;
      const ended = once(child, 'exit');
      child.kill('SIGTERM');
      const late = setTimeout(() => child.kill('SIGKILL'), endsWithin);
      await ended;
      clearTimeout(late);
    },
  };
}
