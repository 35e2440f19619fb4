// The items of a catalog as a windowed table: groups that open, other names, companions, where each comes from, its use.
import { Badge, Box, HStack, IconButton, Text } from '@chakra-ui/react';
import { useVirtualizer } from '@tanstack/react-virtual';
import { format, itemKey, validityOn, type CompanionField, type Item } from '@dellum/core';
import { mayDesign, type BuildView, type Me } from '@dellum/contract';
import { ChevronDown, ChevronRight } from 'lucide-react';
import { useRef, type ReactNode } from 'react';
import { Link } from 'react-router';
import { Marked } from '../../picker/Marked.js';
import { ItemMark } from '../../theme/index.js';
import type { ItemRow } from './itemRows.js';
import { number } from '../../frame/written.js';

const rowHeight = 38;
const mostCompanions = 2;

interface ItemTableProps {
  readonly title: string;
  readonly rows: readonly ItemRow[];
  readonly companions: readonly CompanionField[];
  readonly use: Readonly<Record<string, number>>;
  /** True when a field takes its values from the catalog. */
  readonly bound: boolean;
  readonly build: BuildView;
  readonly me: Me;
  /** The day as of which the items are shown; what entries hold is always of today. */
  readonly day: string | undefined;
  readonly open: ReadonlySet<string>;
  readonly chosen: string | undefined;
  onOpen(key: string): void;
  onChoose(item: Item): void;
}

interface Column {
  readonly heading: string;
  /** Pixels below which the table scrolls sideways. */
  readonly least: number;
  readonly share: number;
  draw(row: ItemRow): ReactNode;
}

export function ItemTable(props: ItemTableProps) {
  const { title, rows, chosen } = props;
  const scroller = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowHeight,
    overscan: 12,
  });
  const columns = columnsOf(props);
  const line = {
    display: 'grid',
    gridTemplateColumns: columns.map(({ least, share }) => `minmax(${least}px, ${share}fr)`).join(' '),
    columnGap: '12px',
    alignItems: 'center',
    paddingInline: '8px',
  } as const;
  const width = columns.reduce((sum, { least }) => sum + least + 12, 16);
  return (
    <Box
      ref={scroller}
      role="table"
      aria-label={`Values of ${title}`}
      aria-rowcount={rows.length + 1}
      flex="1"
      minH="0"
      overflow="auto"
      tabIndex={0}
    >
      <Box role="rowgroup" position="sticky" top="0" bg="card" zIndex="1" borderBottomWidth="1px" borderColor="line" minW={`${width}px`}>
        <Box role="row" style={line} h="34px" color="inkSoft">
          {columns.map(({ heading }) => (
            <Text key={heading} role="columnheader" truncate>
              {heading}
            </Text>
          ))}
        </Box>
      </Box>
      <Box role="rowgroup" position="relative" h={`${virtual.getTotalSize()}px`} minW={`${width}px`}>
        {virtual.getVirtualItems().map(({ index, start }) => {
          const row = rows[index]!;
          const key = itemKey(row.item);
          return (
            <Box
              key={key}
              role="row"
              aria-rowindex={index + 2}
              position="absolute"
              left="0"
              right="0"
              top="0"
              h={`${rowHeight}px`}
              style={{ ...line, transform: `translateY(${start}px)` }}
              borderBottomWidth="1px"
              borderColor="lineSoft"
              bg={key === chosen ? 'damson.subtle' : undefined}
            >
              {columns.map(({ heading, draw }) => (
                <Text key={heading} as="div" role="cell" truncate dir="auto">
                  {draw(row)}
                </Text>
              ))}
            </Box>
          );
        })}
      </Box>
    </Box>
  );
}

/** Columns that would be empty from top to bottom stay out. */
function columnsOf({ rows, companions, use, bound, build, me, day, open, onOpen, onChoose }: ItemTableProps): Column[] {
  const most = Math.max(1, ...Object.values(use));
  const named = rows.some(({ item }) => item.otherNames.length > 0);
  const leaf = (row: ItemRow, draw: () => ReactNode) => (row.children === undefined ? draw() : null);
  return [
    {
      heading: 'Value',
      least: 230,
      share: 3,
      draw: (row) => (
        <ValueCell
          row={row}
          open={open.has(itemKey(row.item))}
          onOpen={() => onOpen(itemKey(row.item))}
          onChoose={() => onChoose(row.item)}
        />
      ),
    },
    ...(named
      ? [{ heading: 'Other names', least: 110, share: 2, draw: ({ item }: ItemRow) => <Soft>{item.otherNames.join(', ') || 'none'}</Soft> }]
      : []),
    ...companions
      .slice(0, mostCompanions)
      .map((field): Column => ({
        heading: field.heading,
        least: 70,
        share: 1,
        draw: ({ item }) =>
          item.companions?.[field.key] === undefined ? '' : format(field.kind, item.companions[field.key]!, me.house.locale),
      })),
    {
      heading: 'From',
      least: 110,
      share: 1.5,
      draw: ({ item }) => (
        <Soft>
          <Origin item={item} build={build} me={me} />
        </Soft>
      ),
    },
    ...(bound
      ? [
          {
            heading: day === undefined ? 'In entries' : 'In entries today',
            least: 118,
            share: 1,
            draw: (row: ItemRow) => leaf(row, () => <Bar count={use[row.item.value] ?? 0} most={most} />),
          },
        ]
      : []),
    {
      heading: 'State',
      least: 116,
      share: 0.5,
      draw: (row) => leaf(row, () => <StateBadge item={row.item} day={day ?? me.house.today} locale={me.house.locale} />),
    },
  ];
}

