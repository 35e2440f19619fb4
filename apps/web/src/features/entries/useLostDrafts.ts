// What is kept of a sheet or a field that goes has no place any more: it is told, and dropped.
import { grouped } from '@dellum/core';
import type { BuildView } from '@dellum/contract';
import { useEffect, useRef } from 'react';
import { useBuildQuery } from '../../data/buildApi.js';
import { settled, type Draft } from '../../data/draftsSlice.js';
import { useAppDispatch, useAppSelector } from '../../data/store.js';
import { useNotice } from '../../frame/useNotice.js';

/** So many texts are told in words; the rest by their number. */
const mostTold = 3;

const fieldKey = (registerId: string, field: string): string => `${registerId}/${field}`;

/** By register, and by field of one, what it is called. */
const namesIn = ({ sheets }: BuildView): (readonly [string, string])[] =>
  sheets.flatMap(({ title, registers }) =>
    registers.flatMap(({ id, fields }) => [
      [id, title] as const,
      ...fields.map(({ key, heading }) => [fieldKey(id, key), heading] as const),
    ]),
  );

const lostWords = (what: string, texts: readonly string[]): string => {
  const told = texts.slice(0, mostTold).map((text) => `“${text}”`);
  const more = texts.length > told.length ? ` and ${texts.length - told.length} more` : '';
  // Deleted, or not shown to whoever typed any more.
  return `${what} is not there any more; ${told.join(', ')}${more} ${texts.length === 1 ? 'was' : 'were'} not stored.`;
};

export function useLostDrafts(): void {
  const dispatch = useAppDispatch();
  const notice = useNotice();
  const { data: build, isFetching } = useBuildQuery();
  const drafts = useAppSelector((state) => state.drafts);
  /** What was there is still called so when it is gone. */
  const called = useRef(new Map<string, string>());
  useEffect(() => {
    if (!build || isFetching) return;
    const names = new Map(namesIn(build));
    for (const [key, name] of names) called.current.set(key, name);
    const lost = Object.values(drafts).filter(({ registerId, field }) => !names.has(fieldKey(registerId, field)));
    const goneOf = ({ registerId, field }: Draft) => (names.has(registerId) ? fieldKey(registerId, field) : registerId);
    for (const [gone, own] of grouped(lost, goneOf)) {
      const texts = own.map(({ text }) => text);
      notice('refused', lostWords(called.current.get(gone) ?? 'What you typed into', texts));
    }
    for (const { entryId, field } of lost) dispatch(settled({ entryId, field }));
  }, [build, isFetching, drafts, dispatch, notice]);
}
