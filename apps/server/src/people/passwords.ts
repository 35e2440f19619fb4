// Passwords are kept as argon2id hashes.
import { hash, verify } from '@node-rs/argon2';
import { ProblemError } from '../problems/index.js';

// Algorithm 2 is argon2id. OWASP Password Storage Cheat Sheet: argon2id with 19 MiB, 2 passes, 1 lane.
const strength = { algorithm: 2, memoryCost: 19_456, timeCost: 2, parallelism: 1 };

export const hashPassword = (password: string): Promise<string> => hash(password, strength);

/** A hash of nobody's password, so that an unknown name takes as long as a wrong password. */
const nobody = hashPassword('a password that nobody has');

export async function passwordFits(password: string, stored: string | undefined): Promise<boolean> {
  const fits = await verify(stored ?? (await nobody), password);
  return fits && stored !== undefined;
}

/** What is measured of a password; more of it makes it no weaker. */
const measured = 72;
/** Below, a password is among the first that are guessed (zxcvbn, Wheeler 2016: fewer than a million tries). */
const leastScore = 2;

/** The dictionaries are large, and read when the first password is set. */
async function readStrength() {
  const [{ ZxcvbnFactory }, { adjacencyGraphs, dictionary }] = await Promise.all([
    import('@zxcvbn-ts/core'),
    import('@zxcvbn-ts/language-common'),
  ]);
  return new ZxcvbnFactory({ dictionary, graphs: adjacencyGraphs });
}
let strengthOf: ReturnType<typeof readStrength> | undefined;

/** Refuses a password that is common, or made of words that everybody in the house knows. */
export async function mustBeStrong(password: string, known: readonly string[]): Promise<void> {
  const words = known.flatMap((one) => [one, one.replaceAll(/\s+/gu, ''), ...one.split(/\s+/u)]);
  strengthOf ??= readStrength();
  if ((await strengthOf).check(password.slice(0, measured), words).score >= leastScore) return;
  const message = 'This password is among the first that would be guessed. Take a longer one, or a few words that do not belong together.';
  throw new ProblemError('not-valid', message, { faults: { password: message } });
}
