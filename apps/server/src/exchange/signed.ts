// The signature of the mark of a file that is to come back (HMAC, RFC 2104, with SHA-256), and the marks of its rows.
import { createHash, createHmac, timingSafeEqual } from 'node:crypto';
import { signedPart, type FileMark } from '@dellum/core';
import type { SentFile } from './sent.store.js';

const signatureOf = (text: string, key: Buffer): string => createHmac('sha256', key).update(text).digest('base64url');

/** The mark of what went out; `house` is its name in addresses. */
export function signed({ id, registerId, at, key }: SentFile, house: string): FileMark {
  const mark = { house, register: registerId, at: at.toISOString(), file: id };
  return { ...mark, signature: signatureOf(signedPart(mark), key) };
}

export function isSigned(mark: FileMark, key: Buffer): boolean {
  const [told, own] = [Buffer.from(mark.signature), Buffer.from(signatureOf(signedPart(mark), key))];
  return told.length === own.length && timingSafeEqual(told, own);
}

/** A short mark of all that a row holds. */
export const markOfText = (text: string): Buffer => createHash('sha256').update(text).digest().subarray(0, 16);
