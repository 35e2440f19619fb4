import { type JudgeContext, type JudgedField } from '@dellum/core';
/** Each case: what is typed, and `=` with the value that is stored or the code of the refusal. */
export declare const judgeCases: { field: string; text: string; result: string }[];
/** A field of the table, and what it is judged in. */
export declare function tableField(key: string): { field: JudgedField; context: JudgeContext & { readonly today: string } };
