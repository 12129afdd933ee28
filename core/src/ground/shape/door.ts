import * as yup from 'yup';
import { deepest, isDeeperThan } from './depth';
import { jsonSchemaOf, type JsonSchema } from './describe';
import { passesQuickly } from './quick';

/** One thing that is wrong with an input. */
export interface Issue {
  /** Dotted, 0-based (`changes.0.xM`); empty for the input as a whole. */
  path: string;
  message: string;
}

export type Parsed<Input> =
  | { ok: true; input: Input; /** Paths of inputs that were not given. */ defaulted: string[] }
  | { ok: false; issues: Issue[] };

const tooDeepMessage = `is nested deeper than ${deepest} levels`;
const mostIssues = 100;

export type Schema = yup.ISchema<unknown>;

export interface DoorRules {
  /** The shape; a function when one field decides which others there are. */
  schema: yup.ISchema<unknown> | ((body: Record<string, unknown>) => yup.ISchema<unknown>);
  /** Values of absent optional fields, by dotted path; those under an absent parent are left out. */
  defaults?: Record<string, unknown> | ((body: Record<string, unknown>) => Record<string, unknown>);
  /** Rules between fields; runs only when the shape holds. */
  cross?: (input: never, issue: (path: string, message: string) => void) => void;
}

/**
 * The one door through which every input of every calculator passes: depth, root, shape, cross-field rules,
 * then defaults. Nothing is converted; the body itself is never changed.
 *
 * @param body anything, as JSON gave it
 * @returns the input with its defaults and their paths, or at most 100 issues
 */
export function openDoor<Input>(body: unknown, rules: DoorRules): Parsed<Input> {
  if (typeof body !== 'object' || body === null || Array.isArray(body)) {
    const deep = tooDeepAt(body);
    return refuse([
      deep === null
        ? { path: '', message: 'the body must be a JSON object' }
        : { path: deep, message: tooDeepMessage },
    ]);
  }
  const given = body as Record<string, unknown>;
  // A function that picks the schema may look deeper than is good for it.
  const deep = typeof rules.schema === 'function' ? tooDeepAt(body) : null;
  if (deep !== null) return refuse([{ path: deep, message: tooDeepMessage }]);
  const schema = typeof rules.schema === 'function' ? rules.schema(given) : rules.schema;
  // What passes is as deep as its schema; only what does not is measured before yup may walk into it.
  if (!passesQuickly(schema as object, given)) {
    const tooDeep = tooDeepAt(given);
    if (tooDeep !== null) return refuse([{ path: tooDeep, message: tooDeepMessage }]);
    const issues = shapeIssues(schema as yup.Schema, given);
    if (issues.length > 0) return refuse(issues);
  }
  const input = copied(given) as Record<string, unknown>;
  const defaults = typeof rules.defaults === 'function' ? rules.defaults(given) : (rules.defaults ?? {});
  const defaulted = fillDefaults(input, defaults);
  const crossIssues: Issue[] = [];
  rules.cross?.(input as never, (path, message) => crossIssues.push({ path, message }));
  if (crossIssues.length > 0) return refuse(crossIssues);
  return { ok: true, input: input as Input, defaulted };
}

const refuse = (issues: Issue[]) => ({ ok: false as const, issues: issues.slice(0, mostIssues) });

function shapeIssues(schema: yup.Schema, body: unknown): Issue[] {
  try {
    schema.validateSync(body, { strict: true, abortEarly: false, disableStackTrace: true });
    return [];
  } catch (error) {
    if (!(error instanceof yup.ValidationError)) throw error;
    const leaves = error.inner.length > 0 ? error.inner : [error];
    const seen = new Set<string>();
    return leaves.flatMap(({ path = '', message }) => {
      const issue = { path: dotted(path), message };
      const key = `${issue.path}\n${message}`;
      if (seen.has(key)) return [];
      seen.add(key);
      return [issue];
    });
  }
}

/** Yup writes `changes[0].xM` and `["odd key"]`; the contract wants `changes.0.xM`. */
function dotted(path: string): string {
  return path.replace(/\[["']?([^"'\]]*)["']?\]/g, '.$1').replace(/^\./, '');
}

/** The top field under which the body is nested too deep, or null. */
function tooDeepAt(body: unknown): string | null {
  if (typeof body !== 'object' || body === null) return null;
  for (const [key, child] of Object.entries(body)) if (isDeeperThan(child, deepest)) return key.slice(0, 60);
  return null;
}

/** A copy of the objects of JSON, so that defaults can be filled in; lists are shared. What was not given is left out. */
function copied(value: unknown): unknown {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return value;
  const copy: Record<string, unknown> = {};
  for (const [key, child] of Object.entries(value)) if (child !== undefined) copy[key] = copied(child);
  return copy;
}

function fillDefaults(input: Record<string, unknown>, defaults: Record<string, unknown>): string[] {
  const filled: string[] = [];
  for (const [path, value] of Object.entries(defaults)) {
    const keys = path.split('.');
    const last = keys.pop()!;
    const parent = keys.reduce<unknown>(
      (at, key) => (typeof at === 'object' && at !== null ? (at as Record<string, unknown>)[key] : undefined),
      input,
    );
    if (typeof parent !== 'object' || parent === null) continue;
    const holder = parent as Record<string, unknown>;
    if (holder[last] !== undefined) continue;
    holder[last] = value;
    filled.push(path);
  }
  return filled;
}

/**
 * What a door lets pass, as JSON Schema with its defaults; null where the body itself decides what else there is. Rules
 * between fields are not in it.
 */
export function doorSchema({ schema, defaults = {} }: DoorRules): JsonSchema | null {
  if (typeof schema === 'function') return null;
  const described = jsonSchemaOf(schema as object);
  // Those that hang on the body stand in no schema.
  if (typeof defaults === 'function') return described;
  for (const [path, value] of Object.entries(defaults))
    for (const place of placesOf(described, path.split('.'))) place.default = value;
  return described;
}

/** Where a field stands in a schema: once in each of its alternatives. */
function placesOf(schema: JsonSchema, [first, ...rest]: readonly string[]): JsonSchema[] {
  if (first === undefined) return [schema];
  if (schema.anyOf !== undefined) return schema.anyOf.flatMap((one) => placesOf(one, [first, ...rest]));
  const next = schema.properties?.[first];
  return next === undefined ? [] : placesOf(next, rest);
}
