// The map: which sources feed which catalogs, and which fields take their values from them. One can walk in it.
import { Box, Button, HStack, Text } from '@chakra-ui/react';
import {
  Background,
  Controls,
  Handle,
  Position,
  ReactFlow,
  type Edge,
  type Node,
  type NodeProps,
  type ReactFlowInstance,
} from '@xyflow/react';
import '@xyflow/react/dist/style.css';
import { useMemo, useRef } from 'react';
import { Link, useSearchParams } from 'react-router';
import { errorWords } from '../../data/problem.js';
import { EmptyState, Page, Waiting } from '../../frame/Page.js';
import { Way } from '../../frame/Way.js';
import { useColourMode } from '../../theme/index.js';
import { useBuildQuery } from '../../data/buildApi.js';
import { lineageMap, nodeSize, type MapNode, type NodeKind } from './lineageGraph.js';

type Card = Node<{ readonly node: MapNode; readonly chosen: boolean }, 'card'>;

const tones: { readonly [K in NodeKind]: string } = {
  range: 'growth',
  sheet: 'growth',
  linked: 'growth',
  catalog: 'damson',
  field: 'slate',
};

function CardNode({ data: { node, chosen } }: NodeProps<Card>) {
  const tone = tones[node.kind];
  return (
    <Box
      w={`${nodeSize.width}px`}
      h={`${nodeSize.height}px`}
      bg={chosen ? `${tone}.subtle` : 'card'}
      borderWidth={chosen ? '2px' : '1px'}
      borderColor={`${tone}.border`}
      borderLeftWidth="4px"
      rounded="l2"
      px="2.5"
      py="1"
    >
      <Handle type="target" position={Position.Left} isConnectable={false} style={{ visibility: 'hidden' }} />
      <Box asChild display="block" fontWeight="bold" truncate color="ink" _hover={{ textDecoration: 'underline' }}>
        <Link to={node.to}>{node.title}</Link>
      </Box>
      <Text fontSize="xs" color="inkSoft" truncate>
        {node.about}
      </Text>
      <Handle type="source" position={Position.Right} isConnectable={false} style={{ visibility: 'hidden' }} />
    </Box>
  );
}

const nodeTypes = { card: CardNode };

export function MapPage() {
  const { data: build, error } = useBuildQuery();
  const [address, setAddress] = useSearchParams();
  const mode = useColourMode();
  const drawing = useRef<HTMLDivElement>(null);
  const centre = address.get('catalog') ?? undefined;
  const map = useMemo(() => (build ? lineageMap(build, centre) : undefined), [build, centre]);
  const nodes = useMemo(
    () =>
      map?.nodes.map((node): Card => ({
        id: node.id,
        type: 'card',
        position: { x: node.x, y: node.y },
        data: { node, chosen: node.id === centre },
        draggable: false,
        selectable: false,
        ariaLabel: `${node.title}, ${node.about}`,
      })) ?? [],
    [map, centre],
  );
  const edges = useMemo(
    () => map?.edges.map(({ from, to }): Edge => ({ id: `${from} ${to}`, source: from, target: to, focusable: false })) ?? [],
    [map],
  );
  if (!build || !map) return <Waiting error={errorWords(error)} />;
  // Read from the top at its full size; whoever wants to see all of it at once asks for that.
  const begin = (flow: ReactFlowInstance<Card, Edge>) => {
    const free = drawing.current?.clientWidth ?? map.width;
    void flow.setViewport({ x: Math.max(0, (free - map.width) / 2), y: 0, zoom: Math.min(1, Math.max(0.7, free / map.width)) });
  };
  const title = build.catalogs.find(({ id }) => id === centre)?.title;
  return (
    <Page
      title="Map"
      about={
        title
          ? `What feeds ${title}, and what takes its values from it.`
          : 'Sources at the left, catalogs in the middle, the fields that take their values from them at the right.'
      }
      actions={centre && <Button onClick={() => setAddress({})}>Show everything</Button>}
      strip={
        <HStack gap="2" wrap="wrap" role="group" aria-label="Around one catalog">
          <Text color="inkSoft">Around</Text>
          {build.catalogs.map((catalog) => (
            <Button
              key={catalog.id}
              size="2xs"
              rounded="full"
              variant={catalog.id === centre ? 'solid' : 'outline'}
              aria-pressed={catalog.id === centre}
              onClick={() => setAddress(catalog.id === centre ? {} : { catalog: catalog.id })}
            >
              {catalog.title}
            </Button>
          ))}
        </HStack>
      }
    >
      {map.nodes.length === 0 ? (
        <EmptyState title="Nothing to draw yet">
          Keep a list <Way to="/sources">on a source sheet</Way>, make a catalog of it, and use it for a field; then the way of the values
          is drawn here.
        </EmptyState>
      ) : (
        // Nodes that are neither dragged nor chosen get no pointer from the library; their links need it.
        <Box
          ref={drawing}
          h="100%"
          css={{
            '& .react-flow__node': { pointerEvents: 'all !important' },
            '& .react-flow__edge-path': { stroke: 'var(--chakra-colors-slate-border)' },
          }}
        >
          <ReactFlow
            key={centre ?? 'all'}
            nodes={nodes}
            edges={edges}
            nodeTypes={nodeTypes}
            colorMode={mode}
            onInit={begin}
            panOnScroll
            minZoom={0.2}
            maxZoom={1.5}
            translateExtent={[
              [-200, -60],
              [map.width + 200, map.height + 60],
            ]}
            nodesConnectable={false}
            nodesFocusable={false}
            proOptions={{ hideAttribution: true }}
          >
            <Background />
            <Controls showInteractive={false} />
          </ReactFlow>
        </Box>
      )}
    </Page>
  );
}
