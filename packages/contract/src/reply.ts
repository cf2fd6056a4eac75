/** Parts of which replies are made. A reply holds what its schema names, and nothing else. */
import { z } from 'zod';

export const record = <const T extends z.core.$ZodShape>(shape: T) => z.strictObject(shape).readonly();
export const list = <T extends z.ZodType>(of: T) => z.array(of).readonly();

export const uuid = z.uuid();
/** ISO 8601. */
export const moment = z.iso.datetime();
export const amount = z.int().min(0);
