// Something else had to be made first: a way there that remembers what was begun, and the way back on every page between.
import { Box, Button, HStack } from '@chakra-ui/react';
import { CornerDownLeft } from 'lucide-react';
import { useEffect } from 'react';
import { Link, useLocation } from 'react-router';
import { useAppDispatch, useAppSelector } from '../data/store.js';
import { cameTo, dropped, isAt, sentAway, type Errand } from './errandSlice.js';
import { Way } from './Way.js';

/** A way to where something is made first; `errand` is what goes on afterwards. */
export function WayFirst({ to, errand, children }: { to: string; errand: Errand; children: string }) {
  const dispatch = useAppDispatch();
  return (
    <span onClick={() => dispatch(sentAway(errand))}>
      <Way to={to}>{children}</Way>
    </span>
  );
}

export function ErrandBand() {
  const errand = useAppSelector((state) => state.errand);
  const dispatch = useAppDispatch();
  const { pathname } = useLocation();
  useEffect(() => void dispatch(cameTo(pathname)), [pathname, dispatch]);
  if (!errand || isAt(errand, pathname)) return null;
  return (
    <HStack role="status" bg="damson.subtle" px="5" py="1.5" gap="3" borderBottomWidth="1px" borderColor="damson.border">
      <CornerDownLeft size={16} aria-hidden />
      <Box>You were about to {errand.what}.</Box>
      <Button variant="solid" asChild size="2xs">
        <Link to={errand.to}>Go on with it</Link>
      </Button>
      <Button size="2xs" variant="ghost" colorPalette="slate" onClick={() => dispatch(dropped())}>
        Not now
      </Button>
    </HStack>
  );
}
