// The second factor: set up, asked for, used up, lost, required. The stand-in for the app reckons codes as RFC 6238 says, without the
// server's library.
import type { FactorView, Me, NewFactor, Person, Problem, RecoveryCodes } from '@dellum/contract';
import { sql } from 'kysely';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { stepOf } from '../src/people/factorCodes.js';
import { codeAt } from '../../../stand-ins/authenticator.mjs';
import { openHouse, startServer, Visitor, type House, type Running } from './house.js';

const password = 'correct-horse-1';
let running: Running;
let house: House;
beforeAll(async () => {
  running = await startServer();
});
beforeEach(async () => {
  house = await openHouse(running, []);
});
afterAll(() => running.close());

const now = () => Date.now() / 1000;

const signIn = (role: string, code?: string) =>
  new Visitor(running.base).call<Problem | null>('POST', '/session', {
    house: house.key,
    signIn: role,
    password,
    ...(code !== undefined && { code }),
  });
const codeOf = (answer: { body: Problem | null; status: number }) => answer.body?.code ?? answer.status;

/** Sets it up for a role; returns the secret and the codes on paper. */
async function setUp(visitor: Visitor): Promise<{ secret: string; codes: readonly string[] }> {
  const begun = await visitor.call<NewFactor>('POST', '/session/factor/begin', { password });
  expect(begun.status).toBe(200);
  const { secret } = begun.body;
  // The step before this one, so that the one of now is not used up.
  const confirmed = await visitor.call<RecoveryCodes>('POST', '/session/factor', { code: codeAt(secret, now() - 30) });
  expect(confirmed.status).toBe(200);
  return { secret, codes: confirmed.body.codes };
}

describe('the codes', () => {
  it('are those of RFC 6238, appendix B, and of the step before and after', () => {
    const secret = 'GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ';
    // The last six digits of the vectors for SHA-1.
    for (const [seconds, code] of [
      [59, '287082'],
      [1111111109, '081804'],
      [1234567890, '005924'],
      [2000000000, '279037'],
    ] as const) {
      expect(codeAt(secret, seconds)).toBe(code);
      for (const away of [-30, 0, 30])
        expect(stepOf(secret, ` ${code.slice(0, 3)} ${code.slice(3)}`, (seconds + away) * 1000)).toBe(Math.floor(seconds / 30));
      for (const away of [-90, 90]) expect(stepOf(secret, code, (seconds + away) * 1000)).toBeUndefined();
    }
    for (const wrong of ['', '12345', '1234567', 'abcdef', '２８７０８２']) expect(stepOf(secret, wrong, 59_000)).toBeUndefined();
  });
});

