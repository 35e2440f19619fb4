// Reads the files of a proposal in a thread of its own.
import type { MessagePort } from 'node:worker_threads';
import { bytesInParts } from '../exchange/reading/index.js';
import type { KeptFile } from './adoptions.store.js';
import { read as readFiles, type Read, type ToRead } from './reading.js';
import { askedParts, tellRows } from './threadParts.js';

/** The files stay where they are kept: their parts are asked for through the port. */
export interface ToReadThere extends Omit<ToRead, 'files' | 'tell'> {
  readonly files: readonly KeptFile[];
  readonly port: MessagePort;
}
export async function read({ files, port, ...wanted }: ToReadThere): Promise<Read> {
  const part = askedParts(port);
  const opened = files.map(({ name, bytes, isUtf8 }, file) => ({
    name,
    bytes: bytesInParts(bytes, isUtf8, (number) => part(file, number)),
  }));
  return readFiles({ ...wanted, files: opened, tell: tellRows(port) });
}

export { ready } from '../threads/ready.js';
