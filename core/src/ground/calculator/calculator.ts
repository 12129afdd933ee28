import type { Finding, Rule } from '../finding';
import { substitute, Worksheet, type WorkingStep } from '../working';
import { doorSchema, openDoor, type DoorRules, type Issue, type JsonSchema, type Parsed } from '../shape';

export interface Outcome<Result> {
  result: Result;
  working: WorkingStep[];
  findings: Finding[];
}

/**
 * A stateless calculation: the same object serves the stations, HTTP and the tests.
 * `parse` is strict; `calculate` takes only what `parse` let through.
 */
export interface Calculator<Input, Result> {
  name: string;
  /** Raised whenever its results change: what was judged by an older version is stale. */
  version: number;
  title: string;
  /** Rules it can raise. */
  rules: Rule[];
  parse(body: unknown): Parsed<Input>;
  /** What `parse` lets pass, as JSON Schema; rules between fields are not in it. */
  inputSchema(): JsonSchema;
  /** Whether a body takes long enough that others should not wait for it; absent: none does. */
  isLong?(body: unknown): boolean;
  calculate(input: Input): Outcome<Result>;
}

/** What a calculation writes while it runs. */
export interface Desk {
  sheet: Worksheet;
  raise(rule: Rule, message: string): void;
}

interface Definition<Input, Result> {
  name: string;
  version: number;
  title: string;
  rules?: Rule[];
  door: DoorRules;
  isLong?: (body: unknown) => boolean;
  compute(input: Input, desk: Desk): Result;
}

/** Makes a calculator from its door and its computation. */
export function defineCalculator<Input, Result>(
  definition: Definition<Input, Result>,
): Calculator<Input, Result> {
  const { name, version, title, rules = [], door, isLong, compute } = definition;
  return {
    name,
    version,
    title,
    rules,
    parse: (body) => openDoor<Input>(body, door),
    inputSchema: () => doorSchema(door) ?? {},
    ...(isLong !== undefined && { isLong }),
    calculate(input) {
      const sheet = new Worksheet();
      const findings: Finding[] = [];
      const result = compute(input, {
        sheet,
        raise: (rule, message) => findings.push({ rule, message }),
      });
      return { result, working: sheet.steps, findings };
    },
  };
}

/** The answer of `POST /api/calc/<name>`. */
export interface CalculatorAnswer {
  result: unknown;
  working: {
    symbol: string;
    label: string;
    formula: string;
    substituted: string;
    value: number | null;
    unit: string;
    source: string;
  }[];
  findings: { rule: string; severity: string; message: string }[];
}

/** A calculator whose types are not needed: for the register and the route. */
export type AnyCalculator = Pick<
  Calculator<never, unknown>,
  'name' | 'version' | 'title' | 'rules' | 'isLong' | 'inputSchema'
> & {
  answer(body: unknown): { ok: true; answer: CalculatorAnswer } | { ok: false; issues: Issue[] };
};

/** Wraps a calculator for the register: parse, calculate, check that every figure is finite. */
export function registered<Input, Result>(calculator: Calculator<Input, Result>): AnyCalculator {
  const { name, version, title, rules, isLong, inputSchema } = calculator;
  return {
    name,
    version,
    title,
    rules,
    inputSchema,
    ...(isLong !== undefined && { isLong }),
    answer(body) {
      const parsed = calculator.parse(body);
      if (!parsed.ok) return parsed;
      const { result, working, findings } = calculator.calculate(parsed.input);
      if (!allFinite(result)) return { ok: false, issues: [outOfRange(parsed.input)] };
      return {
        ok: true,
        answer: {
          result,
          working: working.map((step) => ({
            symbol: step.symbol,
            label: step.label,
            formula: step.formula,
            substituted: substitute(step),
            value: step.value !== null && Number.isFinite(step.value) ? step.value : null,
            unit: step.unit,
            source: step.source,
          })),
          findings: findings.map(({ rule, message }) => ({ rule: rule.id, severity: rule.grade, message })),
        },
      };
    },
  };
}

/** True when no number in the value is NaN or infinite. */
export function allFinite(value: unknown): boolean {
  if (typeof value === 'number') return Number.isFinite(value);
  if (typeof value !== 'object' || value === null) return true;
  return (Array.isArray(value) ? value : Object.values(value)).every(allFinite);
}

/** Names the input whose magnitude is most extreme: the likeliest cause of a figure beyond all numbers. */
export function outOfRange(input: unknown): Issue {
  let worst = { path: '', size: -1 };
  const walk = (value: unknown, path: string) => {
    if (typeof value === 'number') {
      const size = value === 0 ? 400 : Math.abs(Math.log10(Math.abs(value)));
      if (size > worst.size) worst = { path, size };
    } else if (typeof value === 'object' && value !== null) {
      for (const [key, child] of Object.entries(value)) walk(child, path === '' ? key : `${path}.${key}`);
    }
  };
  walk(input, '');
  return { path: worst.path, message: 'is so extreme that the result is no longer a number' };
}
