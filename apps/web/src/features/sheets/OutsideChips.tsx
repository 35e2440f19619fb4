// Chips that say how many entries are outside, and list just these.
import { Button, HStack } from '@chakra-ui/react';
import type { FieldCount, RegisterView } from '@dellum/contract';
import { X } from 'lucide-react';

interface OutsideChipsProps {
  readonly register: RegisterView;
  readonly counts: readonly FieldCount[];
  readonly outside: string | undefined;
  onShow(outside: string | undefined): void;
}

/** Says that only entries with one value are shown; closing it shows all again. */
export function AlikeChip({ words, onClose }: { words: string; onClose: () => void }) {
  return (
    <Button variant="solid" size="2xs" h="6" rounded="full" onClick={onClose} aria-label={`${words}; show all entries again`}>
      {words} <X size={12} aria-hidden />
    </Button>
  );
}

export function OutsideChips({ register, counts, outside, onShow }: OutsideChipsProps) {
  const byField = new Map(counts.map((count) => [count.fieldId, count.outside]));
  const fields = register.fields.filter((field) => (byField.get(field.id) ?? 0) > 0 || field.key === outside);
  const total = counts.reduce((sum, count) => sum + count.outside, 0);
  if (total === 0 && !outside) return null;
  const chip = (key: string, words: string) => (
    <Button
      key={key}
      size="2xs"
      h="6"
      rounded="full"
      colorPalette="amber"
      variant={outside === key ? 'solid' : 'outline'}
      aria-pressed={outside === key}
      onClick={() => onShow(outside === key ? undefined : key)}
    >
      {words}
      {outside === key && <X size={12} aria-hidden />}
    </Button>
  );
  return (
    <HStack gap="2" wrap="wrap" role="group" aria-label="Entries outside">
      {chip('*', `${total} outside`)}
      {fields.map((field) => chip(field.key, `${field.heading}: ${byField.get(field.id) ?? 0} outside`))}
    </HStack>
  );
}
