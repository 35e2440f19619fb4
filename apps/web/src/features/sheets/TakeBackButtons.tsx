// Taking back one's last act on a register, and doing it again.
import { HStack, IconButton } from '@chakra-ui/react';
import { Redo2, Undo2 } from 'lucide-react';
import type { Again } from '../entries/useAgain.js';

export function TakeBackButtons({ again }: { again: Again }) {
  if (!again.canUndo && !again.canRedo) return null;
  return (
    <HStack gap="1">
      <IconButton aria-label="Undo" title="Undo, Ctrl Z" disabled={!again.canUndo} onClick={() => void again.again('undo')}>
        <Undo2 size={13} />
      </IconButton>
      <IconButton aria-label="Redo" title="Redo, Ctrl Y" disabled={!again.canRedo} onClick={() => void again.again('redo')}>
        <Redo2 size={13} />
      </IconButton>
    </HStack>
  );
}
