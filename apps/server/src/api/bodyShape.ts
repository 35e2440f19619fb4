// How large and how deep a body may be is looked at before it is read as JSON: what comes after (parsing, making objects of it,
// checking them) costs more than the text itself, some of it by the square of its members.

/** What a body may be at most. */
export interface BodyBounds {
  readonly bytes: number;
  /** Elements of all arrays and members of all objects together. */
  readonly members: number;
  /** Objects, each of which is made and checked by itself. */
  readonly objects: number;
}

/** Brackets within brackets. */
const deepest = 32;
/** Members of one object. */
const widest = 1000;

const quote = 34;
const backslash = 92;
const comma = 44;
const [openArray, openObject, closeArray, closeObject] = [91, 123, 93, 125];

export type ShapeFault = 'too deep' | 'too wide' | 'too many';

/** The end of the string that begins at `start`: the place after its closing quote. Linear, whatever is escaped. */
function afterString(text: string, start: number): number {
  for (let at = start + 1; at < text.length; at++) {
    const code = text.charCodeAt(at);
    if (code === backslash) at++;
    else if (code === quote) return at + 1;
  }
  return text.length;
}

/** What is wrong with the shape of a JSON text, in one pass over it; whether it is JSON is for the parser to say. */
export function shapeFault(
  text: string,
  { members: mostMembers, objects: mostObjects }: Omit<BodyBounds, 'bytes'>,
): ShapeFault | undefined {
  const open: { members: number; readonly isObject: boolean }[] = [];
  let members = 0;
  let objects = 0;
  for (let at = 0; at < text.length;) {
    const code = text.charCodeAt(at);
    if (code === quote) {
      at = afterString(text, at);
      continue;
    }
    at++;
    if (code === openArray || code === openObject) {
      open.push({ members: 1, isObject: code === openObject });
      members++;
      if (code === openObject) objects++;
      if (open.length > deepest) return 'too deep';
      if (objects > mostObjects || members > mostMembers) return 'too many';
    } else if (code === closeArray || code === closeObject) open.pop();
    else if (code === comma) {
      const here = open.at(-1);
      members++;
      if (here && ++here.members > widest && here.isObject) return 'too wide';
      if (members > mostMembers) return 'too many';
    }
  }
  return undefined;
}
