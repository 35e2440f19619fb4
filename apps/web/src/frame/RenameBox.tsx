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

/** A menu gives the focus back to its button a frame after an act of it was chosen. */
const afterMenus = (act: () => void) => requestAnimationFrame(() => requestAnimationFrame(act));

export function RenameBox({ label, name, size, backTo, rename, close }: RenameBoxProps) {
  const [text, setText] = useState(name);
  const box = useRef<HTMLInputElement>(null);
  useEffect(() => {
    box.current?.select();
    const frame = afterMenus(() => document.activeElement !== box.current && box.current?.select());
    return () => {
      cancelAnimationFrame(frame);
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
