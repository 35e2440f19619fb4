// A range that grows over cells, and a catalog of it, made together.
import { freeAmong, type CatalogPart, type RangeShape } from '@dellum/core';
import type { BuildView, PartDto, RangePlaceDto } from '@dellum/contract';
import { useNavigate } from 'react-router';
import { useTry } from '../../frame/useNotice.js';
import { useAppDispatch } from '../../data/store.js';
import { rangesApi } from '../../data/rangesApi.js';
import { buildNow } from '../../data/buildApi.js';
import { catalogsApi } from '../../data/catalogsApi.js';

export interface CatalogOfCells {
  readonly title: string;
  readonly shape: RangeShape;
  readonly place: RangePlaceDto;
  /** The field that is shown for the value; null for the value itself. */
  readonly label?: string | null;
  /** Further fields of the row that come along with a value. */
  readonly companions: readonly string[];
}

/** The rows of a table under the items of a catalog that one of its fields names. */
export type CatalogOfRows = Omit<Extract<CatalogPart, { kind: 'keyed' }>, 'kind' | 'join'> & { readonly title: string };

export function useMakeCatalog(build: BuildView) {
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const attempt = useTry();

  /** A catalog of a range that is there; its page opens where it can be used for fields. */
  const ofRange = (rangeId: string, wanted: string, companions: readonly string[] = [], label: string | null = null): Promise<boolean> =>
    ofPart(wanted, { kind: 'range', join: 'or', rangeId, label, companions: [...companions] });

  /** A catalog of a table whose rows belong under the items of another one. */
  const ofRows = ({ title, ...part }: CatalogOfRows): Promise<boolean> => ofPart(title, { kind: 'keyed', join: 'or', ...part });

  const ofPart = async (wanted: string, part: PartDto): Promise<boolean> => {
    const from = window.location.pathname;
    const title = freeAmong(
      wanted,
      build.catalogs.map((catalog) => catalog.title),
    );
    const definition = { parts: [part], filter: null, distinct: 'value' as const, order: { by: 'kept' as const } };
    const made = await attempt(dispatch(catalogsApi.endpoints.makeCatalog.initiate({ title, note: '', definition })).unwrap());
    // Whoever went elsewhere meanwhile stays there.
    if (made && window.location.pathname === from) await navigate(`/catalogs/${made.id}?slip=use`);
    return made !== undefined;
  };

  const ofCells = async ({ title, shape, place, companions, label = null }: CatalogOfCells): Promise<boolean> => {
    const name = freeAmong(
      title,
      build.ranges.map((range) => range.name),
    );
    if (!(await attempt(dispatch(rangesApi.endpoints.makeRange.initiate({ name, shape, inherits: false, place, ends: 'last' })).unwrap())))
      return false;
    const range = dispatch(buildNow())?.ranges.find((known) => known.name === name);
    return range !== undefined && ofRange(range.id, title, companions, label);
  };
  return { ofRange, ofCells, ofRows };
}
