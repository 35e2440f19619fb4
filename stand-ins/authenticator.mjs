// Stands in for the app on a telephone: `node stand-ins/authenticator.mjs SECRET` says the code of now (RFC 6238: SHA-1, 6 digits, 30 s).
import { createHmac } from 'node:crypto';
import { pathToFileURL } from 'node:url';

const period = 30;
const base32 = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ234567';

function bytesOf(secret) {
  const bits = [...secret.replaceAll(/\s/gu, '')].map((sign) => base32.indexOf(sign).toString(2).padStart(5, '0')).join('');
  return Buffer.from((bits.match(/.{8}/gu) ?? []).map((eight) => Number.parseInt(eight, 2)));
}

/** The code of a secret (base 32) at a time, in seconds since 1970. */
export function codeAt(secret, seconds = Date.now() / 1000) {
  const counter = Buffer.alloc(8);
  counter.writeBigUInt64BE(BigInt(Math.floor(seconds / period)));
  const digest = createHmac('sha1', bytesOf(secret)).update(counter).digest();
  const offset = digest.at(-1) & 15;
  return String((digest.readUInt32BE(offset) & 0x7fffffff) % 1_000_000).padStart(6, '0');
}

if (process.argv[1] && import.meta.url === pathToFileURL(process.argv[1]).href) process.stdout.write(`${codeAt(process.argv[2] ?? '')}\n`);
