// Filling a form: what it asks, and storing what was answered exactly once. Judged with authority by the rules of now.
import { Injectable } from '@nestjs/common';
import {
  isNothing,
  carried,
  cellsOfNew,
  conditionsOf,
  judgeForm,
  type Cells,
  type FormLayout,
  type JudgedForm,
  type Rule,
  type Verdict,
} from '@dellum/core';
import { givenOf, type AnswerFault, type Filled, type FillFormDto, type FillView } from '@dellum/contract';
import { StructureService, feedsCatalogs } from '../structure/structure.service.js';
import { enteredRegister } from '../structure/sheetAccess.js';
import type { FieldBuild, HouseBuild, RegisterBuild } from '../structure/structure.store.js';
import { CompiledCatalogsService } from '../compiled/compiled.service.js';
import { Database, holdBuild, lockBuild, type Reader, type Trx } from '../database/database.js';
import { RepeatsService, type HeldElsewhere } from '../entering/repeats.service.js';
import { EntriesStore } from '../entries/entries.store.js';
import { EntryWriterService } from '../entering/entryWriter.service.js';
import { carriesOf, catalogsOf } from '../entries/judging.js';
import { NewValuesService } from '../entering/newValues.service.js';
import { PlacesStore } from '../entries/places.store.js';
import { houseNameOf } from '../houses/houses.service.js';
import { todayOf } from '../structure/days.js';
import type { Caller } from '../access/access.js';
import { notFound, ProblemError } from '../problems/index.js';
import { askedFields, formOf } from './forms.service.js';
import { FormsStore, type Filling, type FormVersion, type LinkRow } from './forms.store.js';

/** Who fills a form: somebody of the house, or whoever has a link. */
export type Filler =
  | { readonly houseId: string; readonly caller: Caller; readonly link?: undefined }
  | { readonly houseId: string; readonly link: LinkRow; readonly caller?: undefined };

const changed = () =>
  new ProblemError(
    'form-changed',
    'The form was changed while you filled it. What you typed is kept: load the form again, look through it and send it once more.',
  );

@Injectable()
export class FillingService {
  constructor(
    private readonly database: Database,
    private readonly builds: StructureService,
    private readonly catalogs: CompiledCatalogsService,
    private readonly repeats: RepeatsService,
    private readonly store: FormsStore,
    private readonly entries: EntriesStore,
    private readonly places: PlacesStore,
    private readonly writing: EntryWriterService,
    private readonly newValues: NewValuesService,
  ) {}

  /** The form as it is filled; an older version by its number. */
  async view(filler: Filler, formId: string, version: number | undefined): Promise<FillView> {
    const db = this.database.kysely;
    const build = await this.builds.now(filler.houseId);
    const { form, register } = openForm(build, formId, filler);
    const { layout, title, version: shown } = await this.versionOf(db, build, formId, version ?? form.published!);
    const fields = askedFields(register, layout).map((field) => ({ ...field, rule: ruleFor(filler, field.rule) }));
    const catalogs = catalogsOf(fields).map((id) => ({ id, title: build.catalogs.get(id)!.title }));
    const looked = new Set([...conditionsOf(layout).values()].flat().flatMap(({ conditions }) => conditions.map(({ field }) => field)));
    const begins = cellsOfNew(
      register.fields.filter(({ key }) => looked.has(key) && !fields.some((field) => field.key === key)),
      undefined,
      todayOf(new Date(), build.locale),
    );
    return {
      formId,
      version: shown,
      title,
      layout,
      fields,
      begins,
      catalogs: [...new Map(catalogs.map((catalog) => [catalog.id, catalog])).values()],
      house: { name: await houseNameOf(db, filler.houseId), locale: build.locale, today: todayOf(new Date(), build.locale) },
    };
  }

  private async versionOf(db: Reader, build: HouseBuild, formId: string, version: number): Promise<FormVersion> {
    const found = await this.store.version(db, build.houseId, formId, version);
    if (!found) throw notFound('This version of the form');
    return found;
  }

  /** Stores the answers as a new entry, unless they were stored before; what is refused is told answer by answer and nothing is stored. */
  async fill(filler: Filler, formId: string, dto: FillFormDto): Promise<Filled> {
    const act = () => this.tryFill(filler, formId, dto);
    return filler.caller ? this.newValues.around(filler.caller, act) : act();
  }

