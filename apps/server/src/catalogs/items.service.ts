// Items of a catalog, changed from its page: each change is proposed in the sources and passes through the slip.
import { Injectable } from '@nestjs/common';
import type { AddItemDto, CureParentDto, ItemActDto, ItemDto, KeepItemDto, Outcome } from '@dellum/contract';
import { examineParents, type Proposal } from '@dellum/core';
import type { Caller } from '../access/access.js';
import { notFound } from '../problems/index.js';
import { SourcesService } from '../sources/sources.service.js';
import { CompiledCatalogsService } from '../compiled/compiled.service.js';
import { SourceStatesService } from '../compiled/sourceStates.service.js';
import { keptCatalogOf } from './catalogs.service.js';
import { acting, adding, keepingByHand, namingToo, type CatalogAt } from './itemSteps.js';

@Injectable()
export class ItemsService {
  constructor(
    private readonly sources: SourcesService,
    private readonly sourceStates: SourceStatesService,
    private readonly compiled: CompiledCatalogsService,
  ) {}

  add(caller: Caller, id: string, dto: AddItemDto): Promise<Outcome> {
    return this.propose(caller, id, (catalog) => adding(catalog, dto));
  }

  act(caller: Caller, id: string, dto: ItemActDto): Promise<Outcome> {
    return this.propose(caller, id, (catalog) => acting(catalog, dto));
  }

  keep(caller: Caller, id: string, dto: KeepItemDto): Promise<Outcome> {
    return this.propose(caller, id, (catalog) => keepingByHand(catalog, dto));
  }

  /** One more name of an item. */
  nameToo(caller: Caller, id: string, item: ItemDto, name: string): Promise<Outcome> {
    return this.propose(caller, id, (catalog) => namingToo(catalog, item, name));
  }

  /** Writes a parent right that almost matches. It is found anew; what is not there any more mends nothing. */
  cureParent(caller: Caller, id: string, dto: CureParentDto): Promise<Outcome> {
    return this.propose(caller, id, ({ sourceState }) => {
      const finding = examineParents(id, sourceState).find(({ words }) => words === dto.words);
      if (!finding) throw notFound('This finding');
      return finding.cure.proposal;
    });
  }

  private propose(caller: Caller, id: string, make: (catalog: CatalogAt) => Proposal): Promise<Outcome> {
    return this.sources.propose(caller, async (trx, build) => {
      const { title } = keptCatalogOf(build, id, caller);
      const { catalog } = await this.compiled.get(trx, build, id);
      return make({ id, title, compiled: catalog, sourceState: await this.sourceStates.read(trx, build, { catalogs: [id] }) });
    });
  }
}
