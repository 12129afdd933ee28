import { formatNumber } from '../quantity';
import type { WorkingStep } from './worksheet';

/** Letters, digits, primes and sub-/superscripts make up one symbol. */
const symbolPattern = /[\p{L}_][\p{L}\p{N}_′'₀-₉²³]*/gu;

/**
 * The formula of a step with its numbers in place of its symbols, to four significant digits.
 * Negative numbers stand in brackets; names of functions (ln, exp, √) stay.
 */
export function substitute(step: WorkingStep): string {
  const values = new Map(step.inputs.map((input) => [input.symbol, input]));
  return step.formula.replace(symbolPattern, (word) => {
    const whole = values.get(word);
    if (whole !== undefined) return number(whole.value);
    const power = /^(.*?)([²³])$/u.exec(word);
    const base = power?.[1] === undefined ? undefined : values.get(power[1]);
    return base === undefined ? word : `${number(base.value)}${power?.[2]}`;
  });
}

function number(value: number): string {
  const text = formatNumber(value, 4);
  return value < 0 ? `(${text})` : text;
}
