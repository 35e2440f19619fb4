// Door of the grid.
export { Grid } from './Grid.js';
export { useLeftBehind } from './useLeftBehind.js';
export { cellToComeBackTo } from './leaveGrid.js';
export { fromBoth, fromClipboard, toClipboard, toHtml } from './clipboard.js';
export {
  blockOf,
  isSingle,
  type Block,
  type CellLook,
  type EditorProps,
  type GridColumn,
  type GridHandle,
  type MenuLine,
  type Move,
  type Place,
} from './models.js';
