// The map of a house as nodes and edges: sources → catalogs → fields.
import dagre from '@dagrejs/dagre';
import { catalogIdOf, endingInShort, endingOf, partReads } from '@dellum/core';
import type { BuildView } from '@dellum/contract';
import { placeOfRange } from '../ranges/placeOfRange.js';

export type NodeKind = 'range' | 'sheet' | 'linked' | 'catalog' | 'field';

export interface MapNode {
  readonly id: string;
  readonly kind: NodeKind;
  readonly title: string;
  readonly about: string;
  readonly to: string;
  readonly x: number;
  readonly y: number;
}
export interface MapEdge {
  readonly from: string;
  readonly to: string;
}
export interface LineageMap {
  readonly nodes: readonly MapNode[];
  readonly edges: readonly MapEdge[];
  /** The whole drawing, in pixels. */
  readonly width: number;
  readonly height: number;
}

export const nodeSize = { width: 250, height: 52 };

type Bare = Omit<MapNode, 'x' | 'y'>;

function edgesOf(build: BuildView): MapEdge[] {
  const intoCatalogs = build.catalogs.flatMap(({ id, definition }) =>
    definition.parts.flatMap((part) => {
      const { ranges = [], registers = [], linked = [], catalogs = [] } = partReads(part);
      return [...ranges, ...registers, ...linked, ...catalogs].map((from) => ({ from, to: id }));
    }),
  );
  const intoFields = build.sheets.flatMap((sheet) =>
    sheet.registers.flatMap(({ fields }) =>
      fields.flatMap(({ id, rule }) => [catalogIdOf(rule) ?? []].flat().map((from) => ({ from, to: id }))),
    ),
  );
  const seen = new Set<string>();
  return [...intoCatalogs, ...intoFields].filter(({ from, to }) => !seen.has(`${from} ${to}`) && seen.add(`${from} ${to}`));
}

function nodesOf(build: BuildView): Bare[] {
  const registers = build.sheets.flatMap((sheet) => sheet.registers.map((register) => ({ sheet, register })));
  return [
    ...build.ranges.map((range): Bare => ({
      id: range.id,
      kind: 'range',
      title: range.name,
      about: `range, ${endingInShort(endingOf(range))}`,
      to: placeOfRange(range, build).to,
    })),
    ...registers.map(({ sheet, register }): Bare => ({
      id: register.id,
      kind: 'sheet',
      title: register.title,
      about: 'entries of a sheet',
      to: `/${sheet.kind === 'entry' ? 'sheets' : 'sources'}/${sheet.id}`,
    })),
    ...build.linked.map(({ id, name }): Bare => ({ id, kind: 'linked', title: name, about: 'linked source', to: `/linked/${id}` })),
    ...build.catalogs.map(({ id, title }): Bare => ({ id, kind: 'catalog', title, about: 'catalog', to: `/catalogs/${id}` })),
    ...registers.flatMap(({ sheet, register }) =>
      register.fields.map((field): Bare => ({
        id: field.id,
        kind: 'field',
        title: field.heading,
        about: sheet.title,
        to: `/sheets/${sheet.id}?field=${field.key}`,
      })),
    ),
  ];
}

/** The ids that lead to one or that it leads to, with itself. */
function around(id: string, edges: readonly MapEdge[]): Set<string> {
  const found = new Set([id]);
  const walk = (from: string, next: (edge: MapEdge) => [string, string]) => {
    for (const edge of edges) {
      const [here, there] = next(edge);
      if (here !== from || found.has(there)) continue;
      found.add(there);
      walk(there, next);
    }
  };
  walk(id, ({ from, to }) => [from, to]);
  walk(id, ({ from, to }) => [to, from]);
  return found;
}

/** The map, laid out from left to right; around one thing when it is named. What nothing leads to or from stays out. */
export function lineageMap(build: BuildView, centre: string | undefined): LineageMap {
  const all = edgesOf(build);
  const wanted = centre ? around(centre, all) : new Set(all.flatMap(({ from, to }) => [from, to]));
  const edges = all.filter(({ from, to }) => wanted.has(from) && wanted.has(to));
  const nodes = nodesOf(build).filter(({ id }) => wanted.has(id));
  const graph = new dagre.graphlib.Graph();
  graph.setGraph({ rankdir: 'LR', nodesep: 12, ranksep: 110, marginx: 20, marginy: 20 });
  graph.setDefaultEdgeLabel(() => ({}));
  for (const { id } of nodes) graph.setNode(id, { ...nodeSize });
  for (const { from, to } of edges) graph.setEdge(from, to);
  dagre.layout(graph);
  return {
    nodes: nodes.map((node) => {
      const { x, y } = graph.node(node.id);
      return { ...node, x: x - nodeSize.width / 2, y: y - nodeSize.height / 2 };
    }),
    edges,
    width: graph.graph().width ?? 0,
    height: graph.graph().height ?? 0,
  };
}
