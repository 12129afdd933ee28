import * as yup from 'yup';
import { jsonSchemaOf, mayBeAbsent, withSchema, type JsonSchema } from './describe';
import { judged, typeName } from './judged';
import { isObject, passesQuickly, withQuick } from './quick';

type Fields = Record<string, yup.ISchema<unknown>>;

/** Shapes by name, and which of them a value must have. */
interface OneShapeOf {
  shapes: Readonly<Record<string, Fields>>;
  pick(value: Record<string, unknown>): string;
}

/** An object with exactly the fields of its shape; each unknown one is named by its own path. */
function recordShape({ shapes, pick }: OneShapeOf, optional: boolean): yup.Schema {
  const objects = new Map<string, yup.Schema>();
  const objectFor = (name: string): yup.Schema => {
    const object = objects.get(name) ?? objectOf(shapes[name]!);
    objects.set(name, object);
    return object;
  };
  const shape = yup.lazy((value: unknown) => {
    if (value === undefined && optional) return yup.mixed().optional();
    return isObject(value) ? objectFor(pick(value)) : notAnObject;
  }) as unknown as yup.Schema;
  withSchema(shape, () => oneOrAny(Object.values(shapes).map(fieldsSchema)), optional);
  return withQuick(shape, (value) => {
    if (value === undefined) return optional;
    return isObject(value) && fieldsPass(shapes[pick(value)]!, value);
  });
}

const notAnObject = judged(
  (given) => `must be an object, not ${typeName(given)}`,
  false,
  () => ({}),
);

const oneOrAny = (schemas: JsonSchema[]): JsonSchema =>
  schemas.length === 1 ? schemas[0]! : { anyOf: schemas };

/** The fields of an object as JSON Schema. */
export function fieldsSchema(fields: Fields): JsonSchema {
  const entries = Object.entries(fields);
  return {
    type: 'object',
    properties: Object.fromEntries(entries.map(([name, field]) => [name, jsonSchemaOf(field)])),
    required: entries.flatMap(([name, field]) => (mayBeAbsent(field) ? [] : [name])),
    additionalProperties: false,
  };
}

const always = (fields: Fields): OneShapeOf => ({ shapes: { always: fields }, pick: () => 'always' });

function fieldsPass(fields: Fields, value: Record<string, unknown>): boolean {
  for (const key in value) if (!Object.hasOwn(fields, key)) return false;
  for (const key in fields) if (!passesQuickly(fields[key]!, value[key])) return false;
  return true;
}

function objectOf(fields: Fields): yup.Schema {
  const names = new Set(Object.keys(fields));
  return yup.object(fields as yup.ObjectShape).test({
    name: 'unknown-fields',
    test(given: unknown, context) {
      const unknown = Object.keys(given as object).filter((key) => !names.has(key));
      if (unknown.length === 0) return true;
      return new yup.ValidationError(
        unknown.slice(0, 100).map((key) =>
          context.createError({
            path: (context.path ? `${context.path}.` : '') + (key.length > 60 ? `${key.slice(0, 60)}…` : key),
            message: 'is not a field of this input',
          }),
        ),
      );
    },
  });
}

/**
 * A required object with exactly these fields; `record.optional(fields)` where it may be absent, and
 * `record.by(shapes, pick)` where what it holds decides which of some shapes it must have. The shapes are made once: making one takes
 * longer than holding a thousand values against it.
 */
export const record = (fields: Fields): yup.Schema => recordShape(always(fields), false);
record.optional = (fields: Fields): yup.Schema => recordShape(always(fields), true);
record.by = <Name extends string>(
  shapes: Readonly<Record<Name, Fields>>,
  pick: (value: Record<string, unknown>) => Name,
): yup.Schema => recordShape({ shapes, pick }, false);
/** The same, where it may be absent. */
record.optionalBy = <Name extends string>(
  shapes: Readonly<Record<Name, Fields>>,
  pick: (value: Record<string, unknown>) => Name,
): yup.Schema => recordShape({ shapes, pick }, true);
