// The box in which a thing gets another name: it has the focus at once, also when a menu opened it, and gives it back.
import { Input, type InputProps } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';

interface RenameBoxProps {
  readonly label: string;
  readonly name: string;
  readonly size: InputProps['size'];
  /** The id of the button that has the focus when the box has gone. */
  readonly backTo: string;
  /** Whether it has the name now; the box stays with what was typed where it has not. */
  rename(name: string): Promise<boolean>;
  close(): void;
}

export function RenameBox({ label, name, size, backTo, rename, close }: RenameBoxProps) {
  const [text, setText] = useState(name);
  const box = useRef<HTMLInputElement>(null);
  useEffect(() => {
    box.current?.select();
    // The menu that opened it moves the focus once more, in its own time; until somebody points or goes on, it is the box that has it.
    const stop = new AbortController();
    const takeBack = ({ target }: FocusEvent) => target !== box.current && box.current?.focus();
    const goesOn = (event: Event) => (!(event instanceof KeyboardEvent) || event.key === 'Tab') && stop.abort();
    document.addEventListener('focusin', takeBack, { signal: stop.signal });
    for (const act of ['keydown', 'pointerdown']) document.addEventListener(act, goesOn, { capture: true, signal: stop.signal });
    return () => {
      stop.abort();
      requestAnimationFrame(() => document.activeElement === document.body && document.getElementById(backTo)?.focus());
    };
  }, [backTo]);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        void rename(text).then((done) => done && close());
      }}
    >
      <Input
        ref={box}
        size={size}
        aria-label={label}
        value={text}
        onChange={(event) => setText(event.target.value)}
        onKeyDown={(event) => event.key === 'Escape' && close()}
      />
    </form>
  );
}
