// What stands around the pages of whoever is signed in.
import { Navigate, useLocation } from 'react-router';
import { errorWords, isProblem } from '../data/problem.js';
import { leaving, useMeQuery } from '../data/sessionApi.js';
import { fetchedPart } from '../data/fetchedPart.js';
import { Waiting } from '../frame/Page.js';
import { Frame } from './Frame.js';

const { Part: FactorNeeded } = fetchedPart(
  async () => (await import('../features/people/FactorNeeded.js')).FactorNeeded,
  () => <Waiting />,
);

/** Whoever is not signed in goes to the threshold and comes back to the same address. */
export function SignedIn() {
  const { data: me, error, refetch } = useMeQuery();
  const { pathname, search } = useLocation();
  if (isProblem(error) && error.code === 'not-signed-in')
    return leaving.isUnderWay() ? <Waiting /> : <Navigate to={`/sign-in?to=${encodeURIComponent(pathname + search)}`} replace />;
  if (!me) return <Waiting error={errorWords(error)} />;
  if (me.needsFactor) return <FactorNeeded me={me} done={() => void refetch()} />;
  return <Frame key={me.id} me={me} />;
}
