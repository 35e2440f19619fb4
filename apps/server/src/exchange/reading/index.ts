// Opens a file by what it holds, whatever it is called.
import { openArchive, withPassword } from './archive.js';
import { areConcepts, looked } from './conceptsFormat.js';
import { descriptionIn, openDescribedTables } from './describedTables.js';
import { beginningOf, wholeOf, type FileBytes } from './fileBytes.js';
import { UnreadableFile, type OpenedFile } from './models.js';
import { isJsonLines, openJsonLines } from './jsonLines.js';
import { openOpenDocument } from './openDocument.js';
import { isJsonSchema } from './schemaFormat.js';
import { openTextTable } from './textTable.js';
import { openWorkbook } from './workbook.js';

export { bytesInParts, bytesOf, Utf8Check, type FileBytes } from './fileBytes.js';
export { UnreadableFile, type Noticed, type OpenedFile, type Piece, type ReadRow } from './models.js';

const compound = Buffer.from('D0CF11E0A1B11AE1', 'hex');
const encrypted = Buffer.from('EncryptedPackage', 'utf16le');

/** Throws `UnreadableFile` where there is nothing to read, here or while its pieces are read. `name`: what it is called. */
export async function openFile(file: FileBytes, name: string): Promise<OpenedFile> {
  if (file.size === 0) throw new UnreadableFile('The file is empty. Choose another file.');
  const beginning = await beginningOf(file, looked);
  if (beginning.subarray(0, compound.length).equals(compound)) {
    if ((await wholeOf(file)).includes(encrypted)) throw withPassword();
    throw new UnreadableFile(
      'The file is of an older kind that is not read here. Save it as .xlsx or .ods where it was made, and bring that.',
    );
  }
  if (areConcepts(beginning))
    throw new UnreadableFile('The file is a list of concepts (SKOS). Bring it in under “The whole house”, on the page In and out.');
  if (isJsonSchema(beginning))
    throw new UnreadableFile(
      'The file is a JSON Schema: it says what entries must be. Bring it in under “The whole house”, on the page In and out.',
    );
  if (!/^PK[\x03\x05]/u.test(beginning.subarray(0, 3).toString('latin1'))) {
    const title = name.replace(/\.[^.]+$/u, '');
    return (await isJsonLines(file)) ? openJsonLines(file, title) : openTextTable(file, title);
  }
  const archive = await openArchive(await wholeOf(file));
  if (archive.has('xl/workbook.xml') || archive.has('[Content_Types].xml')) return openWorkbook(archive);
  if (archive.has('content.xml') || archive.has('META-INF/manifest.xml')) return openOpenDocument(archive);
  const description = descriptionIn(archive);
  if (description !== undefined) return openDescribedTables(archive, description);
  throw new UnreadableFile('The file is an archive without a workbook in it. Unpack it, and bring the workbook.');
}
