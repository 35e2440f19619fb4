// Forms as administrators make them: laid out, published as versions, opened to people without an account by links.
import { randomBytes, randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { askedIn, controlOf, isOfKind, layoutFindings, lengthOfList, newLayout, stopsPublishing, type FormLayout } from '@dellum/core';
import type { FormName, FormView, LayFormDto, MakeFormDto, MakeLinkDto } from '@dellum/contract';
import { StructureService, feedsCatalogs } from '../structure/structure.service.js';
import type { HouseBuild, RegisterBuild } from '../structure/structure.store.js';
import { CompiledCatalogsService } from '../compiled/compiled.service.js';
import { Database, type Trx } from '../database/database.js';
import { catalogsOf } from '../entries/judging.js';
import { endOfDay, todayOf } from '../structure/days.js';
import { LedgerStore } from '../ledger/ledger.store.js';
import type { Caller } from '../access/access.js';
import { freeName, notFound, ProblemError } from '../problems/index.js';
import { FormsStore } from './forms.store.js';
import { readLayout } from './readLayout.js';

@Injectable()
export class FormsService {
  constructor(
    private readonly database: Database,
    private readonly builds: StructureService,
    private readonly catalogs: CompiledCatalogsService,
    private readonly store: FormsStore,
    private readonly ledger: LedgerStore,
  ) {}

  /** A form that asks all fields of the register at first. */
  make(caller: Caller, dto: MakeFormDto): Promise<{ id: string }> {
    return this.builds.change(caller.houseId, async (trx, build) => {
      const register = entrySheetOf(build, dto.registerId);
      const title = freeName(
        dto.title,
        'title',
        build.forms.map((form) => form.title),
      );
      const id = randomUUID();
      await this.store.add(trx, caller.houseId, { id, registerId: register.id, title, layout: newLayout(register.fields) });
      await this.note(trx, caller, 'form.made', { id, title });
      return { id };
    });
  }

  async view(caller: Caller, id: string): Promise<FormView> {
    const db = this.database.kysely;
    const form = formOf(await this.builds.now(caller.houseId), id);
    const draft = await this.store.draft(db, caller.houseId, id);
    if (!draft) throw notFound('This form');
    return {
      ...form,
      ...draft,
      versions: await this.store.versions(db, caller.houseId, id),
      links: await this.store.links(db, caller.houseId, id),
    };
  }

  lay(caller: Caller, id: string, dto: LayFormDto): Promise<{ edition: number }> {
    return this.builds.change(caller.houseId, async (trx, build) => {
      const form = formOf(build, id);
      const register = entrySheetOf(build, form.registerId);
      const title = freeName(
        dto.title,
        'title',
        build.forms.filter((other) => other.id !== id).map((other) => other.title),
      );
      if (!(await this.store.lay(trx, caller.houseId, id, dto.edition, { title, layout: readLayout(build, register, dto.layout) }))) {
        throw new ProblemError(
          'form-changed',
          'Somebody else has changed this form meanwhile. Load it again; then make your change once more.',
        );
      }
      return { edition: dto.edition + 1 };
    });
  }

  /** Publishes the form as it is laid out, unless it has faults that whoever fills it could not get past. */
  publish(caller: Caller, id: string): Promise<{ version: number }> {
    return this.builds.change(caller.houseId, async (trx, build) => {
      const form = formOf(build, id);
      const register = entrySheetOf(build, form.registerId);
      const { layout } = (await this.store.draft(trx, caller.houseId, id))!;
      const version = await this.store.publish(trx, caller.houseId, id, caller.id, {
        title: form.title,
        layout: await this.faultless(trx, build, register, layout),
      });
      await this.note(trx, caller, 'form.published', { id, title: form.title, version });
      return { version };
    });
  }

  /** The layout with the control of every field settled, so that it stays the same while lists are still coming. */
  private async faultless(trx: Trx, build: HouseBuild, register: RegisterBuild, layout: FormLayout): Promise<FormLayout> {
    const catalogs = await this.catalogs.some(trx, build, catalogsOf(register.fields));
    const faults = layoutFindings(layout, {
      fields: register.fields,
      catalogs,
      locale: build.locale,
      today: todayOf(new Date(), build.locale),
    }).filter(stopsPublishing);
    if (faults.length > 0)
      throw new ProblemError(
        'form-faulty',
        faults.length === 1 ? faults[0]!.message : `${faults[0]!.message} There are ${faults.length - 1} more faults.`,
        { faults: Object.fromEntries(faults.map(({ field, section, message }, at) => [field ?? section ?? `form ${at}`, message])) },
      );
    const settled = (key: string, chosen: Parameters<typeof controlOf>[1]) => {
      const field = register.fields.find((known) => known.key === key)!;
      return controlOf(field, chosen, lengthOfList(field.rule, catalogs));
    };
    return {
      ...layout,
      sections: layout.sections.map((section) => ({
        ...section,
        fields: section.fields.map((one) => ({ ...one, control: settled(one.field, one.control) })),
      })),
    };
  }

  /** Takes the form away from those who fill it; its entries and versions stay. */
  close(caller: Caller, id: string): Promise<void> {
    return this.builds.change(caller.houseId, async (trx, build) => {
      const { title } = formOf(build, id);
      await this.store.close(trx, caller.houseId, id);
      await this.note(trx, caller, 'form.closed', { id, title });
    });
  }

  remove(caller: Caller, id: string): Promise<void> {
    return this.builds.change(caller.houseId, async (trx, build) => {
      const { title } = formOf(build, id);
      await this.store.remove(trx, caller.houseId, id);
      await this.note(trx, caller, 'form.deleted', { id, title });
    });
  }

  /** A link by which people without an account fill the form. Its token is told once and kept nowhere. */
  makeLink(caller: Caller, id: string, dto: MakeLinkDto): Promise<{ id: string; token: string }> {
    return this.database.transaction(async (trx) => {
      const build = await this.builds.at(trx, caller.houseId);
      const form = formOf(build, id);
      if (feedsCatalogs(build, form.registerId))
        throw new ProblemError('in-use', 'Entries of this sheet are values of catalogs. Only people of the house can fill its forms.', {
          users: [],
        });
      const expires = isOfKind('date', dto.expires) ? await endOfDay(trx, dto.expires, build.locale) : new Date(dto.expires);
      if (expires <= new Date())
        throw new ProblemError('not-valid', 'This day is over. Choose a later one.', { faults: { expires: 'Choose a later day.' } });
      const link = {
        id: randomUUID(),
        formId: id,
        token: randomBytes(24).toString('base64url'),
        expires,
        perHour: dto.perHour,
        personId: caller.id,
      };
      await this.store.addLink(trx, caller.houseId, link);
      await this.note(trx, caller, 'form.opened', { id, title: form.title, link: link.id });
      return { id: link.id, token: link.token };
    });
  }

  closeLink(caller: Caller, id: string, linkId: string): Promise<void> {
    return this.database.transaction(async (trx) => {
      const { title } = formOf(await this.builds.at(trx, caller.houseId), id);
      if (!(await this.store.closeLink(trx, caller.houseId, id, linkId))) throw notFound('This link');
      await this.note(trx, caller, 'form.link.closed', { id, title, link: linkId });
    });
  }

  private note(trx: Trx, caller: Caller, act: string, detail: Record<string, string | number>): Promise<void> {
    return this.ledger.write(trx, caller.houseId, [
      { personId: caller.id, act, detail: Object.fromEntries(Object.entries(detail).map(([key, value]) => [key, String(value)])) },
    ]);
  }
}

export function formOf(build: HouseBuild, id: string): FormName {
  const form = build.forms.find((known) => known.id === id);
  if (!form) throw notFound('This form');
  return form;
}

function entrySheetOf(build: HouseBuild, registerId: string): RegisterBuild {
  const register = build.registers.get(registerId);
  if (!register || register.source) throw notFound('This entry sheet');
  return register;
}

/** The asked fields that the register still has. */
export const askedFields = (register: RegisterBuild, layout: FormLayout) =>
  askedIn(layout).flatMap(({ field }) => register.fields.find(({ key }) => key === field) ?? []);
