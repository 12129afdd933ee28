import * as yup from 'yup';
import { deepest, isDeeperThan } from './depth';
import { jsonSchemaOf, mayBeAbsent, withSchema, type JsonSchema } from './describe';
import { passesQuickly, withQuick } from './quick';

/** What is wrong with a value, or null. */
export type Problem = (value: unknown) => string | null;

/** What is wrong in a value, each with its own place below it; empty for the value itself. */
export type PartProblems = (value: unknown) => readonly { path: string; message: string }[];

export function typeName(value: unknown): string {
  if (value === null) return 'null';
  if (Array.isArray(value)) return 'a list';
  if (typeof value === 'string') return 'text';
  return typeof value === 'object' ? 'an object' : `a ${typeof value}`;
}

/**
 * A field judged by one function that returns what is wrong, or null. Absent fields fail unless optional.
 * Yup's own type tests are not used: they echo the value, convert, or let Infinity pass.
 */
export function judged(problem: Problem, optional: boolean, schema: () => JsonSchema): yup.MixedSchema {
  const shape = yup
    .mixed()
    .test({
      name: 'judged',
      test(value: unknown, context) {
        if (value === undefined) return optional ? true : context.createError({ message: 'is required' });
        const message = problem(value);
        return message === null ? true : context.createError({ message });
      },
    })
    .nullable() as yup.MixedSchema;
  withSchema(shape, schema, optional);
  return withQuick(shape, (value) => (value === undefined ? optional : problem(value) === null));
}

/**
 * The same of a value with many parts, judged in one loop: a shape for each of thousands of fields would take longer
 * than the computation.
 */
export function judgedInParts(
  problems: PartProblems,
  optional: boolean,
  schema: () => JsonSchema,
): yup.MixedSchema {
  const found = (value: unknown) =>
    value !== undefined ? problems(value) : optional ? [] : [{ path: '', message: 'is required' }];
  const shape = yup
    .mixed()
    .nullable()
    .test({
      name: 'judged-in-parts',
      test(value: unknown, context) {
        const errors = found(value).map(({ path, message }) =>
          context.createError({ path: `${context.path}${path === '' ? '' : `.${path}`}`, message }),
        );
        if (errors.length === 0) return true;
        return errors.length === 1 ? errors[0]! : new yup.ValidationError(errors);
      },
    }) as yup.MixedSchema;
  withSchema(shape, schema, optional);
  return withQuick(shape, (value) => found(value).length === 0);
}

/** The same value, or null. */
export function orNull(shape: yup.ISchema<unknown>): yup.Schema {
  const either = yup.lazy((value: unknown) =>
    value === null ? yup.mixed().nullable() : (shape as yup.Schema),
  ) as unknown as yup.Schema;
  withSchema(either, () => ({ anyOf: [jsonSchemaOf(shape), { type: 'null' }] }), mayBeAbsent(shape));
  return withQuick(either, (value) => value === null || passesQuickly(shape, value));
}

/** Whatever JSON can say, where it is judged elsewhere; absent, too. */
export const anything = (): yup.Schema =>
  withQuick(
    withSchema(yup.mixed().nullable(), () => ({}), true),
    (value) => !isDeeperThan(value, deepest),
  );
/** The same, but it must be there, and is not null. */
anything.required = (): yup.Schema =>
  judged(
    (value) => (value === null ? 'must not be null' : null),
    false,
    () => ({}),
  );
