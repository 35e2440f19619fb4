// Workbooks of both standards, written as a ZIP: the fixed parts first, then the entries piece by piece.
import { openDocumentType, type OpenDocumentParts } from './openDocument.js';
import type { WorkbookParts } from './workbook.js';
import type { FileWriter, Piece } from './writer.js';
import { added, begun, closed, ended, noZip, stored, type ZipState } from './zip.js';

/** A ZIP to which one step after another is added. */
class Zipped {
  private readonly bytes: Buffer[] = [];

  constructor(private state: ZipState = noZip) {}

  private take({ state, bytes }: { readonly state: ZipState; readonly bytes: Buffer }): this {
    this.state = state;
    this.bytes.push(bytes);
    return this;
  }
  stored = (name: string, text: string): this => this.take(stored(this.state, name, text));
  begun = (name: string): this => this.take(begun(this.state, name));
  added = async (text: string): Promise<this> => this.take(await added(this.state, text));
  ended = (): this => this.take(ended(this.state));
  closed = (): this => this.take({ state: this.state, bytes: closed(this.state) });
  whole = async (name: string, text: string): Promise<this> => (await this.begun(name).added(text)).ended();
  piece = (): Piece<ZipState> => ({ bytes: Buffer.concat(this.bytes), state: this.state });
}

export const workbookWriter = (parts: WorkbookParts): FileWriter<ZipState> => ({
  async begin() {
    const zip = new Zipped();
    for (const [name, text] of parts.fixed()) await zip.whole(name, text);
    return (await zip.begun(parts.entrySheet).added(parts.head())).piece();
  },
  rows: async (entries, from, state) => {
    const cells = entries.map((entry) => entry.cells);
    return (await new Zipped(state).added(parts.rows(cells, from))).piece();
  },
  end: async (state) => (await new Zipped(state).added(parts.tail())).ended().closed().piece(),
});

export const openDocumentWriter = (parts: OpenDocumentParts): FileWriter<ZipState> => ({
  async begin() {
    const zip = await new Zipped().stored('mimetype', openDocumentType).whole('META-INF/manifest.xml', parts.manifest);
    await zip.whole('styles.xml', parts.styles);
    return (await zip.begun('content.xml').added(parts.head())).piece();
  },
  rows: async (entries, _from, state) => (await new Zipped(state).added(parts.rows(entries.map(({ cells }) => cells)))).piece(),
  end: async (state, rows) => (await new Zipped(state).added(parts.tail(rows))).ended().closed().piece(),
});
