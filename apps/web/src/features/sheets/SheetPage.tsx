// The page of an entry sheet: it waits for the build, and for how the person has arranged the sheet.
import { useParams } from 'react-router';
import { errorWords } from '../../data/problem.js';
import { EmptyState, Waiting } from '../../frame/Page.js';
import { Way } from '../../frame/Way.js';
import { useMeQuery } from '../../data/sessionApi.js';
import { useBuildQuery } from '../../data/buildApi.js';
import { EntrySheet } from './EntrySheet.js';

export function SheetPage() {
  const { sheetId } = useParams();
  const { data: build, error } = useBuildQuery();
  const { data: me } = useMeQuery();
  if (!build || !me) return <Waiting error={errorWords(error)} />;
  const sheet = build.sheets.find(({ id, kind }) => id === sheetId && kind === 'entry');
  const register = sheet?.registers[0];
  if (!sheet || !register)
    return (
      <EmptyState title="This sheet is not there">
        It may have been deleted. <Way to="/sheets">Choose another one</Way>
      </EmptyState>
    );
  return <EntrySheet key={sheet.id} sheet={sheet} register={register} build={build} me={me} />;
}
