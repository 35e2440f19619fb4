// A question before what cannot be undone or takes much away.
import { Button } from '@chakra-ui/react';
import { useState } from 'react';
import { laterDialog } from './later.js';
import type { QuestionProps } from './QuestionDialog.js';

/** The question alone, for acts that begin elsewhere. */
export const Question = laterDialog(async () => (await import('./QuestionDialog.js')).QuestionDialog);

/** A button that asks before it acts; `short`: its words where the place says what they are about. */
export function Confirm({ short, ...props }: QuestionProps & { readonly short?: string }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button {...(short && { 'aria-label': props.ask, title: props.ask })} onClick={() => setOpen(true)}>
        {short ?? props.ask}
      </Button>
      <Question {...props} open={open} close={() => setOpen(false)} />
    </>
  );
}