describe('a second factor', () => {
  it('is set up with the password and a first code, and asked for from then on; each code is taken once', async () => {
    const elsewhere = new Visitor(running.base, { house: house.key, role: 'clerk' });
    await elsewhere.get('/session');
    expect(codeOf(await house.clerk.call<Problem>('POST', '/session/factor/begin', { password: 'wrong-horse-1' }))).toBe('not-valid');
    expect(codeOf(await house.clerk.call<Problem>('POST', '/session/factor', { code: '123456' }))).toBe('not-valid');
    const { secret, codes } = await setUp(house.clerk);
    expect(await house.clerk.get<FactorView>('/session/factor')).toMatchObject({
      since: expect.any(String),
      codesLeft: 10,
      required: false,
    });
    // Whoever was signed in elsewhere is not any more.
    expect((await elsewhere.call('GET', '/session', undefined)).status).toBe(401);
    expect((await house.administrator.get<Person[]>('/people')).map(({ role, factor }) => [role, factor])).toContainEqual(['clerk', true]);

    expect(codeOf(await signIn('clerk'))).toBe('second-factor');
    expect(codeOf(await signIn('clerk', '000000'))).toBe('second-factor');
    const code = codeAt(secret, now());
    const both = await Promise.all([signIn('clerk', code), signIn('clerk', code)]);
    expect(both.map(codeOf).sort()).toEqual([204, 'second-factor']);
    expect(codeOf(await signIn('clerk', codeAt(secret, now() - 30)))).toBe('second-factor');
    // On paper: once each, however it is typed.
    expect(codeOf(await signIn('clerk', ` ${codes[0]!.toLowerCase().replace('-', ' ')}`))).toBe(204);
    expect(codeOf(await signIn('clerk', codes[0]))).toBe('second-factor');
    expect((await house.clerk.get<FactorView>('/session/factor')).codesLeft).toBe(9);
    // Nobody else's code helps.
    await setUp(house.steward);
    expect(codeOf(await signIn('steward', codes[1]))).toBe('second-factor');
  });

  it('is not guessed: wrong codes count as wrong tries', async () => {
    const { secret } = await setUp(house.clerk);
    const found = new Set<unknown>();
    for (let tried = 0; tried < 10; tried++) found.add(codeOf(await signIn('clerk', '000000')));
    expect([...found]).toEqual(['second-factor', 'too-many-tries']);
    expect(codeOf(await signIn('clerk', codeAt(secret, now())))).toBe('too-many-tries');
  });

  it('is renewed and given up with the password; an administrator takes it from whoever has lost it', async () => {
    const { codes } = await setUp(house.clerk);
    const renewed = await house.clerk.call<RecoveryCodes>('POST', '/session/factor/codes', { password });
    expect(codeOf(await signIn('clerk', codes[0]))).toBe('second-factor');
    expect(codeOf(await signIn('clerk', renewed.body.codes[0]))).toBe(204);
    expect((await house.clerk.call('POST', '/session/factor/given-up', { password: 'wrong-horse-1' })).status).toBe(422);
    expect((await house.clerk.call('POST', '/session/factor/given-up', { password })).status).toBe(204);
    expect(codeOf(await signIn('clerk'))).toBe(204);

    await setUp(house.clerk);
    const { id } = await house.clerk.get<Me>('/session');
    expect((await house.clerk.call('DELETE', `/people/${id}/factor`)).status).toBe(403);
    expect((await house.administrator.call('DELETE', `/people/${id}/factor`)).status).toBe(204);
    expect((await house.clerk.call('GET', '/session')).status).toBe(401);
    expect(codeOf(await signIn('clerk'))).toBe(204);
    const { rows } = await sql<{
      act: string;
    }>`select act from ledger where house_id = ${house.id} and act like 'person.%' order by id`.execute(running.database.kysely);
    expect(rows.map(({ act }) => act)).toEqual([
      'person.factor-set',
      'person.codes-renewed',
      'person.factor-dropped',
      'person.factor-set',
      'person.factor-reset',
    ]);
  });

  it('that a role needs is set up before anything else, and not given up', async () => {
    expect((await house.clerk.call('PUT', '/people/factor', { roles: [] })).status).toBe(403);
    expect((await house.administrator.call('PUT', '/people/factor', { roles: ['nobody'] })).status).toBe(422);
    const stream = await fetch(`${running.base}/api/v1/live`, { headers: { cookie: await house.clerk.signedIn() } });
    expect((await house.administrator.call('PUT', '/people/factor', { roles: ['clerk'] })).status).toBe(204);
    // Who hears of the house is let go of, too: the stream comes to its end.
    expect(await stream.text()).toContain('event: ready');
    expect(await house.administrator.get('/people/factor')).toEqual({ roles: ['clerk'] });
    for (const [method, path] of [
      ['GET', '/build'],
      ['GET', `/registers/${house.visits.id}/entries`],
      ['POST', `/registers/${house.visits.id}/entries`],
      ['GET', '/live'],
      ['PUT', '/session/password'],
    ] as const)
      expect([path, (await house.clerk.call<Problem>(method, path, method === 'GET' ? undefined : {})).body.code]).toEqual([
        path,
        'factor-needed',
      ]);
    expect(await house.clerk.get<Me>('/session')).toMatchObject({ needsFactor: true });
    expect(await house.reader.get<Me>('/session')).not.toHaveProperty('needsFactor');
    await setUp(house.clerk);
    expect((await house.clerk.call('GET', '/build')).status).toBe(200);
    expect(await house.clerk.get<Me>('/session')).not.toHaveProperty('needsFactor');
    expect((await house.clerk.call<Problem>('POST', '/session/factor/given-up', { password })).body.code).toBe('not-allowed');
  });
});
