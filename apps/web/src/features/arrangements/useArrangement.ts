// My arrangement of a register: what is shown of it, in which order, and how its fields stand.
import { arranges, asKept, fieldsInOrder, type Arrangement } from '@dellum/core';
import type { FieldView, RegisterView } from '@dellum/contract';
import { useMemo } from 'react';
import { useTry } from '../../frame/useNotice.js';
import { useAppDispatch } from '../../data/store.js';
import { useArrangementQuery } from '../../data/arrangementsApi.js';
import { arrangeAnew, arrangeBy } from './arrangeBy.js';

export interface Arranging {
  readonly arrangement: Arrangement;
  /** The version to ask the entries by; undefined where they stand as they are kept. */
  readonly version: number | undefined;
  /** False until the arrangement has come. */
  readonly ready: boolean;
  /** The fields that are shown, in their order, with their width. */
  readonly fields: readonly FieldView[];
  set(next: Arrangement): void;
  /** Brings the entries into order by what they hold now. */
  anew(): void;
}

export function useArrangement(register: RegisterView): Arranging {
  const { data } = useArrangementQuery(register.id);
  const dispatch = useAppDispatch();
  const attempt = useTry();
  const arrangement = data?.arrangement ?? asKept;
  const fields = useMemo(
    () =>
      fieldsInOrder(register.fields, arrangement).flatMap(({ field, hidden, width }) =>
        hidden ? [] : [{ ...field, width: width ?? field.width }],
      ),
    [register.fields, arrangement],
  );
  return {
    arrangement,
    version: data && arranges(arrangement) ? data.version : undefined,
    ready: data !== undefined,
    fields,
    set: (next) => void attempt(dispatch(arrangeBy(register.id, next))),
    anew: () => void attempt(dispatch(arrangeAnew(register.id))),
  };
}
