import * as yup from 'yup';
import { jsonSchemaOf, withSchema } from './describe';
import { judged, typeName } from './judged';
import { isObject, passesQuickly, withQuick } from './quick';

const refused = (message: string) =>
  judged(
    () => message,
    false,
    () => ({}),
  );

const isBadId = (key: string) =>
  key.length === 0 || key.length > 80 || key === '__proto__' || /["[\].]/.test(key);

/** What is wrong with an object of items by id as such, or null. */
function mapProblem(value: unknown, maxEntries: number): string | null {
  if (!isObject(value)) return `must be an object, not ${typeName(value)}`;
  const keys = Object.keys(value);
  if (keys.some(isBadId)) return 'has an id that is not allowed';
  return keys.length > maxEntries ? `must have at most ${maxEntries} entries` : null;
}

function mapShape(of: yup.ISchema<unknown>, maxEntries: number, optional: boolean): yup.Schema {
  const shape = yup.lazy((value: unknown) => {
    if (value === undefined && optional) return yup.mixed();
    const problem = mapProblem(value, maxEntries);
    if (problem !== null) return refused(problem);
    return yup.object(Object.fromEntries(Object.keys(value as object).map((key) => [key, of])));
  }) as unknown as yup.Schema;
  withSchema(
    shape,
    () => ({ type: 'object', maxProperties: maxEntries, additionalProperties: jsonSchemaOf(of) }),
    optional,
  );
  return withQuick(shape, (value) => {
    if (value === undefined) return optional;
    if (mapProblem(value, maxEntries) !== null) return false;
    return Object.values(value as object).every((item) => passesQuickly(of, item));
  });
}

/** An object of like items by id. Ids are 1 to 80 characters and never `__proto__`. */
export const mapOf = (of: yup.ISchema<unknown>, maxEntries = 5000): yup.Schema =>
  mapShape(of, maxEntries, false);
/** The same where it may be absent. */
mapOf.optional = (of: yup.ISchema<unknown>, maxEntries = 5000): yup.Schema => mapShape(of, maxEntries, true);

interface ListRule {
  minRows?: number;
  maxRows?: number;
}

function listShape(
  of: yup.ISchema<unknown>,
  { minRows = 0, maxRows = 2000 }: ListRule,
  optional: boolean,
): yup.Schema {
  const problem = (value: unknown) => {
    if (!Array.isArray(value)) return `must be a list, not ${typeName(value)}`;
    if (value.length < minRows) return `must have at least ${minRows} entries`;
    return value.length > maxRows ? `must have at most ${maxRows} entries` : null;
  };
  const shape = yup.lazy((value: unknown) => {
    if (value === undefined && optional) return yup.mixed().optional();
    const found = problem(value);
    return found === null ? yup.array().of(of as yup.Schema) : refused(found);
  }) as unknown as yup.Schema;
  withSchema(
    shape,
    () => ({ type: 'array', minItems: minRows, maxItems: maxRows, items: jsonSchemaOf(of) }),
    optional,
  );
  return withQuick(shape, (value) => {
    if (value === undefined) return optional;
    return problem(value) === null && (value as unknown[]).every((item) => passesQuickly(of, item));
  });
}

/** A list of like items, its length judged before its items; `list.optional(of)` where it may be absent. */
export const list = (of: yup.ISchema<unknown>, rule: ListRule = {}): yup.Schema => listShape(of, rule, false);
list.optional = (of: yup.ISchema<unknown>, rule: ListRule = {}): yup.Schema => listShape(of, rule, true);
