// Ids that are the same whenever the same file is opened: what is chosen while it is looked at holds when it comes in.
import { createHash } from 'node:crypto';

/** Makes ids one after another, by what they are for. */
export function idsOutOf(bytes: Buffer): (what: string) => () => string {
  const digest = createHash('sha256').update(bytes).digest();
  return (what) => {
    let count = 0;
    return () => {
      const hex = createHash('sha256').update(digest).update(`${what} ${count++}`).digest('hex');
      // An id of a hash of one's own (RFC 9562, version 8).
      return [hex.slice(0, 8), hex.slice(8, 12), `8${hex.slice(13, 16)}`, `8${hex.slice(17, 20)}`, hex.slice(20, 32)].join('-');
    };
  };
}