  private async tryFill(filler: Filler, formId: string, dto: FillFormDto): Promise<Filled> {
    const now = await this.builds.now(filler.houseId);
    const feeds = feedsCatalogs(now, formOf(now, formId).registerId);
    return this.database.transaction(async (trx) => {
      await (feeds ? lockBuild : holdBuild)(trx, filler.houseId);
      const build = await this.builds.at(trx, filler.houseId);
      // By a link that is closed nothing is told, not even what came by it.
      if (filler.link) openForm(build, formId, filler);
      const before = await this.store.fillingOf(trx, filler.houseId, formId, dto.submission);
      if (before) return this.stored(trx, build, formId, filler, before);
      const { register } = openForm(build, formId, filler);
      if (filler.link && dto.version < (await this.store.versionWhenMade(trx, filler.link))) throw changed();
      if (feedsCatalogs(build, register.id) !== feeds) throw changed();
      const { layout } = await this.versionOf(trx, build, formId, dto.version);
      if (filler.link && (await this.store.filledWithinHour(trx, filler.link)) >= filler.link.perHour)
        throw new ProblemError(
          'link-limit',
          'Too many entries came by this link within an hour. What you typed is kept; send it again later.',
        );
      // The entry has the id of its submission: a second one could not be stored beside it.
      const claimed = await this.store.claim(trx, filler.houseId, {
        formId,
        submission: dto.submission,
        version: dto.version,
        entryId: dto.submission,
        linkId: filler.link?.id ?? null,
      });
      if (!claimed)
        return this.stored(trx, build, formId, filler, (await this.store.fillingOf(trx, filler.houseId, formId, dto.submission))!);
      const cells = await this.write(trx, build, register, layout, filler, dto);
      return { entryId: dto.submission, again: false, cells: filler.link ? onlyAsked(cells, askedFields(register, layout)) : cells };
    });
  }

  /** What was stored before. Whoever has a link is told what came by it, and of that what the form asks. */
  private async stored(
    trx: Trx,
    build: HouseBuild,
    formId: string,
    filler: Filler,
    { entryId, linkId, version }: Filling,
  ): Promise<Filled> {
    if (filler.link && linkId !== filler.link.id) throw notFound('This submission');
    const register = build.registers.get(formOf(build, formId).registerId)!;
    const entry = (await this.entries.some(trx, { houseId: build.houseId, registerId: register.id }, [entryId])).get(entryId);
    const cells = entry ? carried(entry.cells, carriesOf(build, register)) : {};
    if (!filler.link) return { entryId, again: true, cells };
    const { layout } = await this.versionOf(trx, build, formId, version);
    return { entryId, again: true, cells: onlyAsked(cells, askedFields(register, layout)) };
  }

  private async write(
    trx: Trx,
    build: HouseBuild,
    register: RegisterBuild,
    layout: FormLayout,
    filler: Filler,
    dto: FillFormDto,
  ): Promise<Filled['cells']> {
    const place = { houseId: build.houseId, registerId: register.id };
    await this.places.lockOrder(trx, place);
    const asked = askedFields(register, layout);
    mustBeAsked(layout, asked, dto);
    const judged = await this.judge(trx, build, register, layout, filler, dto);
    const faults = faultsOf(judged);
    if (faults.length > 0)
      throw new ProblemError(
        'form-refused',
        faults.length === 1 ? faults[0]!.message : `${faults.length} answers are not taken. ${faults[0]!.message}`,
        { answers: faults },
      );
    const cells = carried(judged.cells, carriesOf(build, register));
    const judgedCells = [...judged.verdicts].map(([key, verdict]) => ({
      entry: dto.submission,
      field: register.fields.find((field) => field.key === key)!,
      verdict,
      cells,
    }));
    this.newValues.mustAdd(judgedCells);
    const entries = [{ id: dto.submission, cells }];
    if (filler.caller) {
      const waits = await this.writing.add({ trx, build, register }, filler.caller, undefined, entries);
      if (waits)
        throw new ProblemError(
          'slip-open',
          'This entry would change what entries elsewhere hold, so a form cannot store it. What you typed is kept; ask an administrator to enter it on its sheet.',
        );
    } else await this.writing.insert(trx, { id: null, houseId: build.houseId }, register, undefined, entries, 'entry.inserted');
    await this.newValues.keepRequests(trx, { id: filler.caller?.id ?? null, houseId: build.houseId }, register, judgedCells);
    return cells;
  }

