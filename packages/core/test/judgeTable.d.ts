import { type FieldKind, type Rule } from '@dellum/core';
export interface JudgeField {
    readonly kind: FieldKind;
    readonly rule: Rule | null;
}
/** Fields by key. A rule over a catalog is bound to the house's pilots: Tam Ossel, Bryn Calloway, Rook Tansy. */
export declare const judgeFields: Readonly<Record<string, JudgeField>>;
export interface JudgeCase {
    readonly field: string;
    readonly text: string;
    /** What is stored; undefined where it is refused. */
    readonly stored?: string;
    /** The code of the refusal. */
    readonly code?: string;
}
export declare const judgeCases: readonly JudgeCase[];
