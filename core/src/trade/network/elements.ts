import {
  judgedInParts,
  numberProblem,
  numberSchema,
  type JsonSchema,
  type NumberRule,
} from '../../ground/shape';

export const elementKinds = [
  'module',
  'link',
  'cable',
  'fuse',
  'service-disconnect',
  'contactor',
  'resistor',
  'connector',
  'load',
] as const;
export type ElementKind = (typeof elementKinds)[number];

/** A two-terminal piece of the high-voltage system. */
export interface NetworkElement {
  id: string;
  kind: ElementKind;
  /** Modules and loads: the negative post. */
  a: string;
  b: string;
  /** Ignored for modules, resistors and loads: they always join. */
  closed?: boolean;
  /** Modules: from a to b. */
  voltageV?: number;
  /** Loads. */
  capacitanceF?: number;
  /** The place from which it can be touched: a box, the car. */
  reach: string;
  /** All but loads, where faults are computed. */
  resistanceOhm?: number;
}

/** Joins its terminals whatever any switch does. */
export const alwaysJoins = (kind: ElementKind) => kind === 'module' || kind === 'resistor' || kind === 'load';
/** Joins its terminals while it is closed, without a voltage across it. */
export const isConductor = (kind: ElementKind) => !alwaysJoins(kind);

const mostElements = 5000;
const mostIssues = 100;
const textFields = ['id', 'a', 'b', 'reach'] as const;

/**
 * A list of elements, judged in one loop: a network has thousands of fields, and a shape for each would take
 * longer than the computation. Every wrong field is named by its own path.
 *
 * @param resistances whether `resistanceOhm` is a field, and required on all but loads
 */
export function elementList(resistances: boolean): ReturnType<typeof judgedInParts> {
  const known = new Set(['id', 'kind', 'a', 'b', 'closed', 'voltageV', 'capacitanceF', 'reach']);
  if (resistances) known.add('resistanceOhm');
  const problems = (value: unknown) => {
    const whole = (message: string) => [{ path: '', message }];
    if (!Array.isArray(value)) return whole('must be a list');
    const elements: unknown[] = value;
    if (elements.length === 0) return whole('must have at least 1 entries');
    if (elements.length > mostElements) return whole(`must have at most ${mostElements} entries`);
    const found: { path: string; message: string }[] = [];
    const ids = new Set<string>();
    for (const [i, element] of elements.entries()) {
      if (found.length >= mostIssues) break;
      for (const [field, message] of problemsOf(element, known, resistances, ids))
        found.push({ path: field === '' ? `${i}` : `${i}.${field}`, message });
    }
    return found;
  };
  return judgedInParts(problems, false, () => ({
    type: 'array',
    minItems: 1,
    maxItems: mostElements,
    items: elementSchema(resistances),
  }));
}

const id80 = { type: 'string', minLength: 1, maxLength: 80 } as const;
const notNegative = numberSchema({ min: 0 });

/** An element as JSON Schema: what it must have hangs on its kind. */
function elementSchema(resistances: boolean): JsonSchema {
  const of = (kinds: readonly ElementKind[], required: readonly string[]): JsonSchema => ({
    type: 'object',
    properties: {
      id: id80,
      kind: { enum: kinds },
      a: id80,
      b: id80,
      reach: id80,
      closed: { type: 'boolean' },
      voltageV: notNegative,
      capacitanceF: notNegative,
      ...(resistances && { resistanceOhm: notNegative }),
    },
    required: ['id', 'kind', 'a', 'b', 'reach', ...required],
    additionalProperties: false,
  });
  const ohm = resistances ? ['resistanceOhm'] : [];
  return {
    anyOf: [
      of(['module'], ['voltageV', ...ohm]),
      of(elementKinds.filter(isConductor), ['closed', ...ohm]),
      of(['resistor'], ohm),
      of(['load'], []),
    ],
  };
}

function problemsOf(
  element: unknown,
  known: ReadonlySet<string>,
  resistances: boolean,
  ids: Set<string>,
): [field: string, message: string][] {
  if (typeof element !== 'object' || element === null || Array.isArray(element))
    return [['', 'must be an object']];
  const given = element as Record<string, unknown>;
  const problems: [string, string][] = [];
  for (const field of textFields) {
    const text = given[field];
    if (text === undefined) problems.push([field, 'is required']);
    else if (typeof text !== 'string' || text === '' || text.length > 80)
      problems.push([field, 'must be text of 1 to 80 characters']);
  }
  const kind = elementKinds.find((one) => one === given.kind);
  if (kind === undefined)
    problems.push([
      'kind',
      given.kind === undefined ? 'is required' : `must be one of ${elementKinds.join(', ')}`,
    ]);
  const isSwitch = kind !== undefined && isConductor(kind);
  if (given.closed === undefined ? isSwitch : typeof given.closed !== 'boolean')
    problems.push(['closed', given.closed === undefined ? 'is required' : 'must be true or false']);
  const numeric = (field: string, required: boolean, rule: NumberRule) => {
    const value = given[field];
    const message = value === undefined ? (required ? 'is required' : null) : numberProblem(value, rule);
    if (message !== null) problems.push([field, message]);
  };
  numeric('voltageV', kind === 'module', { min: 0 });
  numeric('capacitanceF', false, { min: 0 });
  if (resistances) numeric('resistanceOhm', kind !== undefined && kind !== 'load', { min: 0 });
  for (const field of Object.keys(given))
    if (!known.has(field)) problems.push([field.slice(0, 60), 'is not a field of this input']);
  if (typeof given.id === 'string') {
    if (ids.has(given.id)) problems.push(['id', 'is taken by an earlier element']);
    ids.add(given.id);
  }
  return problems;
}
