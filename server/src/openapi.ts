import type { INestApplication } from '@nestjs/common';
import { DocumentBuilder, SwaggerModule } from '@nestjs/swagger';
import {
  CaseCopy,
  CaseDocument,
  ContourApproval,
  FileChange,
  FirstAccount,
  FirstPassword,
  NewCase,
  NewComment,
  NewContourVersion,
  NewPerson,
  PasswordChange,
  PracticeSettings,
  PracticeSettingsChange,
  Recovery,
  SectionChange,
  SignIn,
  TrayDecision,
  WornMockUp,
} from '@radiant/contract';
import { defaultMetadataStorage } from 'class-transformer/cjs/storage.js';
import { validationMetadatasToSchemas } from 'class-validator-jsonschema';

/** Bodies whose routes read them through our own pipe: the document learns them here. */
const BODIES: readonly (new () => object)[] = [
  SignIn,
  FirstAccount,
  FirstPassword,
  PracticeSettings,
  PracticeSettingsChange,
  PasswordChange,
  Recovery,
  NewPerson,
  NewCase,
  CaseCopy,
  NewComment,
  NewContourVersion,
  ContourApproval,
  WornMockUp,
  SectionChange,
  FileChange,
  TrayDecision,
  CaseDocument,
];

/** The interface as OpenAPI 3: paths from the controllers, schemas from the contract's classes. */
export function openApi(app: INestApplication): object {
  const document = SwaggerModule.createDocument(
    app,
    new DocumentBuilder().setTitle('Radiant Arch').setVersion('1').addCookieAuth('radiant.sid').build(),
  );
  const schemas = validationMetadatasToSchemas({
    classTransformerMetadataStorage: defaultMetadataStorage,
    refPointerPrefix: '#/components/schemas/',
  });
  document.components = {
    ...document.components,
    schemas: { ...document.components?.schemas, ...(schemas as object), Problem: PROBLEM },
  };
  for (const b of BODIES)
    if (!(b.name in (document.components.schemas ?? {})))
      throw new Error(`The contract class ${b.name} is missing from the OpenAPI document.`);
  for (const path of Object.values(document.paths)) {
    for (const operation of Object.values(path) as { responses?: Record<string, object> }[]) {
      if (operation.responses) {
        operation.responses.default = {
          description: 'Refused, with problem details (RFC 9457)',
          content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
        };
      }
    }
  }
  return document;
}

const PROBLEM = {
  type: 'object' as const,
  required: ['type', 'title', 'status', 'detail'],
  properties: {
    type: { type: 'string' as const },
    title: { type: 'string' as const },
    status: { type: 'integer' as const },
    detail: { type: 'string' as const },
    errors: {
      type: 'array' as const,
      items: {
        type: 'object' as const,
        properties: { field: { type: 'string' as const }, message: { type: 'string' as const } },
      },
    },
    current: { type: 'object' as const },
  },
};
