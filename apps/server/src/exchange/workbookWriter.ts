// A workbook, written as a ZIP: the fixed parts first, then the sheet of entries piece by piece.
import type { WorkbookParts } from './workbook.js';
import type { FileWriter, Piece } from './writer.js';
import { added, begun, closed, ended, noZip, type ZipState } from './zip.js';

export function workbookWriter(parts: WorkbookParts): FileWriter<ZipState> {
  const withText = async (before: Piece<ZipState>, text: string): Promise<Piece<ZipState>> => {
    const { state, bytes } = await added(before.state, text);
    return { state, bytes: Buffer.concat([before.bytes, bytes]) };
  };
  const opened = (before: Piece<ZipState>, name: string): Piece<ZipState> => {
    const { state, bytes } = begun(before.state, name);
    return { state, bytes: Buffer.concat([before.bytes, bytes]) };
  };
  const shut = (before: Piece<ZipState>): Piece<ZipState> => {
    const { state, bytes } = ended(before.state);
    return { state, bytes: Buffer.concat([before.bytes, bytes]) };
  };
  const nothing = (state: ZipState): Piece<ZipState> => ({ bytes: Buffer.alloc(0), state });
  return {
    async begin() {
      let piece = nothing(noZip);
      for (const [name, text] of parts.fixed()) piece = shut(await withText(opened(piece, name), text));
      return withText(opened(piece, parts.entrySheet), parts.head());
    },
    rows: (entries, from, state) =>
      withText(
        nothing(state),
        parts.rows(
          entries.map(({ cells }) => cells),
          from,
        ),
      ),
    async end(state) {
      const last = shut(await withText(nothing(state), parts.tail()));
      return { state: last.state, bytes: Buffer.concat([last.bytes, closed(last.state)]) };
    },
  };
}
