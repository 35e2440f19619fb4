// A figure as a chart: bars side by side or stacked, or lines. A bar leads to its entries.
import { Box, HStack } from '@chakra-ui/react';
import type { FigureDefinition } from '@dellum/core';
import { Bar, BarChart, CartesianGrid, Cell as BarCell, Line, LineChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import { useColourMode } from '../../theme/index.js';
import { labelOf, type ChartRow, type Series } from './series.js';
import type { Cell } from './FigureTableView.js';
import { number } from '../../frame/written.js';

interface FigureChartProps {
  readonly definition: FigureDefinition;
  readonly series: readonly Series[];
  readonly rows: readonly ChartRow[];
  readonly label: string;
  readonly ref: React.Ref<HTMLDivElement>;
  open(cell: Cell): void;
}

const height = 320;
/** Up to so many places each has its name under it. */
const fewPlaces = 12;
/** Characters of all names together that have room side by side. */
const room = 100;
const shortened = (name: string, places: number): string =>
  name.length * places > room && name.length > room / places ? `${name.slice(0, Math.max(4, Math.floor(room / places) - 1))}…` : name;
const token = (name: string) => `var(--chakra-colors-${name.replace('.', '-')})`;
const colourOf = ({ look }: Pick<Series, 'look'>): string =>
  look.outside ? token('amber.solid') : look.blank ? token('ink-faint') : token(`item.${look.colour}`);
const styles = { fontSize: 12, fontFamily: 'inherit', fill: token('ink-soft') };

export function FigureChart({ definition, series, rows, label, ref, open }: FigureChartProps) {
  // The colours of marks that are drawn already change with the paper.
  const mode = useColourMode();
  const single = series.length === 1;
  const shared = { data: [...rows], margin: { top: 8, right: 16, bottom: 4, left: 8 }, accessibilityLayer: false };
  const parts = [
    <CartesianGrid key="grid" vertical={false} stroke={token('line')} />,
    <XAxis
      key="x"
      dataKey="name"
      tick={styles}
      stroke={token('line')}
      interval={rows.length <= fewPlaces ? 0 : 'preserveStartEnd'}
      minTickGap={12}
      tickFormatter={(name: string) => (rows.length <= fewPlaces ? shortened(name, rows.length) : name)}
    />,
    <YAxis key="y" tick={styles} stroke={token('line')} width={64} tickFormatter={(value: number) => number.format(value)} />,
    <Tooltip
      key="tip"
      cursor={{ fill: token('deep'), opacity: 0.5 }}
      contentStyle={{ background: token('card'), borderColor: token('line'), borderRadius: 7, fontSize: 12 }}
      itemStyle={{ color: token('ink') }}
      labelStyle={{ color: token('ink'), fontWeight: 700 }}
      formatter={(value) => number.format(Number(value))}
    />,
  ];
  const openAt = (key: string) => (_: unknown, at: number) => {
    const cell = rows[at]?.cells[key];
    if (cell) open(cell);
  };
  return (
    <Box ref={ref} data-mode={mode} bg="card" p="2">
      <HStack asChild gap="4" wrap="wrap" px="2" pb="2" fontSize="xs">
        <ul aria-label="Legend" style={{ listStyle: 'none' }}>
          {!single &&
            series.map((one) => (
              <HStack as="li" key={one.key} gap="1.5">
                <Box
                  w="10px"
                  h="10px"
                  rounded={one.look.outside ? 'full' : '2px'}
                  style={one.look.outside ? { border: `2px solid ${colourOf(one)}` } : { background: colourOf(one) }}
                  aria-hidden
                />
                {one.look.label}
                {one.look.outside && <span className="sr-only">, outside</span>}
              </HStack>
            ))}
        </ul>
      </HStack>
      <Box
        role="img"
        aria-label={label}
        h={`${height}px`}
        css={{ '& .recharts-bar-rectangle': { cursor: 'pointer' }, '& :focus': { outline: 'none' } }}
      >
        <ResponsiveContainer width="100%" height={height}>
          {definition.chart === 'line' ? (
            <LineChart {...shared}>
              {parts}
              {series.map((one) => (
                <Line
                  key={one.key}
                  dataKey={one.key}
                  name={single ? 'all' : labelOf(one.look)}
                  stroke={colourOf(one)}
                  strokeWidth={2}
                  {...(one.look.outside && { strokeDasharray: '4 3' })}
                  dot={{ r: 2.5 }}
                  isAnimationActive={false}
                  connectNulls
                />
              ))}
            </LineChart>
          ) : (
            <BarChart {...shared}>
              {parts}
              {series.map((one) => (
                <Bar
                  key={one.key}
                  dataKey={one.key}
                  name={single ? 'all' : labelOf(one.look)}
                  fill={colourOf(one)}
                  {...(one.look.outside && { fillOpacity: 0.35, stroke: colourOf(one) })}
                  {...(definition.chart === 'stacked' && { stackId: 'all' })}
                  isAnimationActive={false}
                  maxBarSize={56}
                  onClick={openAt(one.key)}
                >
                  {single && rows.map(({ name, look }) => <BarCell key={name} fill={look ? colourOf({ look }) : token('damson.solid')} />)}
                </Bar>
              ))}
            </BarChart>
          )}
        </ResponsiveContainer>
      </Box>
    </Box>
  );
}
