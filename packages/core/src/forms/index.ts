export * from './models.js';
export { controlOf, controlsFor, lengthOfList, mostIn } from './controls.js';
export { conditionsOf, shownIn } from './shown.js';
export { judgeForm, type FormAnswers, type FormContext, type JudgedForm } from './answers.js';
export { layoutFindings, newLayout, stopsPublishing, type LayoutFinding, type LayoutContext } from './findings.js';
export { addSection, changeField, changeSection, dropSection, moveSection, placeField, takeOut } from './lay.js';
export { storedLayout } from './stored.js';
