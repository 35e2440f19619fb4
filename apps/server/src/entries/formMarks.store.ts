// Marks entries with the form through which they came.
import { Injectable } from '@nestjs/common';
import type { EntryView } from '@dellum/contract';
import type { HouseBuild, RegisterBuild } from '../structure/structure.store.js';
import type { Reader } from '../database/database.js';

@Injectable()
export class FormMarksStore {
  /** The entries, those that came through a form with its id and version. Registers without forms cost no query. */
  async marked(db: Reader, build: HouseBuild, register: RegisterBuild, entries: readonly EntryView[]): Promise<EntryView[]> {
    if (entries.length === 0 || !build.forms.some(({ registerId }) => registerId === register.id)) return [...entries];
    const rows = await db
      .selectFrom('form_fillings')
      .select(['entry_id', 'form_id', 'version'])
      .where('house_id', '=', build.houseId)
      .where(
        'entry_id',
        'in',
        entries.map(({ id }) => id),
      )
      .execute();
    const forms = new Map(rows.map(({ entry_id, form_id, version }) => [entry_id, { id: form_id, version }]));
    return entries.map((entry) => {
      const form = forms.get(entry.id);
      return form ? { ...entry, form } : entry;
    });
  }
}
