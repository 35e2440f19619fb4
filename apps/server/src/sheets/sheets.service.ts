// Sheets, their registers and fields: the build that administrators make.
import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { catalogIdOf, clean, closingReads, fieldsNamedBy, freeAmong, freeFieldKey, partAs, proposalOf, type FieldKind } from '@dellum/core';
import type {
  BuildView,
  ChangeFieldDto,
  ChangeSheetDto,
  LimitSheetDto,
  MakeFieldDto,
  MakeListDto,
  MakeSheetDto,
  MakeTableDto,
  Outcome,
} from '@dellum/contract';
import { StructureService, fieldWithId } from '../structure/structure.service.js';
import type { FieldBuild, HouseBuild, RegisterBuild } from '../structure/structure.store.js';
import type { Trx } from '../database/database.js';
import { EntriesStore } from '../entries/entries.store.js';
import { LedgerStore } from '../ledger/ledger.store.js';
import type { Caller } from '../access/access.js';
import { freeName, notFound, ProblemError } from '../problems/index.js';
import { queriesOver } from '../catalogs/catalogs.service.js';
import { SourcesService } from '../sources/sources.service.js';
import { SheetsStore } from '../structure/sheets.store.js';

export const fieldWidth = 140;

@Injectable()
export class SheetsService {
  constructor(
    private readonly builds: StructureService,
    private readonly store: SheetsStore,
    private readonly entries: EntriesStore,
    private readonly sources: SourcesService,
    private readonly ledger: LedgerStore,
  ) {}

  build(caller: Caller): Promise<BuildView> {
    return this.builds.view(caller);
  }

  /** An entry sheet comes with its register; a source sheet is made without lists. */
  make(caller: Caller, dto: MakeSheetDto): Promise<{ id: string }> {
    return this.change(caller, 'sheet.made', async (trx, build) => {
      const title = freeName(
        dto.title,
        'title',
        build.sheets.map((sheet) => sheet.title),
      );
      const id = randomUUID();
      await this.store.addSheet(trx, caller.houseId, { id, kind: dto.kind, title, note: dto.note ?? '' });
      if (dto.kind === 'entry') await this.store.addRegister(trx, caller.houseId, { id: randomUUID(), sheetId: id, title });
      return { id, title };
    });
  }

  alter(caller: Caller, id: string, dto: ChangeSheetDto): Promise<{ id: string }> {
    return this.change(caller, 'sheet.changed', async (trx, build) => {
      sheetOf(build, id);
      const title =
        dto.title === undefined
          ? undefined
          : freeName(
              dto.title,
              'title',
              build.sheets.filter((sheet) => sheet.id !== id).map((sheet) => sheet.title),
            );
      const change = {
        ...(title !== undefined && { title }),
        ...(dto.note !== undefined && { note: dto.note }),
        ...(dto.shown !== undefined && { shown: dto.shown }),
      };
      await this.store.changeSheet(trx, caller.houseId, id, change);
      return { id, ...change };
    });
  }

  /** Limits a sheet to groups of people, or opens it to everybody again; says who downloads it. */
  limit(caller: Caller, id: string, dto: LimitSheetDto): Promise<{ id: string }> {
    return this.change(caller, 'sheet.limited', async (trx, build) => {
      const { title, downloads: known } = sheetOf(build, id);
      const { limited, downloads = known } = dto;
      const groups = [...new Map(dto.groups.map((one) => [one.groupId, one])).values()];
      if (groups.some(({ groupId }) => !build.groups.some((group) => group.id === groupId))) throw notFound('One of the groups');
      await this.store.limit(trx, caller.houseId, id, { limited, downloads, groups });
      return { id, title, limited, downloads, groups };
    });
  }

  /** Puts a sheet, a list or a field before another of its kind, or last. */
  place(caller: Caller, table: 'sheets' | 'registers' | 'fields', id: string, before: string | undefined): Promise<{ id: string }> {
    return this.change(caller, `${table}.placed`, async (trx, build) => {
      const siblings = siblingsOf(build, table, id);
      if (before !== undefined && !siblings.includes(before)) throw notFound('The place before which it goes');
      const rest = siblings.filter((sibling) => sibling !== id);
      const at = before === undefined || before === id ? rest.length : rest.indexOf(before);
      await this.store.order(trx, table, caller.houseId, [...rest.slice(0, at), id, ...rest.slice(at)]);
      return { id };
    });
  }

  /** A copy of a source sheet with its lists, tables and entries; ranges stay with the first. */
  duplicate(caller: Caller, id: string): Promise<{ id: string }> {
    return this.change(caller, 'sheet.duplicated', async (trx, build) => {
      const sheet = sheetOf(build, id);
      const title = freeAmong(
        sheet.title,
        build.sheets.map((known) => known.title),
      );
      const copy = randomUUID();
      await this.store.addSheet(trx, caller.houseId, { id: copy, kind: sheet.kind, title, note: sheet.note });
      for (const register of [...build.registers.values()].filter(({ sheetId }) => sheetId === id)) {
        const registerId = randomUUID();
        await this.store.addRegister(trx, caller.houseId, {
          id: registerId,
          sheetId: copy,
          title: sheet.kind === 'entry' ? title : register.title,
        });
        await this.store.addFields(
          trx,
          caller.houseId,
          registerId,
          register.fields.map(({ key, heading, kind, width }) => ({ key, heading, kind, width })),
        );
        await this.store.copyEntries(trx, caller.houseId, register.id, registerId);
      }
      return { id: copy, title, of: id };
    });
  }

