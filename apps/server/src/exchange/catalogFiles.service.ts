// The values of a catalog as a file, for whoever keeps them.
import { Injectable } from '@nestjs/common';
import { isOffered } from '@dellum/core';
import type { CatalogFileDto } from '@dellum/contract';
import type { Caller } from '../access/access.js';
import { keptCatalogOf } from '../catalogs/catalogs.service.js';
import { CompiledCatalogsService } from '../compiled/compiled.service.js';
import { Database } from '../database/database.js';
import { LedgerStore } from '../ledger/ledger.store.js';
import { todayOf } from '../structure/days.js';
import { StructureService } from '../structure/structure.service.js';
import { aboutValues, valueFormats } from './valueFormats.js';

@Injectable()
export class CatalogFilesService {
  constructor(
    private readonly database: Database,
    private readonly builds: StructureService,
    private readonly catalogs: CompiledCatalogsService,
    private readonly ledger: LedgerStore,
  ) {}

  async write(caller: Caller, id: string, { format, all, guarded }: CatalogFileDto): Promise<{ title: string; text: string }> {
    const build = await this.builds.now(caller.houseId);
    const catalog = keptCatalogOf(build, id, caller);
    const { items } = await this.catalogs.get(this.database.kysely, build, id);
    const today = todayOf(new Date(), build.locale);
    const own = all === 'true' ? items : items.filter((item) => isOffered(item, today));
    const { key } = await this.database.kysely
      .selectFrom('houses')
      .select('key')
      .where('id', '=', caller.houseId)
      .executeTakeFirstOrThrow();
    const about = aboutValues(catalog, items, { houseKey: key, language: build.locale.language });
    const text = await valueFormats[format].write(own, { ...about, guarded: guarded === 'true' });
    await this.database.transaction((trx) =>
      this.ledger.write(trx, caller.houseId, [
        { personId: caller.id, act: 'catalog.downloaded', detail: { catalogId: id, title: catalog.title, format, values: own.length } },
      ]),
    );
    return { title: catalog.title, text };
  }
}
