// Says that the server or its database is away, and keeps asking until it is back; then what waited is stored.
import { Box, HStack } from '@chakra-ui/react';
import { CloudOff } from 'lucide-react';
import { useEffect } from 'react';
import { isAway } from '../data/away.js';
import { api, everyTag } from '../data/api.js';
import { useAppDispatch, useAppSelector } from '../data/store.js';

const askEvery = 1500;
const awayWords = {
  server: 'Dellum’s server does not answer.',
  database: 'Dellum cannot reach its database.',
  busy: 'Dellum has much to do right now.',
  disk: 'The disk of Dellum’s server is full; whoever runs it must make room.',
} as const;

export function AwayBand() {
  const dispatch = useAppDispatch();
  const { away } = useAppSelector((state) => state.live);
  const waiting = useAppSelector((state) => Object.values(state.drafts).filter((draft) => draft.state === 'waiting').length);
  useEffect(() => {
    const offline = () => void dispatch(isAway('server'));
    window.addEventListener('offline', offline);
    return () => window.removeEventListener('offline', offline);
  }, [dispatch]);
  useEffect(() => {
    if (!away) return;
    const timer = window.setInterval(() => {
      fetch('/api/v1/health')
        .then(({ ok }) => {
          if (!ok) return;
          dispatch(isAway(null));
          dispatch(api.util.invalidateTags([...everyTag]));
        })
        .catch(() => undefined);
    }, askEvery);
    return () => window.clearInterval(timer);
  }, [away, dispatch]);
  if (!away) return null;
  return (
    <HStack role="alert" bg="amber.subtle" color="amber.fg" px="5" py="2" gap="3" borderBottomWidth="1px" borderColor="amber.border">
      <CloudOff size={16} aria-hidden />
      <Box>
        {awayWords[away]} You can go on typing:{' '}
        {waiting === 0 ? 'what you type is kept here' : `${waiting} ${waiting === 1 ? 'cell is' : 'cells are'} kept here`} and stored as
        soon as it is back.
      </Box>
    </HStack>
  );
}
