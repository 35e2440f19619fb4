// Passwords are kept as argon2id hashes.
import { hash, verify } from '@node-rs/argon2';

// Algorithm 2 is argon2id. OWASP Password Storage Cheat Sheet: argon2id with 19 MiB, 2 passes, 1 lane.
const strength = { algorithm: 2, memoryCost: 19_456, timeCost: 2, parallelism: 1 };

export const hashPassword = (password: string): Promise<string> => hash(password, strength);

/** A hash of nobody's password, so that an unknown name takes as long as a wrong password. */
const nobody = hashPassword('a password that nobody has');

export async function passwordFits(password: string, stored: string | undefined): Promise<boolean> {
  const fits = await verify(stored ?? (await nobody), password);
  return fits && stored !== undefined;
}
