// Access tokens: made by an administrator for one program, told once, ended at once.
import { createHash, randomBytes, randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { isUUID } from 'class-validator';
import type { AccessTokenDto, AccessTokenView, MadeToken } from '@dellum/contract';
import type { Caller } from '../access/access.js';
import { Database } from '../database/database.js';
import { LedgerStore } from '../ledger/ledger.store.js';
import { freeName, notFound, ProblemError } from '../problems/index.js';
import { todayOf } from '../structure/days.js';
import { StructureService, feedsCatalogs } from '../structure/structure.service.js';
import { AccessTokensStore } from './accessTokens.store.js';
import { mustBeThere } from './chosen.js';
import type { Program } from './program.js';

const hashOf = (secret: string) => createHash('sha256').update(secret).digest();
/** So many requests in a minute are answered to one token. */
const mostAsked = 600;

@Injectable()
export class AccessTokensService {
  constructor(
    private readonly database: Database,
    private readonly builds: StructureService,
    private readonly store: AccessTokensStore,
    private readonly ledger: LedgerStore,
  ) {}

  async list(caller: Caller): Promise<AccessTokenView[]> {
    const today = await this.today(caller.houseId);
    const rows = await this.store.all(this.database.kysely, caller.houseId);
    return rows.map(({ ended, ...row }) => ({ ...row, over: ended || row.until < today }));
  }

  private async today(houseId: string): Promise<string> {
    return todayOf(new Date(), (await this.builds.now(houseId)).locale);
  }

  /** The token is told once and kept nowhere. */
  make(caller: Caller, dto: AccessTokenDto): Promise<MadeToken> {
    return this.database.transaction(async (trx) => {
      const build = await this.builds.at(trx, caller.houseId);
      const fault = (input: keyof AccessTokenDto, words: string) => new ProblemError('not-valid', words, { faults: { [input]: words } });
      if (dto.until < todayOf(new Date(), build.locale)) throw fault('until', 'This day is over. Choose a later one.');
      mustBeThere(build, dto);
      for (const id of dto.registers)
        if (dto.writes && feedsCatalogs(build, id))
          throw fault(
            'registers',
            `${build.registers.get(id)!.title} feeds catalogs, so programs cannot enter data in it. Leave it out, or let the program read only.`,
          );
      const standing = (await this.store.all(trx, caller.houseId)).filter(({ ended }) => !ended);
      const name = freeName(
        dto.name,
        'name',
        standing.map((token) => token.name),
      );
      const id = randomUUID();
      const secret = randomBytes(32).toString('base64url');
      await this.store.add(trx, caller.houseId, { ...dto, id, name, hash: hashOf(secret), madeBy: caller.id });
      await this.ledger.write(trx, caller.houseId, [
        { personId: caller.id, act: 'token.made', detail: { id, name, writes: dto.writes, until: dto.until } },
      ]);
      return { id, token: `${caller.houseId}.${secret}` };
    });
  }

  end(caller: Caller, id: string): Promise<void> {
    return this.database.transaction(async (trx) => {
      const name = await this.store.end(trx, caller.houseId, id);
      if (name === undefined) throw notFound('This token, or it was ended before');
      await this.ledger.write(trx, caller.houseId, [{ personId: caller.id, act: 'token.ended', detail: { id, name } }]);
    });
  }

  /** The program that a token stands for; counts the request. */
  async programOf(token: string | undefined): Promise<Program> {
    const [houseId, secret] = token?.split('.') ?? [];
    const known = houseId && secret && isUUID(houseId) ? await this.store.use(this.database.kysely, houseId, hashOf(secret)) : undefined;
    if (!known || !houseId || known.until < (await this.today(houseId)))
      throw new ProblemError(
        'no-token',
        'Send a good access token as “Authorization: Bearer …”. An administrator of the house makes them.',
      );
    if (known.asked > mostAsked)
      throw new ProblemError(
        'too-many-requests',
        `This token was used more than ${mostAsked} times within a minute. Ask again in a minute.`,
      );
    const { id, name, writes, catalogs, registers } = known;
    return { tokenId: id, houseId, name, writes, catalogs: new Set(catalogs), registers: new Set(registers) };
  }
}
