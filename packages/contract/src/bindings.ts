// The rules of all fields of a house, and setting many at once.
import { Type } from 'class-transformer';
import { ArrayMaxSize, ArrayNotEmpty, IsArray, IsOptional, IsUUID, ValidateNested } from 'class-validator';
import type { FieldCount } from './entries.js';
import { RuleDto } from './rules.js';

/** One rule for many fields: a new one, a copy of another field's, or none at all. */
export class SetRulesDto {
  @IsArray()
  @ArrayNotEmpty({ message: 'Choose the fields first.' })
  @ArrayMaxSize(500)
  @IsUUID(undefined, { each: true })
  fields!: string[];

  @IsOptional()
  @ValidateNested()
  @Type(() => RuleDto)
  rule?: RuleDto;

  /** The field whose rule is copied, and nothing of it but the rule. */
  @IsOptional()
  @IsUUID()
  from?: string;
}

/** What a change of a rule does to one field. */
export interface RuleImpact extends FieldCount {
  /** Entries outside by the rule that holds now. */
  readonly now: number;
  /** Why the rule cannot be set on this field; it is passed over. */
  readonly unfit?: string;
}
