// The addresses of the application. Each page is fetched by itself, so that whoever comes waits for no other.
import { mayDesign, mayEnter, mayKeep, type Me, type Role } from '@dellum/contract';
import type { ReactElement, ReactNode } from 'react';
import { ErrorBoundary } from 'react-error-boundary';
import { BrowserRouter, Navigate, useLocation, useRoutes, type RouteObject } from 'react-router';
import { useMeQuery } from './data/sessionApi.js';
import { EmptyState, Waiting } from './frame/Page.js';
import { Way } from './frame/Way.js';
import { fetched, fetchedPage, fetchPagesAhead } from './shell/fetched.js';

/** Pages of the administrator, some of them of stewards too; the server refuses their data to others as well. */
function Within({ may, whose, children }: { may: (role: Role) => boolean; whose: string; children: ReactNode }) {
  const { data: me } = useMeQuery() as { data: Me | undefined };
  if (!me) return <Waiting />;
  if (may(me.role)) return children;
  return (
    <EmptyState title={`This page is ${whose}`}>
      You are signed in as a {me.role}. Ask an administrator of the house for what you need here.
    </EmptyState>
  );
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

const designed = (page: ReactElement) => (
  <Within may={mayDesign} whose="the administrator’s">
    {page}
  </Within>
);
const entered = (page: ReactElement) => (
  <Within may={mayEnter} whose="for those who enter data">
    {page}
  </Within>
);
const kept = (page: ReactElement) => (
  <Within may={mayKeep} whose="the stewards’ and administrator’s">
    {page}
  </Within>
);

/** Houses out of files, as they are begun and listed, stand among what comes in and goes out. */
async function inAndOut() {
  const [{ InAndOutPage }, { Adoptions }] = await Promise.all([
    import('./features/exchange/InAndOutPage.js'),
    import('./features/adopting/Adoptions.js'),
  ]);
  return { InAndOut: () => <InAndOutPage adoptions={<Adoptions />} /> };
}

const pages: RouteObject[] = [
  { path: '/', element: <Navigate to="/sheets" replace /> },
  fetched('/sheets', 'SheetsPage', () => import('./features/sheets/SheetsPage.js')),
  fetched('/sheets/:sheetId', 'SheetPage', () => import('./features/sheets/SheetPage.js')),
  fetched('/records', 'RecordsPage', () => import('./features/records/RecordsPage.js')),
  fetched('/records/:registerId', 'RecordBrowserPage', () => import('./features/records/RecordBrowser.js')),
  fetched('/records/:registerId/:entryId', 'RecordPage', () => import('./features/records/RecordPage.js')),
  fetched('/forms', 'FormsPage', () => import('./features/forms/FormsPage.js')),
  fetched('/forms/:formId', 'FormPage', () => import('./features/forms/FormPage.js'), designed),
  fetched('/forms/:formId/fill', 'FillPage', () => import('./features/forms/FillPage.js')),
  fetched('/forms/:formId/fill/:version', 'FillPage', () => import('./features/forms/FillPage.js')),
  fetched('/figures', 'FiguresPage', () => import('./features/figures/FiguresPage.js')),
  fetched('/figures/:figureId', 'FigurePage', () => import('./features/figures/FigurePage.js')),
  fetched('/sources', 'SourcesPage', () => import('./features/sources/SourcesPage.js')),
  fetched('/sources/:sheetId', 'SourceSheetPage', () => import('./features/sources/SourceSheetPage.js')),
  fetched('/ranges', 'RangesPage', () => import('./features/ranges/RangesPage.js'), designed),
  fetched('/map', 'MapPage', () => import('./features/map/MapPage.js'), designed),
  fetched('/linked/:sourceId?', 'LinkedPage', () => import('./features/linked/LinkedPage.js'), designed),
  fetched('/upkeep', 'UpkeepPage', () => import('./features/upkeep/UpkeepPage.js'), designed),
  fetched('/ledger', 'LedgerPage', () => import('./features/ledger/LedgerPage.js'), designed),
  fetched('/catalogs', 'CatalogsPage', () => import('./features/catalogs/CatalogsPage.js'), kept),
  fetched('/catalogs/:catalogId', 'CatalogPage', () => import('./features/catalogs/CatalogPage.js'), kept),
  fetched('/requests', 'RequestsPage', () => import('./features/requests/RequestsPage.js'), kept),
  fetched('/bindings', 'BindingsPage', () => import('./features/bindings/BindingsPage.js'), designed),
  fetched('/people', 'PeoplePage', () => import('./features/people/PeoplePage.js'), designed),
  fetched('/house', 'HousePage', () => import('./features/houses/HousePage.js'), designed),
  fetched('/in-and-out', 'InAndOut', inAndOut, designed),
  fetched('/archive/:look', 'ArchivePage', () => import('./features/exchange/ArchivePage.js'), designed),
  fetched('/proposal/:id', 'AdoptionPage', () => import('./features/adopting/AdoptionPage.js'), designed),
  fetched('/came-back/:fileId', 'ReturnedPage', () => import('./features/exchange/ReturnedPage.js'), entered),
  fetched('/account', 'AccountPage', () => import('./features/people/AccountPage.js')),
  {
    path: '*',
    element: (
      <EmptyState title="There is nothing at this address">
        <Way to="/sheets">See the sheets</Way>
      </EmptyState>
    ),
  },
];

const routes: RouteObject[] = [
  fetched('/sign-in', 'ThresholdPage', () => import('./features/houses/Threshold.js')),
  fetched('/open/:token', 'OpenFormPage', () => import('./features/forms/FillPage.js')),
  { ...fetchedPage('SignedIn', () => import('./shell/SignedIn.js')), children: pages },
];

fetchPagesAhead(routes);

function Pages() {
  const { key } = useLocation();
  return (
    <ErrorBoundary fallback={<Broken />} resetKeys={[key]}>
      {useRoutes(routes)}
    </ErrorBoundary>
  );
}

// Where one goes is on screen at once, never put off while other things are drawn: what is pressed next is about the new place.
export const App = () => (
  <BrowserRouter useTransitions={false}>
    <Pages />
  </BrowserRouter>
);
