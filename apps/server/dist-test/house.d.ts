import { type HouseBlueprint } from '@dellum/demo';
import { Database, type ReachableConfig } from '@dellum/server';
import type { CatalogView, EntryView, FieldView, Problem, RegisterView, Role } from '@dellum/contract';
export declare const pilots: string[];
/** Pilots in a growing list, a catalog of them, and a sheet of visits whose Pilot is bound to it. */
export declare function smallHouse(visits: readonly Readonly<Record<string, string>>[]): HouseBlueprint;
export interface Answer<T> {
    readonly status: number;
    readonly body: T;
    readonly headers: Headers;
}
/** Somebody with a browser's cookie jar. */
export declare class Visitor {
    readonly base: string;
    cookie: string;
    constructor(base: string);
    call<T = Problem>(method: string, path: string, body?: unknown, headers?: Record<string, string>): Promise<Answer<T>>;
    get<T>(path: string): Promise<T>;
}
export interface Running {
    readonly base: string;
    readonly database: Database;
    /** Does what the clock does once a minute: sends what is due. */
    tick(): Promise<void>;
    close(): Promise<void>;
}
/** A database of its own, for tests whose jobs no other test's server may take. */
export declare function freshDatabase(): Promise<string>;
export declare function startServer(databaseUrl?: string, reachable?: ReachableConfig): Promise<Running>;
export interface House {
    readonly id: string;
    readonly key: string;
    readonly administrator: Visitor;
    readonly clerk: Visitor;
    readonly reader: Visitor;
    readonly pilots: RegisterView;
    readonly visits: RegisterView;
    readonly pilotField: FieldView;
    readonly catalog: CatalogView;
    readonly rangeId: string;
}
export declare function signedIn(base: string, house: string, role: Role): Promise<Visitor>;
export declare function openHouse({ base, database }: Pick<Running, 'base' | 'database'>, visits: readonly Readonly<Record<string, string>>[]): Promise<House>;
export declare function entriesOf(visitor: Visitor, register: RegisterView, query?: string): Promise<readonly EntryView[]>;
/** Waits until a condition holds, by asking for it; fails after ten seconds. */
export declare function until(holds: () => Promise<boolean>): Promise<void>;
/** The act that adds values at the end of a list, or above an entry. */
export declare const insertingAll: (texts: readonly string[], before?: string) => {
    before?: string | undefined;
    act: string;
    rows: {
        cells: {
            field: string;
            text: string;
        }[];
    }[];
};
export declare const inserting: (text: string) => {
    before?: string | undefined;
    act: string;
    rows: {
        cells: {
            field: string;
            text: string;
        }[];
    }[];
};
