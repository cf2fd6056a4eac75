/** JSON Schemas of the file formats, made from what the program checks with. */
import { z } from 'zod';
import { blockFileSchema } from './block';
import { carryWaySchema } from './carry';
import { someRegistersSchema, valuesSchema } from './field';
import { conventionFileSchema, looseTemplateSchema, markerSchema } from './template';

const make = (schema: z.ZodType) => () => z.toJSONSchema(schema, { io: 'input' });

export const SCHEMAS = {
  template: make(looseTemplateSchema),
  block: make(blockFileSchema),
  convention: make(conventionFileSchema),
  registers: make(someRegistersSchema),
  values: make(valuesSchema),
  marker: make(markerSchema),
  carry: make(carryWaySchema),
} as const;
