// The addresses of the application.
import { mayDesign, mayEnter, mayKeep, type Me, type Role } from '@dellum/contract';
import { lazy, Suspense, type ReactNode } from 'react';
import { createBrowserRouter, Navigate, useLocation, useSearchParams } from 'react-router';
import { RouterProvider } from 'react-router/dom';
import { CatalogPage } from './features/catalogs/CatalogPage.js';
import { CatalogsPage } from './features/catalogs/CatalogsPage.js';
import { leaving, useMeQuery } from './data/sessionApi.js';
import { Threshold } from './features/houses/Threshold.js';
import { FiguresPage } from './features/figures/FiguresPage.js';
import { FillPage, OpenFormPage } from './features/forms/FillPage.js';
import { FormsPage } from './features/forms/FormsPage.js';
import { RecordBrowserPage } from './features/records/RecordBrowser.js';
import { RecordPage } from './features/records/RecordPage.js';
import { RecordsPage } from './features/records/RecordsPage.js';
import { SheetPage } from './features/sheets/SheetPage.js';
import { SheetsPage } from './features/sheets/SheetsPage.js';
import { SourcesPage } from './features/sources/SourcesPage.js';
import { SourceSheetPage } from './features/sources/SourceSheetPage.js';
import { Frame } from './shell/Frame.js';
import { EmptyState, Waiting } from './frame/Page.js';
import { Way } from './frame/Way.js';
import { errorWords, isProblem } from './data/problem.js';

// Pages that clerks never see are fetched when somebody opens them.
const BindingsPage = lazy(async () => ({ default: (await import('./features/bindings/BindingsPage.js')).BindingsPage }));
const FormPage = lazy(async () => ({ default: (await import('./features/forms/FormPage.js')).FormPage }));
const FigurePage = lazy(async () => ({ default: (await import('./features/figures/FigurePage.js')).FigurePage }));
const FactorNeeded = lazy(async () => ({ default: (await import('./features/people/FactorNeeded.js')).FactorNeeded }));
const LedgerPage = lazy(async () => ({ default: (await import('./features/ledger/LedgerPage.js')).LedgerPage }));
const LinkedPage = lazy(async () => ({ default: (await import('./features/linked/LinkedPage.js')).LinkedPage }));
const ReturnedPage = lazy(async () => ({ default: (await import('./features/exchange/ReturnedPage.js')).ReturnedPage }));
const ArchivePage = lazy(async () => ({ default: (await import('./features/exchange/ArchivePage.js')).ArchivePage }));
const AdoptionPage = lazy(async () => ({ default: (await import('./features/adopting/AdoptionPage.js')).AdoptionPage }));
const Adoptions = lazy(async () => ({ default: (await import('./features/adopting/Adoptions.js')).Adoptions }));
const InAndOutPage = lazy(async () => ({ default: (await import('./features/exchange/InAndOutPage.js')).InAndOutPage }));
const PeoplePage = lazy(async () => ({ default: (await import('./features/people/PeoplePage.js')).PeoplePage }));
const HousePage = lazy(async () => ({ default: (await import('./features/houses/HousePage.js')).HousePage }));
const AccountPage = lazy(async () => ({ default: (await import('./features/people/AccountPage.js')).AccountPage }));
const RangesPage = lazy(async () => ({ default: (await import('./features/ranges/RangesPage.js')).RangesPage }));
const RequestsPage = lazy(async () => ({ default: (await import('./features/requests/RequestsPage.js')).RequestsPage }));
const UpkeepPage = lazy(async () => ({ default: (await import('./features/upkeep/UpkeepPage.js')).UpkeepPage }));
const MapPage = lazy(async () => ({ default: (await import('./features/map/MapPage.js')).MapPage }));

