import type { z } from 'zod';
import { LENGTH_SCHEMAS } from '../measure/lengthSchema.js';

/** What schemas say of what they are made of, as far as a place is followed through them. */
interface SchemaDef {
  readonly type: string;
  readonly shape?: Readonly<Record<string, z.core.$ZodType>>;
  readonly valueType?: z.core.$ZodType;
  readonly element?: z.core.$ZodType;
  readonly innerType?: z.core.$ZodType;
  readonly in?: z.core.$ZodType;
  readonly options?: readonly z.core.$ZodType[];
}

/** The schemas that a value may have which lies so many keys below a schema. */
function schemasAt(schema: z.core.$ZodType, keys: readonly string[]): readonly z.core.$ZodType[] {
  const [key, ...rest] = keys;
  const { innerType, options, shape, valueType, element, in: from } = schema._zod.def as SchemaDef;
  if (innerType) return schemasAt(innerType, keys);
  if (options) return options.flatMap((option) => schemasAt(option, keys));
  if (key === undefined) return [schema];
  const below = shape ? (Object.hasOwn(shape, key) ? shape[key] : undefined) : (valueType ?? element);
  if (below) return schemasAt(below, rest);
  return from ? schemasAt(from, keys) : [];
}

/**
 * True if a place of a document holds a length: its number is then whole nanometres, and is told as a length.
 *
 * @param keys from the document down
 */
export function isLengthAt(schema: z.core.$ZodType, keys: readonly string[]): boolean {
  return schemasAt(schema, keys).some((found) => LENGTH_SCHEMAS.get(found as z.ZodType) !== undefined);
}
