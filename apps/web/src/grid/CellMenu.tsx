// The menu of a cell: the acts that make sense there, each with its key.
import { Box, Kbd, Menu, Portal } from '@chakra-ui/react';
import { Fragment } from 'react';
import type { MenuLine } from './models.js';

interface CellMenuProps {
  readonly label: string;
  readonly at: { readonly x: number; readonly y: number };
  /** As they stand now: what they are about may have moved since the menu was opened. */
  readonly lines: readonly MenuLine[];
  close(): void;
}

export function CellMenu({ label, at: { x, y }, lines, close }: CellMenuProps) {
  return (
    <Menu.Root
      open
      positioning={{ getAnchorRect: () => ({ x, y, width: 1, height: 1 }), placement: 'bottom-start' }}
      onOpenChange={({ open }) => !open && close()}
      onSelect={({ value }) => lines[Number(value)]?.act()}
      size="sm"
    >
      <Portal container={{ current: document.querySelector('main') }}>
        <Menu.Positioner>
          <Menu.Content minW="260px" aria-label={`Acts on ${label}`} onKeyDown={(event) => event.stopPropagation()}>
            {lines.map(({ words, key, off, harms, apart }, at) => (
              <Fragment key={words}>
                {apart && <Menu.Separator />}
                <Menu.Item value={String(at)} disabled={off ?? false} {...(harms && { color: 'brick.fg' })}>
                  <Box flex="1">{words}</Box>
                  {key && <Kbd size="sm">{key}</Kbd>}
                </Menu.Item>
              </Fragment>
            ))}
          </Menu.Content>
        </Menu.Positioner>
      </Portal>
    </Menu.Root>
  );
}
