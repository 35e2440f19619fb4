// Filling a form by a link. Whoever has the link sees the form and the values that it offers, and can add entries.
import { Injectable } from '@nestjs/common';
import { catalogIdOf, ruleAs } from '@dellum/core';
import type { Filled, FillFormDto, FillView, PackedCatalog } from '@dellum/contract';
import { StructureService } from '../structure/structure.service.js';
import { CompiledCatalogsService } from '../compiled/compiled.service.js';
import { Database } from '../database/database.js';
import { TriesStore } from '../people/tries.store.js';
import { notFound, ProblemError } from '../problems/index.js';
import { FillingService, type Filler } from './filling.service.js';
import { FormsStore, type LinkRow } from './forms.store.js';
import { openList } from './openList.js';

/** So many tries beyond those that are stored are looked at in a quarter of an hour. */
const refusedToo = 60;

@Injectable()
export class OpenFillingService {
  constructor(
    private readonly database: Database,
    private readonly builds: StructureService,
    private readonly catalogs: CompiledCatalogsService,
    private readonly store: FormsStore,
    private readonly filling: FillingService,
    private readonly tries: TriesStore,
  ) {}

  private async fillerOf(token: string): Promise<Filler & { readonly link: LinkRow }> {
    const link = await this.store.link(this.database.kysely, token);
    if (!link) throw notFound('This link');
    return { houseId: link.houseId, link };
  }

  async view(token: string): Promise<FillView> {
    const filler = await this.fillerOf(token);
    const view = await this.filling.view(filler, filler.link.formId, undefined);
    const asked = new Set(view.fields.map(({ key }) => key));
    // What a rule would write into fields that the form does not ask is done by the server and shown to nobody.
    return {
      ...view,
      fields: view.fields.map((field) => {
        const rule = ruleAs('catalog', field.rule);
        return rule ? { ...field, rule: { ...rule, brings: rule.brings.filter((one) => asked.has(one.field)) } } : field;
      }),
    };
  }

  async catalog(token: string, id: string): Promise<PackedCatalog> {
    const filler = await this.fillerOf(token);
    const { fields } = await this.view(token);
    const rules = fields.flatMap(({ rule }) => (catalogIdOf(rule) === id ? (ruleAs('catalog', rule) ?? []) : []));
    if (rules.length === 0) throw notFound('This list');
    const build = await this.builds.now(filler.houseId);
    const { title, version } = build.catalogs.get(id)!;
    return { id, title, version, ...openList(await this.catalogs.get(this.database.kysely, build, id), rules) };
  }

  async fill(token: string, dto: FillFormDto): Promise<Filled> {
    const filler = await this.fillerOf(token);
    // Tries that are refused count, too: nobody finds out by trying on what is taken and what is held already.
    if (!(await this.tries.mayTry(filler.houseId, `link ${filler.link.id}`, `link ${filler.link.id}`, filler.link.perHour + refusedToo)))
      throw new ProblemError(
        'link-limit',
        'Too much came by this link within a quarter of an hour. What you typed is kept; send it again later.',
      );
    return this.filling.fill(filler, filler.link.formId, dto);
  }
}
