// The body of a request is read when it is known who asks and that they may: no stranger's body is held in memory.
import { Injectable, type CallHandler, type ExecutionContext, type NestInterceptor } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import express, { type Request, type Response } from 'express';
import { bodyKey, type BodySize } from '../access/access.js';
import { ProblemError } from '../problems/index.js';
import { shapeFault, type BodyBounds, type ShapeFault } from './bodyShape.js';

type ReadSize = Exclude<BodySize, 'file'>;
const bounds: { readonly [Size in ReadSize]: BodyBounds } = {
  small: { bytes: 16 * 1024, members: 500, objects: 50 },
  form: { bytes: 256 * 1024, members: 5000, objects: 500 },
  usual: { bytes: 1024 * 1024, members: 50_000, objects: 20_000 },
  blocks: { bytes: 8 * 1024 * 1024, members: 2_200_000, objects: 120_000 },
};
const readers = Object.fromEntries(
  Object.entries(bounds).map(([size, { bytes }]) => [size, express.text({ type: () => true, limit: bytes, inflate: false })]),
) as { readonly [Size in ReadSize]: ReturnType<typeof express.text> };

const words: { readonly [Fault in ShapeFault]: string } = {
  'too deep': 'The body is nested more than 32 levels deep. Send it flatter.',
  'too wide': 'An object of the body has more than 1,000 members. Send it in smaller parts.',
  'too many': 'The body has more members than are taken here. Send it in smaller parts.',
};

const sizeWords = (bytes: number): string => (bytes < 1024 * 1024 ? `${bytes / 1024} kB` : `${bytes / 1024 / 1024} MB`);

@Injectable()
export class BodyInterceptor implements NestInterceptor {
  constructor(private readonly reflector: Reflector) {}

  async intercept(context: ExecutionContext, next: CallHandler) {
    const http = context.switchToHttp();
    const request = http.getRequest<Request>();
    if (request.headers['content-length'] !== undefined || request.headers['transfer-encoding'] !== undefined) {
      const size = this.reflector.getAllAndOverride<BodySize | undefined>(bodyKey, [context.getHandler(), context.getClass()]) ?? 'usual';
      if (size !== 'file') request.body = await read(request, http.getResponse<Response>(), size);
    }
    return next.handle();
  }
}

async function read(request: Request, response: Response, size: ReadSize): Promise<unknown> {
  await new Promise<void>((done, failed) => {
    readers[size](request, response, (error?: unknown) => (error === undefined ? done() : failed(bodyError(error, size))));
  });
  // Nothing was sent.
  if (typeof request.body !== 'string' || request.body === '') return undefined;
  const fault = shapeFault(request.body, bounds[size]);
  if (fault) throw new ProblemError(fault === 'too many' ? 'too-large' : 'malformed-body', words[fault]);
  try {
    const body: unknown = JSON.parse(request.body);
    if (typeof body === 'object' && body !== null) return body;
  } catch {
    // Said below.
  }
  throw new ProblemError('malformed-body', 'The body of the request is not readable JSON. Check it and send it again.');
}

function bodyError(error: unknown, size: ReadSize): unknown {
  const tooLarge = error instanceof Error && 'status' in error && error.status === 413;
  return tooLarge
    ? new ProblemError('too-large', `The request is larger than ${sizeWords(bounds[size].bytes)}. Send it in smaller parts.`)
    : error;
}
