// All source sheets of the house.
import { SheetList } from '../sheets/SheetList.js';

export function SourcesPage() {
  return <SheetList kind="source" title="Sources" about="Sheets of lists that feed the catalogs. Clerks do not see them." empty="Make a source sheet at the right, then put your lists side by side on it." mayMake />;
}
