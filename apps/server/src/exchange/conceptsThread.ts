// Reads concepts in a thread of its own.
import type { ReadConcepts } from '@dellum/core';
import { conceptsIn } from './reading/concepts.js';
import type { ConceptsFormat } from './reading/conceptsFormat.js';
import { UnreadableFile } from './reading/models.js';

export interface ConceptsToRead {
  readonly bytes: Uint8Array;
  readonly format: ConceptsFormat;
  readonly language: string;
}
/** `why`: it cannot be read, in a sentence. */
export type ConceptsRead = ReadConcepts | { readonly why: string };

export async function read({ bytes, format, language }: ConceptsToRead): Promise<ConceptsRead> {
  try {
    return await conceptsIn(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength), format, language);
  } catch (error) {
    if (error instanceof UnreadableFile) return { why: error.message };
    throw error;
  }
}
