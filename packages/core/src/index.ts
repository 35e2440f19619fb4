// Door of the core: everything Dellum computes, without interface, server or database.
import './rules/everyLanguage.js';

export * from './browser.js';
