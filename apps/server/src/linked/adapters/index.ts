// Door of the adapters: the six kinds of linked source.
import type { LinkedKind, LinkedSettings } from '@dellum/contract';
import type { LinkedAdapter } from './adapter.js';
import { computed } from './computed.js';
import { csvFile } from './csvFile.js';
import { database } from './database.js';
import { folder } from './folder.js';
import { service } from './service.js';
import { textFile } from './textFile.js';

export { SourceFault, type CatalogValues, type Reading, type ReadingContext } from './adapter.js';
export { tablesOf } from './database.js';

const adapters: { readonly [Kind in LinkedKind]: LinkedAdapter<Kind> } = {
  'text file': textFile,
  'csv file': csvFile,
  folder,
  database,
  service,
  computed,
};
/** The adapter of a source, as one that takes any settings. */
export const adapterOf = ({ kind }: LinkedSettings): LinkedAdapter<LinkedKind> => adapters[kind] as LinkedAdapter<LinkedKind>;
