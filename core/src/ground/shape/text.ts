import type * as yup from 'yup';
import { judged, typeName } from './judged';

function textProblem(value: unknown, max: number, min: number): string | null {
  if (typeof value !== 'string') return `must be text, not ${typeName(value)}`;
  if (value.length === 0 && min > 0) return 'must not be empty';
  if (value.length < min) return `must have at least ${min} characters`;
  return value.length > max ? `must be at most ${max} characters` : null;
}

const textShape = (max: number, min: number, optional: boolean): yup.MixedSchema =>
  judged(
    (value) => textProblem(value, max, min),
    optional,
    () => ({
      type: 'string',
      minLength: min,
      maxLength: max,
    }),
  );

/** A required text of `min` to `max` characters; `text.optional(max)` where it may be absent. */
export const text = (max = 200, { min = 1 } = {}): yup.MixedSchema => textShape(max, min, false);
text.optional = (max = 200, { min = 1 } = {}): yup.MixedSchema => textShape(max, min, true);

type Choice = string | number | boolean;

const choiceShape = (choices: readonly Choice[], optional: boolean): yup.MixedSchema =>
  judged(
    (value) => (choices.includes(value as Choice) ? null : `must be one of ${choices.join(', ')}`),
    optional,
    () => ({ enum: choices }),
  );

/** One of a list of values; `oneOf.optional(choices)` where it may be absent. */
export const oneOf = (choices: readonly Choice[]): yup.MixedSchema => choiceShape(choices, false);
oneOf.optional = (choices: readonly Choice[]): yup.MixedSchema => choiceShape(choices, true);

function dayProblem(value: unknown): string | null {
  const wrong = 'must be a day as YYYY-MM-DD';
  if (typeof value !== 'string' || !/^\d{4}-\d{2}-\d{2}$/.test(value)) return wrong;
  const at = Date.parse(value);
  return !Number.isNaN(at) && new Date(at).toISOString().slice(0, 10) === value ? null : wrong;
}

const dayShape = (optional: boolean): yup.MixedSchema =>
  judged(dayProblem, optional, () => ({
    type: 'string',
    minLength: 10,
    maxLength: 10,
    description: 'a day as YYYY-MM-DD',
  }));

/** A required day as `YYYY-MM-DD` that is on the calendar; `day.optional()` where it may be absent. */
export const day = (): yup.MixedSchema => dayShape(false);
day.optional = (): yup.MixedSchema => dayShape(true);
