// A text that is kept when one leaves it or presses Enter; Escape puts back what was there.
import { Input } from '@chakra-ui/react';
import { useState } from 'react';

interface KeptTextProps {
  readonly label: string;
  readonly value: string;
  readonly width?: string;
  readonly bold?: boolean;
  keep(value: string): void;
}

export function KeptText({ label, value, width = '100%', bold = false, keep }: KeptTextProps) {
  const [typed, setTyped] = useState<string>();
  const leave = () => {
    const text = typed?.trim();
    setTyped(undefined);
    if (text !== undefined && text !== '' && text !== value) keep(text);
  };
  return (
    <Input
      size="xs"
      w={width}
      bg="card"
      borderColor="slate.border"
      {...(bold && { fontWeight: 'bold' })}
      aria-label={label}
      value={typed ?? value}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={leave}
      onKeyDown={(event) => {
        if (event.key === 'Enter') leave();
        if (event.key === 'Escape') setTyped(undefined);
      }}
    />
  );
}
