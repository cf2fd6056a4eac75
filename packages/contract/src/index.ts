/** The face of the contract: everything that crosses the wire or stands in a file. */

export * from './adopt';
export * from './authoring';
export * from './block';
export * from './carry';
export * from './carry-over';
export * from './check';
export * from './compare';
export * from './convention';
export * from './endpoint';
export * from './endpoints';
export * from './field';
export * from './file';
export * from './intake';
export * from './lists';
export { type Document, openApiOf } from './openapi';
export * from './package';
export * from './project';
export * from './proposal';
export * from './refusals';
export * from './repair';
export * from './reshape';
export * from './roles';
export * from './rule-set';
export { SCHEMAS } from './schemas';
export * from './template';
export * from './upload';
export * from './wire';