  remove(caller: Caller, id: string): Promise<{ id: string }> {
    return this.change(caller, 'sheet.deleted', async (trx, build) => {
      const { title } = sheetOf(build, id);
      const registers = [...build.registers.values()].filter((register) => register.sheetId === id);
      mustBeUnused(title, [...new Set(registers.flatMap((register) => usersOf(build, register)))]);
      await this.store.remove(trx, 'sheets', caller.houseId, id);
      return { id, title };
    });
  }

  /** A list: a register of one text field on a source sheet. */
  makeList(caller: Caller, dto: MakeListDto): Promise<{ id: string }> {
    return this.change(caller, 'list.made', async (trx, build) => {
      const sheet = sheetOf(build, dto.sheetId);
      if (sheet.kind !== 'source') throw notFound('This source sheet');
      const lists = [...build.registers.values()].filter((register) => register.sheetId === sheet.id);
      const title = freeName(
        dto.heading,
        'heading',
        lists.map((list) => list.title),
      );
      const id = randomUUID();
      await this.store.addRegister(trx, caller.houseId, { id, sheetId: sheet.id, title });
      await this.store.addFields(trx, caller.houseId, id, [{ key: 'value', heading: title, kind: dto.kind ?? 'text', width: fieldWidth }]);
      return { id, title };
    });
  }

  /** A table: a register of several fields on a source sheet. */
  makeTable(caller: Caller, dto: MakeTableDto): Promise<{ id: string }> {
    return this.change(caller, 'table.made', async (trx, build) => {
      const sheet = sheetOf(build, dto.sheetId);
      if (sheet.kind !== 'source') throw notFound('This source sheet');
      const others = [...build.registers.values()].filter((register) => register.sheetId === sheet.id);
      const title = freeName(
        dto.heading,
        'heading',
        others.map((other) => other.title),
      );
      const id = randomUUID();
      await this.store.addRegister(trx, caller.houseId, { id, sheetId: sheet.id, title });
      await this.store.addFields(
        trx,
        caller.houseId,
        id,
        fittingFields(dto.fields).map((field) => ({ ...field, width: fieldWidth })),
      );
      return { id, title };
    });
  }

  /** Gives a list or table another heading. Where the heading is a value, what holds it is asked about first. */
  retitleList(caller: Caller, id: string, title: string): Promise<Outcome> {
    return this.sources.propose(caller, (_trx, build) => {
      const list = registerNamed(build, id);
      if (!list.source) throw notFound('This list');
      const others = [...build.registers.values()].filter((register) => register.sheetId === list.sheetId && register.id !== id);
      return proposalOf({
        what: 'heading changed',
        registerId: id,
        heading: freeName(
          title,
          'title',
          others.map((other) => other.title),
        ),
      });
    });
  }

  removeList(caller: Caller, id: string): Promise<{ id: string }> {
    return this.change(caller, 'list.deleted', async (trx, build) => {
      const list = registerNamed(build, id);
      mustBeUnused(list.title, usersOf(build, list));
      await this.store.remove(trx, 'registers', caller.houseId, id);
      return { id, title: list.title };
    });
  }

  makeField(caller: Caller, registerId: string, dto: MakeFieldDto): Promise<{ id: string }> {
    return this.change(caller, 'field.made', async (trx, build) => {
      const register = registerNamed(build, registerId);
      const heading = freeName(
        dto.heading,
        'heading',
        register.fields.map((field) => field.heading),
      );
      const key = freeFieldKey(
        heading,
        register.fields.map((field) => field.key),
      );
      const id = randomUUID();
      await this.store.addFields(trx, caller.houseId, registerId, [{ id, key, heading, kind: dto.kind, width: fieldWidth }]);
      return { id, key, heading };
    });
  }

  changeField(caller: Caller, id: string, dto: ChangeFieldDto): Promise<{ id: string }> {
    return this.change(caller, 'field.changed', async (trx, build) => {
      const field = fieldWithId(build, id);
      const others = build.registers.get(field.registerId)!.fields.filter((other) => other.id !== id);
      const heading =
        dto.title === undefined
          ? field.heading
          : freeName(
              dto.title,
              'title',
              others.map((other) => other.heading),
            );
      const group =
        dto.group === undefined || clean(dto.group) === ''
          ? dto.group === undefined
            ? field.group
            : ''
          : freeName(dto.group, 'group', []);
      await this.store.changeField(trx, caller.houseId, id, { heading, grouped: group });
      return { id, heading, group };
    });
  }