function Soft({ children }: { children: ReactNode }) {
  return (
    <Text as="span" color="inkSoft">
      {children}
    </Text>
  );
}

function ValueCell({
  row: { item, spans, children },
  open,
  onOpen,
  onChoose,
}: {
  row: ItemRow;
  open: boolean;
  onOpen: () => void;
  onChoose: () => void;
}) {
  return (
    <HStack gap="1.5" minW="0" pl={`${item.path.length * 18}px`}>
      {children !== undefined ? (
        <IconButton
          aria-label={`${open ? 'Close' : 'Open'} ${item.label}`}
          aria-expanded={open}
          size="2xs"
          variant="ghost"
          onClick={onOpen}
        >
          {open ? <ChevronDown size={14} /> : <ChevronRight size={14} />}
        </IconButton>
      ) : (
        item.path.length > 0 && <Box w="24px" flexShrink={0} />
      )}
      {item.colour && <ItemMark colour={item.colour} />}
      <Box asChild fontWeight="bold" textAlign="start" truncate cursor="pointer" _hover={{ textDecoration: 'underline' }}>
        <button type="button" onClick={onChoose}>
          <Marked text={item.label} spans={spans} />
        </button>
      </Box>
      {item.label !== item.value && (
        <Text as="span" fontFamily="mono" fontSize="xs" color="inkSoft" flexShrink={0}>
          {item.value}
        </Text>
      )}
      {children !== undefined && (
        <Text as="span" color="inkSoft" fontSize="xs" flexShrink={0}>
          {number.format(children)}
        </Text>
      )}
    </HStack>
  );
}

/** The rows an item comes from, as a way back to them. */
function Origin({ item, build, me }: { item: Item; build: BuildView; me: Me }) {
  // Where values come from is the administrator's to see.
  if (!mayDesign(me.role)) return <>{item.state === 'retired' ? 'kept by hand' : 'its source'}</>;
  const first = item.from[0];
  if (!first) return <>kept by hand</>;
  if (first.by === 'typed') return <>typed</>;
  const registers = build.sheets.flatMap((sheet) => sheet.registers.map((register) => ({ sheet, register })));
  const place = registers.find(({ register }) => register.id === first.rows[0]?.register);
  const rows = item.from.flatMap(({ rows: own }) => own.map(({ ordinal }) => ordinal + 1));
  if (first.by === 'range' && rows.length === 0 && build.ranges.find(({ id }) => id === first.id)?.shape === 'levels') return null;
  const words =
    rows.length === 0
      ? 'the heading'
      : `${rows.length === 1 ? 'row' : 'rows'} ${rows.slice(0, 3).join(', ')}${rows.length > 3 ? ` and ${rows.length - 3} more` : ''}`;
  switch (first.by) {
    case 'range': {
      const range = build.ranges.find(({ id }) => id === first.id);
      const home = place ?? registers.find(({ register }) => register.id === range?.stretches[0]?.registerId);
      return (
        <Way
          to={`/sources/${home?.sheet.id ?? ''}?range=${first.id}${rows[0] ? `&row=${rows[0]}` : ''}`}
        >{`${words} of ${range?.name ?? ''}`}</Way>
      );
    }
    case 'query':
    case 'keyed':
      return (
        <Way
          to={`/${place?.sheet.kind === 'source' ? 'sources' : 'sheets'}/${place?.sheet.id ?? ''}`}
        >{`${words} of ${place?.register.title ?? ''}`}</Way>
      );
    case 'linked':
      return <Way to={`/linked/${first.id}`}>{build.linked.find(({ id }) => id === first.id)?.name ?? 'a linked source'}</Way>;
    case 'named':
    case 'catalog':
      return <Way to={`/catalogs/${first.id}`}>{build.catalogs.find(({ id }) => id === first.id)?.title ?? 'a catalog'}</Way>;
  }
}

function Way({ to, children }: { to: string; children: string }) {
  return (
    <Box asChild textDecoration="underline" textUnderlineOffset="3px">
      <Link to={to}>{children}</Link>
    </Box>
  );
}

function Bar({ count, most }: { count: number; most: number }) {
  return (
    <HStack gap="2">
      <Box w="64px" h="8px" aria-hidden>
        <Box h="100%" w={`${(count / most) * 100}%`} minW={count > 0 ? '3px' : '0'} bg="damson.solid" opacity="0.75" rounded="2px" />
      </Box>
      <span>{number.format(count)}</span>
    </HStack>
  );
}

function StateBadge({ item, day, locale }: { item: Item; day: string; locale: Me['house']['locale'] }) {
  const validity = validityOn(item, day);
  if (item.state === 'retired')
    return (
      <Badge colorPalette="slate" variant="subtle">
        retired
      </Badge>
    );
  if (validity === 'not yet valid')
    return (
      <Badge colorPalette="amber" variant="subtle">
        from {format('date', item.validFrom!, locale)}
      </Badge>
    );
  if (validity === 'no longer valid')
    return (
      <Badge colorPalette="slate" variant="subtle">
        until {format('date', item.validUntil!, locale)}
      </Badge>
    );
  if (item.validUntil)
    return (
      <Badge colorPalette="amber" variant="subtle">
        to {format('date', item.validUntil, locale)}
      </Badge>
    );
  return (
    <Badge colorPalette="growth" variant="subtle">
      offered
    </Badge>
  );
}
