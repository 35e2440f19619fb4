export type { HouseBlueprint, EntrySheetBlueprint, ListBlueprint, CatalogBlueprint } from './blueprint.js';
export { deleteHouse, loadHouse } from './loadHouse.js';
export { quillhaven } from './quillhaven.js';
export { chance, pick } from './chance.js';
