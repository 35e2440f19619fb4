// Words of the scripts: one clear sentence and what to do.

/** A failure that a person can do something about; the scripts print its message without a stack. */
export class Stop extends Error {}

export const say = (text) => process.stdout.write(`${text}\n`);

/** Runs the main function of a script; a `Stop` ends it with its sentence and exit code 1. */
export async function runScript(main) {
  try {
    await main();
  } catch (error) {
    process.stderr.write(error instanceof Stop ? `${error.message}\n` : `${error?.stack ?? error}\n`);
    process.exitCode = 1;
  }
}
