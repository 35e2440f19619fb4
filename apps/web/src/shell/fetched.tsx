// Pages that are fetched when somebody goes to them, or is about to.
import type { ComponentType, ReactElement } from 'react';
import { matchRoutes, type RouteObject } from 'react-router';
import { fetchedPart } from '../data/fetchedPart.js';
import { Waiting } from '../frame/Page.js';

/** What a route's `handle` holds: fetches its page. */
interface Fetches {
  fetch(): Promise<unknown>;
}

const fetches = (handle: unknown): handle is Fetches => typeof handle === 'object' && handle !== null && 'fetch' in handle;

/** The parts of a route whose page, exported under `name`, is fetched by itself. */
export function fetchedPage<Name extends string>(name: Name, load: () => Promise<Readonly<Record<Name, ComponentType>>>) {
  const { Part, fetch } = fetchedPart(
    async () => (await load())[name],
    (_props, failed) => (
      <Waiting
        error={failed ? 'This page cannot be fetched now. It is tried again by itself; what you typed elsewhere is kept.' : undefined}
      />
    ),
  );
  return { element: <Part />, handle: { fetch } satisfies Fetches };
}

/** A route of such a page; `drawn`: what stands around it. */
export function fetched<Name extends string>(
  path: string,
  name: Name,
  load: () => Promise<Readonly<Record<Name, ComponentType>>>,
  drawn: (page: ReactElement) => ReactElement = (page) => page,
): RouteObject {
  const { element, handle } = fetchedPage(name, load);
  return { path, element: drawn(element), handle };
}

/** Begins to fetch the pages of an address, beside all else that it waits for. What fails here is told when one is there. */
function fetchAhead(routes: RouteObject[], pathname: string): void {
  for (const { route } of matchRoutes(routes, pathname) ?? []) if (fetches(route.handle)) route.handle.fetch().catch(() => undefined);
}

/** Fetches the page of the address that was opened, and from then on that of every link one points at or reaches by the keys. */
export function fetchPagesAhead(routes: RouteObject[]): void {
  fetchAhead(routes, window.location.pathname);
  const hear = ({ target }: Event) => {
    const link = target instanceof Element ? target.closest<HTMLAnchorElement>('a[href^="/"]') : null;
    if (link) fetchAhead(routes, link.pathname);
  };
  window.addEventListener('pointerover', hear, { passive: true });
  window.addEventListener('focusin', hear);
}
