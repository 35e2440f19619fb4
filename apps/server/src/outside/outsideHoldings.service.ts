// What is outside in some fields of a register, as rows hold it: computed from the distinct values, never stored.
import { Injectable } from '@nestjs/common';
import { canBeOutside, readsOf } from '@dellum/core';
import type { FieldBuild, HouseBuild, RegisterBuild } from '../structure/structure.store.js';
import { OutsideService } from './outside.service.js';
import type { Reader } from '../database/database.js';
import type { HoldsOneOf } from '../entries/holds.js';
import { carriesOf } from '../entries/judging.js';

@Injectable()
export class OutsideHoldingsService {
  constructor(private readonly outside: OutsideService) {}

  async of(db: Reader, build: HouseBuild, register: RegisterBuild, some: readonly FieldBuild[]): Promise<HoldsOneOf> {
    const fields = some.filter(canBeOutside);
    const found = await this.outside.of(db, build, fields);
    const carries = carriesOf(build, register);
    return fields.map((field) => {
      const { outside } = found.get(field.id)!;
      const keys = [field.key, ...readsOf(field.rule)];
      const alone = keys.length === 1;
      // Counts know a value by its new spelling at once; rows that a correction has not reached yet still hold the old one.
      const notReached = alone
        ? carries
            .filter((carry) => carry.field === field.key && outside.some(({ cells }) => cells[field.key] === carry.to))
            .map(({ from }) => ({ [field.key]: from }))
        : [];
      return {
        keys,
        holdings: [...outside.map(({ cells }) => cells), ...notReached].map((cells) => keys.map((key) => cells[key] ?? null)),
      };
    });
  }
}
