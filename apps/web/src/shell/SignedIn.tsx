// What stands around the pages of whoever is signed in.
import { lazy, Suspense } from 'react';
import { Navigate, useLocation } from 'react-router';
import { errorWords, isProblem } from '../data/problem.js';
import { leaving, useMeQuery } from '../data/sessionApi.js';
import { Waiting } from '../frame/Page.js';
import { Frame } from './Frame.js';

const FactorNeeded = lazy(async () => ({ default: (await import('../features/people/FactorNeeded.js')).FactorNeeded }));

/** Whoever is not signed in goes to the threshold and comes back to the same address. */
export function SignedIn() {
  const { data: me, error, refetch } = useMeQuery();
  const { pathname, search } = useLocation();
  if (isProblem(error) && error.code === 'not-signed-in')
    return leaving.isUnderWay() ? <Waiting /> : <Navigate to={`/sign-in?to=${encodeURIComponent(pathname + search)}`} replace />;
  if (!me) return <Waiting error={errorWords(error)} />;
  if (me.needsFactor)
    return (
      <Suspense fallback={<Waiting />}>
        <FactorNeeded me={me} done={() => void refetch()} />
      </Suspense>
    );
  return <Frame key={me.id} me={me} />;
}
