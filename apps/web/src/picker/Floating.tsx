// A panel that floats under (or above) what it belongs to and follows it.
import { Box, Portal } from '@chakra-ui/react';
import { autoUpdate, flip, offset, shift, size, useFloating } from '@floating-ui/react-dom';
import { useState, type ReactNode } from 'react';

interface FloatingProps {
  readonly anchor: HTMLElement | null;
  readonly children: ReactNode;
  readonly minWidth?: number;
  /** Says something and cannot be clicked: it stands above, out of the way of what is typed and of lists that open below. */
  readonly passive?: boolean;
}

export function Floating({ anchor, children, minWidth = 280, passive = false }: FloatingProps) {
  const [panel, setPanel] = useState<HTMLElement | null>(null);
  const { floatingStyles } = useFloating({
    elements: { reference: anchor, floating: panel },
    placement: passive ? 'top-start' : 'bottom-start',
    strategy: 'fixed',
    middleware: [
      offset(3),
      flip({ padding: 8 }),
      shift({ padding: 8 }),
      size({
        apply: ({ rects, elements }) => {
          elements.floating.style.minWidth = passive ? '0' : `${Math.max(minWidth, rects.reference.width)}px`;
        },
      }),
    ],
    whileElementsMounted: autoUpdate,
  });
  return (
    // Inside the main landmark, so that it belongs to the page for whoever hears it.
    <Portal container={{ current: document.querySelector('main') }}>
      <Box
        ref={setPanel}
        style={{ ...floatingStyles, ...(passive && { pointerEvents: 'none' }) }}
        zIndex="popover"
        bg="card"
        borderWidth="1px"
        borderColor="damson.border"
        rounded="l2"
        shadow="lifted"
        maxW="420px"
        overflow="hidden"
        onMouseDown={(event) => event.preventDefault()}
      >
        {children}
      </Box>
    </Portal>
  );
}
