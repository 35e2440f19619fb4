// A file in an answer.
import type { Response } from 'express';

/** Says that the answer is a file of a name and a type: the name in UTF-8 (RFC 8187), and one for programs that do not know it. */
export function asFile(response: Response, name: string, type: string): void {
  response.setHeader('Content-Type', type);
  response.setHeader('Cache-Control', 'private, no-store');
  const plain = name.replaceAll(/[^\w. -]/gu, '_');
  response.setHeader('Content-Disposition', `attachment; filename="${plain}"; filename*=UTF-8''${encodeURIComponent(name)}`);
}
