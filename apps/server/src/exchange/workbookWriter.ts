// Workbooks of both standards, written as a ZIP: the fixed parts first, then the entries piece by piece.
import { openDocumentType, type OpenDocumentParts } from './openDocument.js';
import type { WorkbookParts } from './workbook.js';
import type { FileWriter } from './writer.js';
import type { ZipState } from './zip.js';
import { Zipped } from './zipped.js';

export const workbookWriter = (parts: WorkbookParts): FileWriter<ZipState> => ({
  async begin() {
    const zip = new Zipped();
    for (const [name, text] of parts.fixed()) await zip.whole(name, text);
    return (await zip.begun(parts.entrySheet).added(parts.head())).piece();
  },
  rows: async (entries, from, state) => (await new Zipped(state).added(parts.rows(entries, from))).piece(),
  end: async (state) => (await new Zipped(state).added(parts.tail())).ended().closed().piece(),
});

export const openDocumentWriter = (parts: OpenDocumentParts): FileWriter<ZipState> => ({
  async begin() {
    const zip = await new Zipped().stored('mimetype', openDocumentType).whole('META-INF/manifest.xml', parts.manifest);
    await zip.whole('styles.xml', parts.styles);
    return (await zip.begun('content.xml').added(parts.head())).piece();
  },
  rows: async (entries, _from, state) => (await new Zipped(state).added(parts.rows(entries))).piece(),
  end: async (state, rows) => (await new Zipped(state).added(parts.tail(rows))).ended().closed().piece(),
});
