// Door of the grid.
export { Grid } from './Grid.js';
export { fromBoth, fromClipboard, toClipboard, toHtml } from './clipboard.js';
export { blockOf, isSingle, type Block, type CellLook, type EditorProps, type GridColumn, type GridHandle, type Move, type Place } from './models.js';