  removeField(caller: Caller, id: string): Promise<{ id: string }> {
    return this.change(caller, 'field.deleted', async (trx, build) => {
      const field = fieldWithId(build, id);
      mustBeUnused(field.heading, usersOfField(build, field));
      await this.store.remove(trx, 'fields', caller.houseId, id);
      await this.entries.dropField(trx, { houseId: caller.houseId, registerId: field.registerId }, field.key);
      return { id, heading: field.heading };
    });
  }

  private change<T extends { id: string }>(
    caller: Caller,
    act: string,
    make: (trx: Trx, build: HouseBuild) => Promise<T>,
  ): Promise<{ id: string }> {
    return this.builds.change(caller.houseId, async (trx, build) => {
      const detail = await make(trx, build);
      await this.ledger.write(trx, caller.houseId, [{ personId: caller.id, act, detail: { ...detail } }]);
      return { id: detail.id };
    });
  }
}

function sheetOf(build: HouseBuild, id: string) {
  const sheet = build.sheets.find((known) => known.id === id);
  if (!sheet) throw notFound('This sheet');
  return sheet;
}

function registerNamed(build: HouseBuild, id: string): RegisterBuild {
  const register = build.registers.get(id);
  if (!register) throw notFound('This list');
  return register;
}

/** What stands in the way of a field's going: rules that name it, and what outside its register takes from it. */
function usersOfField(build: HouseBuild, field: FieldBuild): string[] {
  const catalog = build.catalogs.get(catalogIdOf(field.rule) ?? '');
  const rule = catalog ? [`the rule of ${field.heading}, which takes values from ${catalog.title}`] : [];
  const others = build.registers
    .get(field.registerId)!
    .fields.filter((other) => other.id !== field.id && fieldsNamedBy(other.rule).includes(field.key))
    .map(({ heading }) => `the rule of ${heading}, which depends on it`);
  const { closing, title } = build.registers.get(field.registerId)!;
  const closes = closing && closingReads(closing).includes(field.key) ? [`when entries of ${title} are closed`] : [];
  return [...rule, ...others, ...closes, ...takersOf(build, field)];
}

/** What takes values or answers from a field, from outside its register. */
function takersOf(build: HouseBuild, field: FieldBuild): string[] {
  const ranges = build.ranges
    .filter((range) => range.stretches.some((stretch) => stretch.registerId === field.registerId && stretch.fields.includes(field.key)))
    .map(({ name }) => `range ${name}`);
  const along = [...build.catalogs.values()]
    .filter(({ definition }) =>
      definition.parts.some((one) => {
        const part = partAs('range', one);
        return (
          part &&
          (part.label === field.key || part.companions.includes(field.key)) &&
          build.ranges.find(({ id }) => id === part.rangeId)?.stretches[0]?.registerId === field.registerId
        );
      }),
    )
    .map(({ title }) => `catalog ${title}`);
  const forms = build.forms
    .filter((form) => form.registerId === field.registerId && form.fields.includes(field.key))
    .map(({ title }) => `form ${title}`);
  return [...ranges, ...forms, ...new Set([...along, ...queriesOver(build, field.registerId, field.key)])];
}

/** What stands in the way of a whole register's going. The rules of its own fields go with it. */
const usersOf = (build: HouseBuild, register: RegisterBuild): string[] => [
  ...new Set([...register.fields.flatMap((field) => takersOf(build, field)), ...queriesOver(build, register.id)]),
];

/** The ids of what stands beside it, in order. */
function siblingsOf(build: HouseBuild, table: 'sheets' | 'registers' | 'fields', id: string): string[] {
  if (table === 'sheets') {
    const { kind } = sheetOf(build, id);
    return build.sheets.filter((sheet) => sheet.kind === kind).map((sheet) => sheet.id);
  }
  if (table === 'registers') {
    const { sheetId } = registerNamed(build, id);
    return [...build.registers.values()].filter((register) => register.sheetId === sheetId).map((register) => register.id);
  }
  return build.registers.get(fieldWithId(build, id).registerId)!.fields.map((field) => field.id);
}

function mustBeUnused(what: string, users: readonly string[]): void {
  const [one, ...more] = users;
  if (one === undefined) return;
  const named = more.length === 0 ? one : `${users.slice(0, 3).join(', ')}${users.length > 3 ? ` and ${users.length - 3} more` : ''}`;
  throw new ProblemError('in-use', `“${what}” is used by ${named}. Delete or clear ${more.length === 0 ? 'that' : 'these'} first.`, {
    users,
  });
}

/** Headings that no two of them share, each with a key. */
export function fittingFields(
  wanted: readonly { readonly heading: string; readonly kind: FieldKind }[],
): { key: string; heading: string; kind: FieldKind }[] {
  const fields: { key: string; heading: string; kind: FieldKind }[] = [];
  for (const { heading, kind } of wanted) {
    const fitting = freeName(
      heading,
      'fields',
      fields.map((field) => field.heading),
    );
    fields.push({
      key: freeFieldKey(
        fitting,
        fields.map(({ key }) => key),
      ),
      heading: fitting,
      kind,
    });
  }
  return fields;
}
