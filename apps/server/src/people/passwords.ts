// Passwords are kept as argon2id hashes.
import { hash, verify } from '@node-rs/argon2';
import { ZxcvbnFactory } from '@zxcvbn-ts/core';
import { adjacencyGraphs, dictionary } from '@zxcvbn-ts/language-common';
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
const strengthOf = new ZxcvbnFactory({ dictionary, graphs: adjacencyGraphs });

/** Refuses a password that is common, or made of words that everybody in the house knows. */
export function mustBeStrong(password: string, known: readonly string[]): void {
  const words = known.flatMap((one) => [one, one.replaceAll(/\s+/gu, ''), ...one.split(/\s+/u)]);
  if (strengthOf.check(password.slice(0, measured), words).score >= leastScore) return;
  const message = 'This password is among the first that would be guessed. Take a longer one, or a few words that do not belong together.';
  throw new ProblemError('not-valid', message, { faults: { password: message } });
}
