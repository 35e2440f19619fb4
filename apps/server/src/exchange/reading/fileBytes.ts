// The bytes of a file that is read: a part after another, so that only what must be whole is held whole.
import { isUtf8 } from 'node:buffer';
import { TextDecoder } from 'node:util';

export interface FileBytes {
  readonly size: number;
  /** From the beginning each time it is asked; no part is empty. */
  parts(): AsyncIterable<Buffer> | Iterable<Buffer>;
  /** Whether all of it is UTF-8. */
  isUtf8(): Promise<boolean> | boolean;
}

/** A file that is held whole already. */
export const bytesOf = (whole: Buffer): FileBytes => ({
  size: whole.length,
  parts: () => (whole.length > 0 ? [whole] : []),
  isUtf8: () => isUtf8(whole),
});

/** What parts that are kept one by one make. `part`: undefined beyond the last. Throws where they end too early: somebody deleted them. */
export function bytesInParts(size: number, knownUtf8: boolean | null, part: (number: number) => Promise<Buffer | undefined>): FileBytes {
  async function* parts(): AsyncIterable<Buffer> {
    let read = 0;
    let next: Promise<Buffer | undefined> | undefined;
    for (let number = 0; read < size; number++) {
      const bytes = await (next ?? part(number));
      if (!bytes) throw new Error('The file is not kept any more.');
      read += bytes.length;
      // Whoever reads on has the next one on its way while this one is looked at; many look at the beginning alone.
      next = number > 0 && read < size ? ahead(part(number + 1)) : undefined;
      yield bytes;
    }
  }
  return { size, parts, isUtf8: async () => knownUtf8 ?? areUtf8(parts()) };
}

/** What goes wrong is told to whoever waits for it; nobody may, where no more is looked at. */
function ahead<T>(coming: Promise<T>): Promise<T> {
  coming.catch(() => undefined);
  return coming;
}

export async function wholeOf({ parts }: Pick<FileBytes, 'parts'>): Promise<Buffer> {
  const all: Buffer[] = [];
  for await (const part of parts()) all.push(part);
  return all.length === 1 ? all[0]! : Buffer.concat(all);
}

/** What it begins with: so many bytes, or all there are. */
export async function beginningOf({ parts }: FileBytes, size: number): Promise<Buffer> {
  const all: Buffer[] = [];
  let read = 0;
  for await (const part of parts()) {
    all.push(part.subarray(0, size - read));
    read += part.length;
    if (read >= size) break;
  }
  return Buffer.concat(all);
}

/** Whether bytes that come piece by piece are UTF-8. */
export class Utf8Check {
  private readonly decoder = new TextDecoder('utf-8', { fatal: true });
  private isSo = true;

  add(piece: Uint8Array): void {
    this.decode(piece, true);
  }
  end(): boolean {
    this.decode(new Uint8Array(), false);
    return this.isSo;
  }

  private decode(piece: Uint8Array, stream: boolean): void {
    if (!this.isSo) return;
    try {
      this.decoder.decode(piece, { stream });
    } catch {
      this.isSo = false;
    }
  }
}

async function areUtf8(parts: AsyncIterable<Buffer>): Promise<boolean> {
  const check = new Utf8Check();
  for await (const part of parts) check.add(part);
  return check.end();
}
