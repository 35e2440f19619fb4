// The OpenAPI 3.1 description: paths from the controllers, schemas from the DTOs' own validation rules.
import type { INestApplication } from '@nestjs/common';
import { DocumentBuilder, SwaggerModule, type OpenAPIObject } from '@nestjs/swagger';
import * as contract from '@dellum/contract';
import { dtoSchemas } from './dtoSchemas.js';

type Schemas = NonNullable<NonNullable<OpenAPIObject['components']>['schemas']>;

const problemSchema = {
  type: 'object',
  required: ['type', 'title', 'status', 'detail', 'code'],
  properties: {
    type: { type: 'string' },
    title: { type: 'string' },
    status: { type: 'integer' },
    detail: { type: 'string', description: 'What happened and what to do.' },
    code: { type: 'string', enum: [...contract.problemCodes] },
    faults: { type: 'object', additionalProperties: { type: 'string' } },
    verdict: { type: 'string' },
    suggestions: { type: 'array', items: { type: 'string' } },
    users: { type: 'array', items: { type: 'string' } },
  },
};

/** Builds the description of the API as it runs. */
export function describeApi(app: INestApplication): OpenAPIObject {
  const options = new DocumentBuilder()
    .setOpenAPIVersion('3.1.0')
    .setTitle('Dellum')
    .setDescription('Central catalogs of allowed values, bound to shared sheets. Errors are application/problem+json (RFC 9457).')
    .setVersion('1')
    .addCookieAuth('session')
    .addBearerAuth({ type: 'http', scheme: 'bearer' }, 'access token')
    .build();
  const document = SwaggerModule.createDocument(app, options);
  const schemas = dtoSchemas('#/components/schemas/') as Schemas;
  document.components = { ...document.components, schemas: { ...document.components?.schemas, ...schemas, Problem: problemSchema } };
  for (const path of Object.values(document.paths)) {
    for (const operation of Object.values(path as Record<string, { responses?: Record<string, unknown> }>)) {
      if (operation.responses)
        operation.responses['default'] = {
          description: 'A problem.',
          content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
        };
    }
  }
  return document;
}
