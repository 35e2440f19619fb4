export { inReadingOrder } from './order.js';
export { afterVerdict, judgeEdit, settle, type Edit, type EditContext, type Settlement } from './settle.js';
