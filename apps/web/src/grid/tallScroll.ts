// A grid of a million rows is higher than some browsers draw anything (one ends at 17,900,000 pixels). Above a height that all of them draw
// the box scrolls in fewer pixels than its rows have: the scrollbar reaches from the first to the last, the wheel moves as everywhere.

/** Pixels that every browser draws. */
export const mostPixels = 8_000_000;
/** What a line is that a wheel moves by, in pixels. */
const line = 40;
/** So long after the last movement nobody is scrolling any more; milliseconds. */
const restsAfter = 150;

type Tell = (offset: number, isScrolling: boolean) => void;

/** Where a box stands that shows so many pixels of rows: in the pixels of its rows, and in those that it is scrolled by. */
export class TallScroll {
  /** The pixels of the rows that are scrolled past. */
  offset = 0;
  /** Where the box was scrolled to, as the browser has it. */
  private real = 0;
  private told: Tell | undefined;
  /** The pixels of all rows. */
  total = 0;

  constructor(
    private readonly box: () => HTMLElement | null,
    private readonly rowHeight: number,
  ) {}

  get isTall(): boolean {
    return this.total > mostPixels;
  }

  /** How many pixels rows stand below where they would be drawn if all were. */
  get shift(): number {
    return this.isTall ? this.offset - this.real : 0;
  }

  /** Pixels of rows for each that the box scrolls. */
  private get factor(): number {
    const box = this.box();
    const most = box ? box.scrollHeight - box.clientHeight : 0;
    return this.isTall && most > 0 ? (most + this.total - mostPixels) / most : 1;
  }

  /** Scrolls the rows to where so many pixels of them are past. */
  readonly to = (offset: number): void => {
    const box = this.box();
    if (!box) return;
    const { factor } = this;
    this.offset = Math.max(0, Math.min(offset, (box.scrollHeight - box.clientHeight) * factor));
    box.scrollTop = this.offset / factor;
    this.real = box.scrollTop;
    this.told?.(this.offset, false);
  };

  /** Scrolls so that a row is seen as a whole, below headings that stand; not at all where it is. */
  reveal(row: number, headings: number): void {
    const box = this.box();
    if (!box) return;
    // It may have been scrolled in this very moment, and tells of it only later.
    if (!this.isTall) this.offset = box.scrollTop;
    const top = row * this.rowHeight;
    const seen = box.clientHeight - headings - this.rowHeight;
    if (top < this.offset) this.to(top);
    else if (top > this.offset + seen) this.to(top - seen);
  }

  /** Tells where the box stands from now on, whoever scrolls it; returns how to stop. */
  readonly observe = (tell: Tell): (() => void) => {
    const box = this.box();
    this.told = tell;
    if (!box) return () => undefined;
    let resting: number | undefined;
    const scrolled = () => {
      // What it was scrolled to from here is known to the pixel of the rows already.
      if (box.scrollTop !== this.real || !this.isTall) this.offset = box.scrollTop * this.factor;
      this.real = box.scrollTop;
      window.clearTimeout(resting);
      resting = window.setTimeout(() => tell(this.offset, false), restsAfter);
      tell(this.offset, true);
    };
    const wheel = (event: WheelEvent) => {
      if (!this.isTall || event.ctrlKey || event.shiftKey || event.deltaY === 0) return;
      event.preventDefault();
      const unit =
        event.deltaMode === WheelEvent.DOM_DELTA_PIXEL ? 1 : event.deltaMode === WheelEvent.DOM_DELTA_LINE ? line : box.clientHeight;
      box.scrollLeft += event.deltaX * unit;
      this.to(this.offset + event.deltaY * unit);
    };
    box.addEventListener('scroll', scrolled, { passive: true });
    box.addEventListener('wheel', wheel, { passive: false });
    return () => {
      window.clearTimeout(resting);
      this.told = undefined;
      box.removeEventListener('scroll', scrolled);
      box.removeEventListener('wheel', wheel);
    };
  };
}
