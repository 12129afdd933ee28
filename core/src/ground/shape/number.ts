import type * as yup from 'yup';
import type { JsonSchema } from './describe';
import { judged, typeName } from './judged';

/** Numbers beyond this are refused everywhere: no physical quantity of this trade is larger. */
export const largest = 1e9;

export interface NumberRule {
  /** Least value that passes. */
  min?: number;
  /** Largest value that passes. */
  max?: number;
  /** The value must lie above this. */
  above?: number;
  /** The value must lie below this. */
  below?: number;
  integer?: boolean;
}

/** What is wrong with a value that should be a number, or null. */
export function numberProblem(value: unknown, rule: NumberRule = {}): string | null {
  if (typeof value !== 'number') return `must be a number, not ${typeName(value)}`;
  if (!Number.isFinite(value)) return 'must be a finite number';
  if (Math.abs(value) > largest) return 'must lie within ±1e9';
  if (rule.integer === true && !Number.isInteger(value)) return 'must be a whole number';
  if (rule.min !== undefined && value < rule.min) return `must be ${rule.min} or more`;
  if (rule.max !== undefined && value > rule.max) return `must be ${rule.max} or less`;
  if (rule.above !== undefined && value <= rule.above) return `must be above ${rule.above}`;
  if (rule.below !== undefined && value >= rule.below) return `must be below ${rule.below}`;
  return null;
}

/** Whether a value is a number under a rule: the quick half of `numberProblem`. */
export function isWithin(value: unknown, rule: NumberRule): boolean {
  return (
    typeof value === 'number' &&
    value >= -largest &&
    value <= largest &&
    (rule.min === undefined || value >= rule.min) &&
    (rule.above === undefined || value > rule.above) &&
    (rule.max === undefined || value <= rule.max) &&
    (rule.below === undefined || value < rule.below) &&
    (rule.integer !== true || Number.isInteger(value))
  );
}

/** A rule of numbers as JSON Schema. */
export function numberSchema({ min, max, above, below, integer }: NumberRule): JsonSchema {
  return {
    type: integer === true ? 'integer' : 'number',
    ...(above === undefined ? { minimum: min ?? -largest } : { exclusiveMinimum: above }),
    ...(above !== undefined && min !== undefined && { minimum: min }),
    ...(below === undefined ? { maximum: max ?? largest } : { exclusiveMaximum: below }),
    ...(below !== undefined && max !== undefined && { maximum: max }),
  };
}

const shapeOf = (rule: NumberRule, optional: boolean): yup.MixedSchema =>
  judged(
    (value) => numberProblem(value, rule),
    optional,
    () => numberSchema(rule),
  );

/** A required number; `number.optional(rule)` for one with a default. */
export const number = (rule: NumberRule = {}): yup.MixedSchema => shapeOf(rule, false);
number.optional = (rule: NumberRule = {}): yup.MixedSchema => shapeOf(rule, true);
