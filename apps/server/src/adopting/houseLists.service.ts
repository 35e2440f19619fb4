// The catalogs of a house, as proposals compare files with them.
import { Injectable } from '@nestjs/common';
import { houseList, type HouseList } from '@dellum/core';
import { CompiledCatalogsService } from '../compiled/compiled.service.js';
import type { Reader } from '../database/database.js';
import type { HouseBuild } from '../structure/structure.store.js';

/** Longer lists are not compared, nor more values together: a proposal is computed anew with each change by hand. */
const mostValues = 5_000;
const mostTogether = 30_000;

@Injectable()
export class HouseListsService {
  constructor(private readonly compiled: CompiledCatalogsService) {}

  async of(db: Reader, build: HouseBuild): Promise<HouseList[]> {
    const catalogs = await this.compiled.some(db, build, [...build.catalogs.keys()]);
    let together = 0;
    return [...catalogs.values()].flatMap(({ id, title, all }) => {
      if (all.length === 0 || all.length > mostValues || together + all.length > mostTogether) return [];
      together += all.length;
      return [houseList({ id, title }, all)];
    });
  }
}
