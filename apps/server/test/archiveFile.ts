// A file that is looked at before it comes into a house.
import type { ArchiveLook, Problem } from '@dellum/contract';
import type { Visitor } from './house.js';

export async function lookAt(visitor: Visitor, bytes: Buffer): Promise<{ status: number; body: ArchiveLook & Problem }> {
  const response = await fetch(`${visitor.base}/api/v1/archives`, {
    method: 'POST',
    headers: { cookie: await visitor.signedIn(), 'content-type': 'application/octet-stream' },
    body: new Uint8Array(bytes),
  });
  return { status: response.status, body: (await response.json()) as ArchiveLook & Problem };
}
