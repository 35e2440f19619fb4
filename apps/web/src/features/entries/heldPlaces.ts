// Where entries hold a value, in words, with the address that shows just these entries.
import type { BuildView, HeldIn } from '@dellum/contract';

export interface HeldPlace {
  readonly to: string;
  /** "Pilot of Berth visits" */
  readonly words: string;
  readonly entries: number;
}

/** The places of a value; `value` is the one they were asked for. */
export function heldPlaces(held: readonly HeldIn[], build: BuildView, value: string): HeldPlace[] {
  const places = build.sheets.flatMap((sheet) =>
    sheet.registers.flatMap(({ fields }) => fields.map((field) => [field.id, { sheet, field }] as const)),
  );
  const byField = new Map(places);
  return held.flatMap(({ fieldId, entries }) => {
    const place = byField.get(fieldId);
    if (!place || place.sheet.kind !== 'entry') return [];
    return [
      {
        to: `/sheets/${place.sheet.id}?${new URLSearchParams({ holds: place.field.key, value }).toString()}`,
        words: `${place.field.heading} of ${place.sheet.title}`,
        entries,
      },
    ];
  });
}
