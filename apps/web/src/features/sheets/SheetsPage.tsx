// All entry sheets of the house.
import { mayDesign } from '@dellum/contract';
import { fetchedPart } from '../../data/fetchedPart.js';
import { useMeQuery } from '../../data/sessionApi.js';
import { DemoTour } from '../houses/DemoTour.js';
import { FirstSteps } from '../houses/FirstSteps.js';
import { SheetList } from './SheetList.js';

// Only administrators of an empty house begin so.
const { Part: AdoptDrop } = fetchedPart(async () => (await import('../adopting/AdoptDrop.js')).AdoptDrop);

export function SheetsPage() {
  const { data: me } = useMeQuery();
  const designs = me !== undefined && mayDesign(me.role);
  return (
    <SheetList
      kind="entry"
      title="Sheets"
      about="Where entries are made, by everybody at once."
      empty={designs ? 'Make the first sheet at the right: give it a title, then add its fields.' : 'An administrator makes the first one.'}
      mayMake={designs}
      first={(build) =>
        designs &&
        (me.house.demo ? (
          <DemoTour build={build} />
        ) : (
          <FirstSteps build={build} house={me.house.key}>
            <AdoptDrop />
          </FirstSteps>
        ))
      }
    />
  );
}
