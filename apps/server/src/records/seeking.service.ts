// What is looked for among the entries of a register: words, conditions and an order, as a statement takes them.
import { Injectable } from '@nestjs/common';
import { catalogIdOf, matchKey, type Catalog } from '@dellum/core';
import type { SoughtDto } from '@dellum/contract';
import type { RawBuilder } from 'kysely';
import type { arrangedSql } from '../arrangements/arrangedSql.js';
import { ArrangementsService, readWanted } from '../arrangements/arrangements.service.js';
import { CompiledCatalogsService } from '../compiled/compiled.service.js';
import type { Reader } from '../database/database.js';
import { catalogsOf } from '../entries/judging.js';
import { ProblemError } from '../problems/index.js';
import type { FieldBuild, HouseBuild, RegisterBuild } from '../structure/structure.store.js';
import { RecordsStore, type Sought } from './records.store.js';

const mostWords = 20;

@Injectable()
export class SeekingService {
  constructor(
    private readonly arrangements: ArrangementsService,
    private readonly catalogs: CompiledCatalogsService,
    private readonly store: RecordsStore,
  ) {}

  async of(
    db: Reader,
    build: HouseBuild,
    register: RegisterBuild,
    dto: SoughtDto,
  ): Promise<{ sought: Sought[]; arranged: ReturnType<typeof arrangedSql> }> {
    const { search = '' } = dto;
    const arranged = await this.arrangements.sqlOf(db, build, register, readWanted(dto, register));
    if (wordsOf(search).length > mostWords)
      throw new ProblemError('not-valid', `Look for at most ${mostWords} words at once.`, {
        faults: { search: 'These are too many words.' },
      });
    return { sought: soughtIn(register, await this.catalogs.some(db, build, catalogsOf(register.fields)), search), arranged };
  }

  /** The ids of all that is found, in order: an expression for a statement, so that they need not leave the database. */
  async allIds(db: Reader, build: HouseBuild, register: RegisterBuild, dto: SoughtDto): Promise<RawBuilder<string[]>> {
    const { sought, arranged } = await this.of(db, build, register, dto);
    return this.store.allIds({ houseId: build.houseId, registerId: register.id }, sought, arranged);
  }
}

const wordsOf = (search: string): string[] => search.split(/\s+/u).filter((word) => word !== '');

/** The words of a search, each with the values whose label contains it. */
function soughtIn({ fields }: RegisterBuild, catalogs: ReadonlyMap<string, Catalog>, search: string): Sought[] {
  return wordsOf(search).map((word) => ({ word, labelled: fields.flatMap((field) => labelledBy(field, catalogs, matchKey(word))) }));
}

function labelledBy(field: FieldBuild, catalogs: ReadonlyMap<string, Catalog>, key: string): Sought['labelled'] {
  const catalog = catalogs.get(catalogIdOf(field.rule) ?? '');
  const values =
    catalog?.all.filter(({ label, value }) => label !== value && matchKey(label).includes(key)).map(({ value }) => value) ?? [];
  return values.length === 0 ? [] : [{ key: field.key, values }];
}
