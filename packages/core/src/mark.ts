// A short mark of something as it is, by which one notices that somebody else has changed it meanwhile.

/** The value as one text, whatever the order in which its members were set. */
function inOneOrder(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(inOneOrder).join(',')}]`;
  if (typeof value !== 'object' || value === null) return JSON.stringify(value) ?? 'null';
  const members = Object.entries(value).filter(([, member]) => member !== undefined);
  members.sort(([one], [other]) => (one < other ? -1 : 1));
  return `{${members.map(([key, member]) => `${JSON.stringify(key)}:${inOneOrder(member)}`).join(',')}}`;
}

/** FNV-1a (public domain), begun at one of two values: two of them do not meet by chance. */
function hashFrom(seed: number, text: string): string {
  let hash = seed;
  for (let at = 0; at < text.length; at++) hash = Math.imul(hash ^ text.charCodeAt(at), 0x01000193);
  return (hash >>> 0).toString(16).padStart(8, '0');
}

/** 16 hexadecimal digits that are others when any member of the value is. Not for secrets. */
export function markOf(value: unknown): string {
  const text = inOneOrder(value);
  return hashFrom(0x811c9dc5, text) + hashFrom(0x050c5d1f, text);
}
