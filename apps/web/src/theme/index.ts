export { system } from './system.js';
export { chooseColourMode, startColourMode, useColourMode } from './colourMode.js';
export { ItemMark } from './ItemMark.js';
