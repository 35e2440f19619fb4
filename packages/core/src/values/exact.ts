// Decimal numbers as Dellum reckons with them: exact for all that a cell can hold, never in exponents.
import { Decimal } from 'decimal.js';

export const Exact = Decimal.clone({ precision: 60, toExpNeg: -60, toExpPos: 60 });
