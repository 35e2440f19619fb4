// The notices at the foot of the window.
import { Box, HStack, IconButton, Stack, Text } from '@chakra-ui/react';
import { Check, TriangleAlert, X } from 'lucide-react';
import { useEffect } from 'react';
import { useAppDispatch, useAppSelector } from '../data/store.js';
import { dismissed, type Notice } from './noticesSlice.js';

const shownFor = { done: 5000, refused: 12_000 };

function NoticeCard({ notice }: { notice: Notice }) {
  const dispatch = useAppDispatch();
  useEffect(() => {
    const timer = window.setTimeout(() => dispatch(dismissed(notice.id)), shownFor[notice.tone]);
    return () => window.clearTimeout(timer);
  }, [dispatch, notice]);
  const palette = notice.tone === 'done' ? 'growth' : 'brick';
  return (
    <HStack
      bg="card"
      borderWidth="1px"
      borderColor={`${palette}.border`}
      rounded="l3"
      shadow="lifted"
      px="3"
      py="2"
      gap="3"
      maxW="460px"
      pointerEvents="auto"
    >
      <Box color={`${palette}.fg`} flexShrink={0}>
        {notice.tone === 'done' ? <Check size={16} aria-hidden /> : <TriangleAlert size={16} aria-hidden />}
      </Box>
      <Text flex="1">{notice.text}</Text>
      <IconButton aria-label="Dismiss" size="2xs" variant="ghost" colorPalette="slate" onClick={() => dispatch(dismissed(notice.id))}>
        <X size={14} />
      </IconButton>
    </HStack>
  );
}

export function Notices() {
  const notices = useAppSelector((state) => state.notices);
  return (
    <Stack
      position="fixed"
      bottom="10"
      left="50%"
      transform="translateX(-50%)"
      zIndex="toast"
      gap="2"
      pointerEvents="none"
      role="status"
      aria-live="polite"
    >
      {notices.map((notice) => (
        <NoticeCard key={notice.id} notice={notice} />
      ))}
    </Stack>
  );
}
