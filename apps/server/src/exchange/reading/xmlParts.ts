// XML read piece by piece: no document types, so no entities of one's own, and no text without end.
import { TextDecoder } from 'node:util';
import { SaxesParser } from 'saxes';
import { longestText, UnreadableFile } from './models.js';

export interface Tag {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
}
export interface Heard<Found> {
  open(tag: Tag): void;
  text(text: string): void;
  close(name: string): void;
  /** What was found since it was last asked. */
  taken(): readonly Found[];
}

/** The name without its prefix. */
export const localName = (name: string): string => name.slice(name.indexOf(':') + 1);

/** What is found in a part, in the pieces in which it comes. */
export async function* parsed<Found>(chunks: AsyncIterable<Buffer>, heard: Heard<Found>): AsyncIterable<readonly Found[]> {
  const parser = new SaxesParser({ xmlns: false, position: false });
  let since = 0;
  const told = () => {
    since = 0;
  };
  parser.on('doctype', () => {
    throw new UnreadableFile('The file declares a document type of its own, which no workbook needs. It was not read.');
  });
  parser.on('opentag', (tag) => {
    told();
    heard.open(tag as Tag);
  });
  parser.on('closetag', ({ name }) => {
    told();
    heard.close(name);
  });
  parser.on('text', (text) => heard.text(text));
  parser.on('cdata', (text) => heard.text(text));
  let decoder: TextDecoder | undefined;
  try {
    for await (const chunk of chunks) {
      decoder ??= decoderFor(chunk);
      const text = decoder.decode(chunk, { stream: true });
      since += text.length;
      parser.write(text);
      if (since > longestText) throw tooLong();
      const found = heard.taken();
      if (found.length > 0) yield found;
    }
    parser.close();
  } catch (error) {
    if (error instanceof UnreadableFile) throw error;
    throw new UnreadableFile('The file is damaged: a part of it breaks off or is not well-formed. Save it again where it was made.');
  }
  const found = heard.taken();
  if (found.length > 0) yield found;
}

export const tooLong = () =>
  new UnreadableFile(
    `A cell holds more than ${longestText.toLocaleString('en-GB')} characters, so the file was not read. Shorten it there.`,
  );

function decoderFor([first, second]: Buffer): TextDecoder {
  if (first === 0xfe && second === 0xff) return new TextDecoder('utf-16be');
  return first === 0xff && second === 0xfe ? new TextDecoder('utf-16le') : new TextDecoder('utf-8');
}

/** Reads a part that is small, to its end. */
export async function heardWhole<Found>(chunks: AsyncIterable<Buffer>, heard: Heard<Found>): Promise<Found[]> {
  const all: Found[] = [];
  for await (const found of parsed(chunks, heard)) all.push(...found);
  return all;
}

/** Hears the tags of a part alone. */
export function tags<Found>(find: (tag: Tag, name: string) => Found | undefined): Heard<Found> {
  let found: Found[] = [];
  return {
    open(tag) {
      const one = find(tag, localName(tag.name));
      if (one !== undefined) found.push(one);
    },
    text: () => undefined,
    close: () => undefined,
    taken() {
      const all = found;
      found = [];
      return all;
    },
  };
}
