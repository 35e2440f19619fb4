// Ids in addresses are UUIDs; anything else names nothing.
import { Injectable, type PipeTransform } from '@nestjs/common';
import { isUUID } from 'class-validator';
import { notFound } from './problem.js';

@Injectable()
export class IdPipe implements PipeTransform<string, string> {
  transform(value: string): string {
    if (!isUUID(value)) throw notFound('What the address names');
    return value;
  }
}
