// A box that scrolls. What can only be read takes no focus, and a box that holds nothing else could not be scrolled by keys: it takes it
// itself.
import { Box, type BoxProps } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';

const takesFocus = 'a[href], button, input, select, textarea, [tabindex]:not([tabindex="-1"])';

interface ScrollingProps extends BoxProps {
  /** What is read here, for those who come to it by keys. */
  readonly label: string;
}

export function Scrolling({ label, children, ...box }: ScrollingProps) {
  const scroller = useRef<HTMLDivElement>(null);
  const [isStop, setIsStop] = useState(false);
  useEffect(() => {
    const own = scroller.current!;
    const look = () => {
      const scrolls = own.scrollHeight > own.clientHeight || own.scrollWidth > own.clientWidth;
      setIsStop(scrolls && own.querySelector(takesFocus) === null);
    };
    const watching = new ResizeObserver(look);
    for (const watched of [own, ...own.children]) watching.observe(watched);
    return () => watching.disconnect();
  });
  return (
    <Box ref={scroller} overflow="auto" {...box} {...(isStop && { tabIndex: 0, role: 'region', 'aria-label': label })}>
      {children}
    </Box>
  );
}