  private async judge(
    trx: Trx,
    build: HouseBuild,
    register: RegisterBuild,
    layout: FormLayout,
    filler: Filler,
    dto: FillFormDto,
  ): Promise<JudgedForm> {
    const fields = register.fields.map((field) => ({ ...field, rule: ruleFor(filler, field.rule) }));
    const unasked = fields.filter(({ key }) => !askedFields(register, layout).some((field) => field.key === key));
    const asAbove = unasked.some(({ rule }) => rule?.begins.with === 'above')
      ? await this.entries.above(trx, { houseId: build.houseId, registerId: register.id }, undefined)
      : undefined;
    const today = todayOf(new Date(), build.locale);
    const begins = cellsOfNew(unasked, asAbove && carried(asAbove.cells, carriesOf(build, register)), today);
    const context = {
      locale: build.locale,
      today,
      suggest: true,
      catalogs: await this.catalogs.some(trx, build, catalogsOf(fields)),
      begins,
    };
    const answers = {
      given: Object.fromEntries(dto.answers.map((answer) => [answer.field, givenOf(answer)])),
      confirmed: new Set(dto.answers.filter(({ confirmed }) => confirmed).map(({ field }) => field)),
    };
    const judged = judgeForm(layout, fields, answers, context);
    const heldElsewhere = await this.heldElsewhere(trx, build.houseId, fields, judged);
    return heldElsewhere
      ? judgeForm(layout, fields, answers, {
          ...context,
          repeats: (key, value) =>
            heldElsewhere(
              fields.find((field) => field.key === key)!,
              value,
              '',
            ),
        })
      : judged;
  }

  /** Whether other entries hold values of the fields without repeats. Nobody else can store them until the transaction ends. */
  private async heldElsewhere(
    trx: Trx,
    houseId: string,
    fields: readonly FieldBuild[],
    { cells }: JudgedForm,
  ): Promise<HeldElsewhere | undefined> {
    const wanted = fields.flatMap((field) =>
      field.rule?.noRepeats && cells[field.key] !== undefined ? [{ field, value: cells[field.key]! }] : [],
    );
    return wanted.length === 0 ? undefined : this.repeats.hold(trx, houseId, wanted);
  }
}

/** The form and its register, as far as whoever asks may fill it now. */
/** Whoever has an account fills the forms of the sheets in which they enter data; a link is a way in by itself. */
function openForm(build: HouseBuild, formId: string, { link, caller }: Filler) {
  const form = formOf(build, formId);
  if (caller) enteredRegister(build, form.registerId, caller);
  if (form.published === null)
    throw new ProblemError(
      'form-closed',
      `${form.title} is not open any more. What you typed is kept in this browser; ask whoever gave you the form.`,
    );
  if (link && feedsCatalogs(build, form.registerId))
    throw new ProblemError(
      'form-closed',
      'Only people of the house fill this form by now. What you typed is kept in this browser; ask whoever gave you the link.',
    );
  if (link && (link.closed || link.expires <= new Date()))
    throw new ProblemError(
      'form-closed',
      'This link does not work any more. What you typed is kept in this browser; ask whoever gave it to you for a new one.',
    );
  return { form, register: build.registers.get(form.registerId)! };
}

const onlyAsked = (cells: Cells, asked: readonly FieldBuild[]): Cells =>
  Object.fromEntries(asked.flatMap(({ key }) => (cells[key] === undefined ? [] : [[key, cells[key]]])));

/** Nobody without an account writes into the source of a catalog: what others would add is asked for. */
const ruleFor = ({ link }: Filler, rule: Rule | null): Rule | null =>
  link && rule?.others === 'add' ? { ...rule, others: 'request' } : rule;

function mustBeAsked(layout: FormLayout, asked: readonly FieldBuild[], { answers }: FillFormDto): void {
  for (const answer of answers) {
    const { field } = answer;
    if (asked.some(({ key }) => key === field)) continue;
    const laidOut = layout.sections.some(({ fields }) => fields.some((one) => one.field === field));
    if (laidOut && isNothing(givenOf(answer))) continue;
    if (laidOut) throw changed();
    throw new ProblemError('not-valid', `This form does not ask “${field}”.`, { faults: { [field]: 'This form does not ask it.' } });
  }
}

const faultsOf = ({ verdicts }: JudgedForm): AnswerFault[] =>
  [...verdicts].flatMap(([field, verdict]: [string, Verdict]) =>
    verdict.verdict === 'refused'
      ? [
          {
            field,
            code: verdict.code,
            message: verdict.message,
            suggestions: verdict.suggestions,
            ...(verdict.mayConfirm && { mayConfirm: true }),
          },
        ]
      : [],
  );
