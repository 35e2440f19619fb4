// Codes of a second factor: by time, as RFC 6238 reckons them, and those on paper.
import { createHash, randomInt } from 'node:crypto';
import { Secret, TOTP } from 'otpauth';

const period = 30;
/** A code is taken so many steps before and after its own: clocks differ, and typing takes time. */
const window = 1;
/** Letters and digits that nobody takes for one another. */
const signs = 'ABCDEFGHJKLMNPQRSTUVWXYZ23456789';
const recoveryLength = 10;
export const recoveryCodesAtOnce = 10;

const totpOf = (secret: string, issuer = 'Dellum', label = '') =>
  new TOTP({ issuer, label, algorithm: 'SHA1', digits: 6, period, secret: Secret.fromBase32(secret) });

/** 160 random bits, in base 32 (RFC 4648). */
export const newSecret = (): string => new Secret({ size: 20 }).base32;

/** What an app reads, as a picture or by hand. */
export const addressOf = (secret: string, house: string, signIn: string): string => totpOf(secret, `Dellum, ${house}`, signIn).toString();

/** The step that a code belongs to, or undefined where it is none of now. */
export function stepOf(secret: string, code: string, now = Date.now()): number | undefined {
  const token = code.replaceAll(/\s/gu, '');
  if (!/^\d{6}$/u.test(token)) return undefined;
  const delta = totpOf(secret).validate({ token, window, timestamp: now });
  return delta === null ? undefined : Math.floor(now / 1000 / period) + delta;
}

/** Codes for paper, each for one sign-in: 50 random bits. */
export const newRecoveryCodes = (): string[] =>
  Array.from({ length: recoveryCodesAtOnce }, () => {
    const text = Array.from({ length: recoveryLength }, () => signs[randomInt(signs.length)]).join('');
    return `${text.slice(0, 5)}-${text.slice(5)}`;
  });

/** However it was typed: without hyphens and blanks, in capitals. */
export const recoveryHash = (code: string): Buffer => createHash('sha256').update(code.replaceAll(/[\s-]/gu, '').toUpperCase()).digest();
