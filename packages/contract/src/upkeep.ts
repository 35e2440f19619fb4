// Upkeep: what wants mending, with its cure.
import { IsIn, IsInt, IsString, IsUUID, MaxLength, Min } from 'class-validator';
import { findingKinds, type FindingKind, type LeftOutWhy, type LookAlike, type RangeFinding } from '@dellum/core';

/** Asks for the cure of a finding; the server finds it anew, so that what is mended is of now. */
export class CureDto {
  @IsUUID()
  rangeId!: string;

  @IsIn(findingKinds)
  kind!: FindingKind;

  /** The words of the finding, which tell it from others of its kind. */
  @IsString()
  @MaxLength(5000)
  words!: string;
}

export class TakeBackDto {
  @IsInt()
  @Min(1)
  act!: number;
}

/** A range on the Ranges page. */
export interface RangeLine {
  readonly id: string;
  readonly taken: number;
  readonly leftOut: readonly { readonly why: LeftOutWhy; readonly count: number }[];
  readonly findings: readonly RangeFinding[];
}

export interface CatalogAlikes {
  readonly catalogId: string;
  readonly groups: readonly LookAlike[];
}
/** Look-alikes between two catalogs: one thing kept in two places under two spellings. */
export interface AlikeBetween {
  readonly values: readonly { readonly catalogId: string; readonly value: string }[];
}
export interface Unused {
  readonly catalogId: string;
  readonly values: readonly string[];
}
export interface Upkeep {
  readonly findings: readonly RangeFinding[];
  readonly alikes: readonly CatalogAlikes[];
  readonly between: readonly AlikeBetween[];
  readonly unused: readonly Unused[];
  /** Catalogs that offer nothing, with why. */
  readonly empty: readonly { readonly catalogId: string; readonly words: string }[];
  readonly outside: readonly { readonly fieldId: string; readonly entries: number }[];
}
