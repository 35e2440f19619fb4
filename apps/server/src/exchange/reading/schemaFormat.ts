// Tells by its beginning whether a file is a JSON Schema.
import { looked } from './conceptsFormat.js';

export function isJsonSchema(beginning: Buffer): boolean {
  const head = beginning
    .subarray(0, looked)
    .toString('utf8')
    .replace(/^\uFEFF/u, '')
    .trimStart();
  if (!head.startsWith('{')) return false;
  return (
    /"\$schema"\s*:\s*"[^"]*json-schema\.org/u.test(head) || (/"type"\s*:\s*"object"/u.test(head) && /"properties"\s*:\s*\{/u.test(head))
  );
}
