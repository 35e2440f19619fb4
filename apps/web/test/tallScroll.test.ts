// A grid higher than browsers draw: from whatever was done to it, each row can be reached, and none stands elsewhere than where it is scrolled to.
import fc from 'fast-check';
import { afterAll, beforeAll, expect, it, vi } from 'vitest';
import { mostPixels, TallScroll } from '../src/grid/tallScroll.js';

const rowHeight = 30;
const headings = 46;
const seen = 600;

/** A box as browsers have it: it scrolls within what it holds, and takes no more than two digits after the point. */
class Box extends EventTarget {
  clientHeight = seen;
  scrollLeft = 0;
  private top = 0;
  constructor(readonly scrollHeight: number) {
    super();
  }
  get scrollTop(): number {
    return this.top;
  }
  set scrollTop(wanted: number) {
    const most = Math.max(0, this.scrollHeight - this.clientHeight);
    this.top = Math.round(Math.max(0, Math.min(wanted, most)) * 64) / 64;
  }
  /** By the scrollbar, as a share of all. */
  drag(share: number): void {
    this.scrollTop = share * (this.scrollHeight - this.clientHeight);
    this.dispatchEvent(new Event('scroll'));
  }
  wheel(deltaY: number): void {
    this.dispatchEvent(
      Object.assign(new Event('wheel', { cancelable: true }), { deltaY, deltaX: 0, deltaMode: 0, ctrlKey: false, shiftKey: false }),
    );
    this.dispatchEvent(new Event('scroll'));
  }
}

beforeAll(() => {
  vi.stubGlobal('window', globalThis);
  vi.stubGlobal('WheelEvent', { DOM_DELTA_PIXEL: 0, DOM_DELTA_LINE: 1 });
});
afterAll(() => vi.unstubAllGlobals());

function opened(rows: number) {
  const total = rows * rowHeight;
  const box = new Box(headings + Math.min(total, mostPixels));
  const tall = new TallScroll(() => box as unknown as HTMLElement, rowHeight);
  tall.total = total;
  const stop = tall.observe(() => undefined);
  /** Where a row is drawn in the box, from its upper edge. */
  const drawn = (row: number) => headings + row * rowHeight - tall.shift - box.scrollTop;
  return { box, tall, total, drawn, stop };
}

const rows = fc.oneof(fc.integer({ min: 100, max: 5_000 }), fc.integer({ min: Math.ceil(mostPixels / rowHeight), max: 3_000_000 }));
const done = fc.oneof(
  fc.record({ what: fc.constant('drag' as const), share: fc.double({ min: 0, max: 1, noNaN: true }) }),
  fc.record({ what: fc.constant('wheel' as const), by: fc.integer({ min: -3_000, max: 3_000 }) }),
  fc.record({ what: fc.constant('reveal' as const), share: fc.double({ min: 0, max: 1, noNaN: true }) }),
);

it('shows the first row at the upper end of the scrollbar and the last at its lower end', () =>
  fc.assert(
    fc.property(rows, (count) => {
      const { box, drawn, stop } = opened(count);
      box.drag(1);
      expect(drawn(count - 1) + rowHeight).toBeCloseTo(seen, 0);
      box.drag(0);
      expect(drawn(0)).toBeCloseTo(headings, 0);
      stop();
    }),
  ));

it('reveals whichever row is wanted, and moves by what the wheel says wherever it stands', () =>
  fc.assert(
    fc.property(rows, fc.array(done, { maxLength: 20 }), (count, all) => {
      const { box, tall, total, drawn, stop } = opened(count);
      for (const one of all) {
        if (one.what === 'drag') box.drag(one.share);
        if (one.what === 'reveal') {
          const row = Math.floor(one.share * (count - 1));
          tall.reveal(row, headings);
          box.dispatchEvent(new Event('scroll'));
          expect(drawn(row)).toBeGreaterThan(headings - 1);
          expect(drawn(row) + rowHeight).toBeLessThan(seen + 1);
        }
        if (one.what === 'wheel' && tall.isTall) {
          const [before, most] = [tall.offset, total - seen + headings];
          box.wheel(one.by);
          expect(tall.offset).toBeCloseTo(Math.max(0, Math.min(before + one.by, most)), 0);
        }
        expect(tall.offset).toBeCloseTo(box.scrollTop + tall.shift, 3);
      }
      stop();
    }),
  ));
