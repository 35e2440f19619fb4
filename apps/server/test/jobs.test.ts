// Jobs that are taken up again while a server still works on them.
import { describe, expect, it } from 'vitest';
import { UnderWay } from '../src/jobs/underWay.js';

describe('a job whose lease ran out under a server that lives', () => {
  it('is not begun beside itself: whoever takes it up again waits for what was begun', async () => {
    const underWay = new UnderWay();
    const ends: (() => void)[] = [];
    const work = () => new Promise<void>((end) => ends.push(end));
    const [first, again, other] = [underWay.join('a', work), underWay.join('a', work), underWay.join('b', work)];
    expect(ends).toHaveLength(2);
    ends.forEach((end) => end());
    await Promise.all([first, again, other]);
    const anew = underWay.join('a', work);
    expect(ends).toHaveLength(3);
    ends[2]!();
    await anew;
  });

  it('fails for all who wait, and is begun anew after', async () => {
    const underWay = new UnderWay();
    let tries = 0;
    const work = async () => {
      await Promise.resolve();
      if (++tries === 1) throw new Error('no');
    };
    const both = await Promise.allSettled([underWay.join('a', work), underWay.join('a', work)]);
    expect(both.map(({ status }) => status)).toEqual(['rejected', 'rejected']);
    await underWay.join('a', work);
    expect(tries).toBe(2);
  });
});
