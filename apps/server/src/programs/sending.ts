// One message to one address, after the Standard Webhooks specification (standardwebhooks.com): signed, and taken where the answer is 2xx.
import { Webhook } from 'standardwebhooks';
import type { DueMessage } from './webhooks.store.js';

const mostMilliseconds = 15_000;
const mostAnswered = 300;
/** A message that was not taken is sent again after so many seconds; the last one holds for all that follow. */
const pauses = [60, 300, 900, 3600, 10_800] as const;
/** The receiver wants no more (RFC 9110, section 15.5.11). */
const gone = 410;

/** As Standard Webhooks writes it. */
export const secretWords = (secret: Buffer): string => `whsec_${secret.toString('base64')}`;

export interface Sent {
  readonly taken: boolean;
  /** The receiver wants no more of them. */
  readonly gone: boolean;
  /** What was answered, or why nothing was. */
  readonly said: string;
  /** It is sent again after so many seconds, unless it was taken. */
  readonly again: number;
}

/** Sends a message to an address; an undefined one is given to the house no more. */
export async function send(address: string | undefined, { id, secret, body, tries, receiver }: DueMessage): Promise<Sent> {
  const again = pauses[Math.min(tries, pauses.length) - 1] ?? pauses[0];
  const failed = (said: string): Sent => ({ taken: false, gone: false, said, again });
  if (address === undefined)
    return failed(`The address “${receiver}” is not given to this house any more. Ask whoever runs the server to set DELLUM_WEBHOOKS.`);
  const now = new Date();
  try {
    const response = await fetch(address, {
      method: 'POST',
      body,
      redirect: 'manual',
      signal: AbortSignal.timeout(mostMilliseconds),
      headers: {
        'content-type': 'application/json',
        'webhook-id': id,
        'webhook-timestamp': String(Math.floor(now.getTime() / 1000)),
        'webhook-signature': new Webhook(secretWords(secret)).sign(id, now, body),
      },
    });
    // With its head an answer is here, whatever becomes of the rest.
    const said = `${response.status} ${await beginningOf(response).catch(() => '')}`.trim();
    if (response.ok) return { taken: true, gone: false, said, again };
    if (response.status === gone) return { taken: false, gone: true, said: `${said} The receiver wants no more messages.`, again };
    if (response.status >= 300 && response.status < 400)
      return failed(`${response.status} The receiver sends on to another address; that is not followed.`);
    return failed(said);
  } catch (error) {
    return failed(
      error instanceof Error && error.name === 'TimeoutError'
        ? `There was no answer within ${mostMilliseconds / 1000} seconds.`
        : 'The receiver cannot be reached.',
    );
  }
}

/** The beginning of an answer, as one line that can be stored; the rest is not read. */
async function beginningOf(response: Response): Promise<string> {
  const chunks: Uint8Array[] = [];
  let size = 0;
  for await (const chunk of response.body ?? []) {
    chunks.push(chunk);
    size += chunk.length;
    if (size >= mostAnswered) break;
  }
  const text = new TextDecoder().decode(Buffer.concat(chunks).subarray(0, mostAnswered));
  return text.replace(/[\p{Cc}\p{Cs}\s]+/gu, ' ').trim();
}
