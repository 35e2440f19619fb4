// All source sheets of the house; clerks and readers see those that are shown to them.
import { mayDesign } from '@dellum/contract';
import { useMeQuery } from '../../data/sessionApi.js';
import { SheetList } from '../sheets/SheetList.js';

export function SourcesPage() {
  const { data: me } = useMeQuery();
  const designs = me !== undefined && mayDesign(me.role);
  if (!designs)
    return (
      <SheetList
        kind="source"
        title="Lists"
        about="The lists that the house shows to you. Only administrators change them."
        empty="None is shown to you now."
        mayMake={false}
      />
    );
  return (
    <SheetList
      kind="source"
      title="Sources"
      about="Sheets of lists and tables that feed the catalogs. Clerks see only those that are shown to them."
      empty="Make a source sheet at the right, then put your lists side by side on it."
      mayMake
    />
  );
}
