// A check box with its words beside it; `hidden` words are heard, not seen.
import { Checkbox } from '@chakra-ui/react';

interface CheckProps {
  readonly label: string;
  readonly checked: boolean;
  readonly hidden?: boolean;
  set(checked: boolean): void;
}

export function Check({ label, checked, hidden = false, set }: CheckProps) {
  return (
    <Checkbox.Root size="sm" checked={checked} onCheckedChange={(details) => set(details.checked === true)}>
      <Checkbox.HiddenInput aria-label={hidden ? label : undefined} />
      <Checkbox.Control borderColor="slate.border" />
      {!hidden && <Checkbox.Label>{label}</Checkbox.Label>}
    </Checkbox.Root>
  );
}
