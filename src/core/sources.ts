import * as z from 'zod';
import { sourceSchema, type Source } from '../facts/common.js';
import { evidenceSchema, type Evidence } from './evidence.js';

/** Evidence with each place that it gives by the snippet's text made another, wherever its schema has one. */
export function mapSources(evidence: Evidence, move: (source: Source) => Source): Evidence {
  return mapBy(evidenceSchema, evidence, move as (source: unknown) => unknown) as Evidence;
}

type Move = (source: unknown) => unknown;

function mapBy(schema: z.core.$ZodType, value: unknown, move: Move): unknown {
  if (value === null || value === undefined) return value;
  if (schema === sourceSchema) return move(value);
  if (schema instanceof z.ZodArray)
    return (value as unknown[]).map((one) => mapBy(schema.element, one, move));
  if (schema instanceof z.ZodRecord)
    return mapEach(value, (one) => mapBy(schema.valueType, one, move));
  if (schema instanceof z.ZodObject) {
    const shape = schema.shape as Record<string, z.core.$ZodType>;
    return mapEach(value, (one, key) => (key in shape ? mapBy(shape[key]!, one, move) : one));
  }
  if (schema instanceof z.ZodUnion) {
    const fitting = schema.options.find((option) => z.safeParse(option, value).success);
    return fitting ? mapBy(fitting, value, move) : value;
  }
  const inner = getInner(schema);
  return inner ? mapBy(inner, value, move) : value;
}

function mapEach(value: unknown, map: (one: unknown, key: string) => unknown): unknown {
  const entries = Object.entries(value as object) as [string, unknown][];
  return Object.fromEntries(entries.map(([key, one]) => [key, map(one, key)]));
}

function getInner(schema: z.core.$ZodType): z.core.$ZodType | null {
  const isWrapped =
    schema instanceof z.ZodNullable ||
    schema instanceof z.ZodOptional ||
    schema instanceof z.ZodDefault;
  return isWrapped ? schema.def.innerType : null;
}
