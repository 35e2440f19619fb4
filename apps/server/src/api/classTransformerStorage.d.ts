// class-transformer keeps its storage of types out of its declarations; class-validator-jsonschema needs it.
declare module 'class-transformer/cjs/storage.js' {
  import type { IOptions } from 'class-validator-jsonschema/build/options.js';
  export const defaultMetadataStorage: IOptions['classTransformerMetadataStorage'];
}
