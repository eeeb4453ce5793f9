declare module 'class-transformer/cjs/storage.js' {
  import type { validationMetadatasToSchemas } from 'class-validator-jsonschema';
  /** The metadata that class-transformer's @Type keeps; its package shows it only here. */
  export const defaultMetadataStorage: NonNullable<
    Parameters<typeof validationMetadatasToSchemas>[0]
  >['classTransformerMetadataStorage'];
}