/** Whoever is not signed in goes to the threshold and comes back to the same address. */
function SignedIn() {
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

/** Pages of the administrator, some of them of stewards too; the server refuses their data to others as well. */
function Within({ may, whose, children }: { may: (role: Role) => boolean; whose: string; children: ReactNode }) {
  const { data: me } = useMeQuery() as { data: Me | undefined };
  if (!me) return <Waiting />;
  if (may(me.role)) return <Suspense fallback={<Waiting />}>{children}</Suspense>;
  return (
    <EmptyState title={`This page is ${whose}`}>
      You are signed in as a {me.role}. Ask an administrator of the house for what you need here.
    </EmptyState>
  );
}

/** The threshold with its house in the address, also after being sent there. */
function ThresholdPage() {
  const [search] = useSearchParams();
  return <Threshold key={search.get('house')} />;
}

/** A page that broke says what to do; what was typed into cells is kept in the browser. */
function Broken() {
  return (
    <EmptyState title="This page broke">
      What you typed is kept. <a href={window.location.href}>Load the page again</a>; when it breaks once more, tell an administrator what
      you did.
    </EmptyState>
  );
}

const designed = (page: ReactNode) => (
  <Within may={mayDesign} whose="the administrator’s">
    {page}
  </Within>
);
const entered = (page: ReactNode) => (
  <Within may={mayEnter} whose="for those who enter data">
    {page}
  </Within>
);
const kept = (page: ReactNode) => (
  <Within may={mayKeep} whose="the stewards’ and administrator’s">
    {page}
  </Within>
);

const router = createBrowserRouter([
  { path: '/sign-in', element: <ThresholdPage /> },
  { path: '/open/:token', element: <OpenFormPage />, errorElement: <Broken /> },
  {
    element: <SignedIn />,
    errorElement: <Broken />,
    children: [
      { path: '/', element: <Navigate to="/sheets" replace /> },
      { path: '/sheets', element: <SheetsPage /> },
      { path: '/sheets/:sheetId', element: <SheetPage /> },
      { path: '/records', element: <RecordsPage /> },
      { path: '/records/:registerId', element: <RecordBrowserPage /> },
      { path: '/records/:registerId/:entryId', element: <RecordPage /> },
      { path: '/forms', element: <FormsPage /> },
      { path: '/forms/:formId', element: designed(<FormPage />) },
      { path: '/forms/:formId/fill', element: <FillPage /> },
      { path: '/forms/:formId/fill/:version', element: <FillPage /> },
      { path: '/figures', element: <FiguresPage /> },
      {
        path: '/figures/:figureId',
        element: (
          <Suspense fallback={<Waiting />}>
            <FigurePage />
          </Suspense>
        ),
      },
      { path: '/sources', element: <SourcesPage /> },
      { path: '/sources/:sheetId', element: <SourceSheetPage /> },
      { path: '/ranges', element: designed(<RangesPage />) },
      { path: '/map', element: designed(<MapPage />) },
      { path: '/linked/:sourceId?', element: designed(<LinkedPage />) },
      { path: '/upkeep', element: designed(<UpkeepPage />) },
      { path: '/ledger', element: designed(<LedgerPage />) },
      { path: '/catalogs', element: kept(<CatalogsPage />) },
      { path: '/catalogs/:catalogId', element: kept(<CatalogPage />) },
      { path: '/requests', element: kept(<RequestsPage />) },
      { path: '/bindings', element: designed(<BindingsPage />) },
      { path: '/people', element: designed(<PeoplePage />) },
      { path: '/house', element: designed(<HousePage />) },
      { path: '/in-and-out', element: designed(<InAndOutPage adoptions={<Adoptions />} />) },
      { path: '/archive/:look', element: designed(<ArchivePage />) },
      { path: '/proposal/:id', element: designed(<AdoptionPage />) },
      { path: '/proposal/:id', element: designed(<AdoptionPage />) },
      { path: '/came-back/:fileId', element: entered(<ReturnedPage />) },
      {
        path: '/account',
        element: (
          <Suspense fallback={<Waiting />}>
            <AccountPage />
          </Suspense>
        ),
      },
      {
        path: '*',
        element: (
          <EmptyState title="There is nothing at this address">
            <Way to="/sheets">See the sheets</Way>
          </EmptyState>
        ),
      },
    ],
  },
]);

// Where one goes is on screen at once, never put off while other things are drawn: what is pressed next is about the new place.
export const App = () => <RouterProvider router={router} useTransitions={false} />;
