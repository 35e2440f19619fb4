export type { Me, Person } from '@dellum/contract';
export interface OpenApiDocument {
    readonly openapi: string;
    readonly paths: Readonly<Record<string, Readonly<Record<string, unknown>>>>;
}
