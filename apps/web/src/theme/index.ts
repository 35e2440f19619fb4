export { system } from './system.js';
export { chooseColourMode, startColourMode, useColourMode } from './colourMode.js';
export { ItemMark } from './ItemMark.js';
export { tintStyles } from './tints.js';
