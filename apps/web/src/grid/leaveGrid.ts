// F6 leaves the grid: the focus goes to the next (or previous) thing on the page that can be worked with.

const workable = 'a[href], button:not([disabled]), input:not([disabled]), select:not([disabled]), textarea:not([disabled]), [tabindex="0"]';

/** The grid that was left last: F6 goes back to it. */
let lastLeft: HTMLElement | undefined;

/** The cell to which F6 leads from outside: in the grid that was left, or in the first on the page. */
export function cellToComeBackTo(): HTMLElement | undefined {
  const grid = lastLeft?.isConnected ? lastLeft : document.querySelector<HTMLElement>('[role=grid]');
  return grid?.querySelector<HTMLElement>('[role=gridcell][tabindex="0"]') ?? undefined;
}

/** Notes in which grid one is. */
export function isIn(grid: HTMLElement): void {
  lastLeft = grid;
}

export function leaveGrid(grid: HTMLElement, back: boolean): void {
  const all = [...document.querySelectorAll<HTMLElement>(workable)].filter(
    (element) => !grid.contains(element) && element.offsetParent !== null,
  );
  const side = back ? Node.DOCUMENT_POSITION_PRECEDING : Node.DOCUMENT_POSITION_FOLLOWING;
  const there = all.filter((element) => (grid.compareDocumentPosition(element) & side) !== 0);
  (back ? there.at(-1) : (there[0] ?? all[0]))?.focus();
}
