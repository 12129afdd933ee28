import type { NumberRule } from '../../ground/shape';
import { cableAreasMm2 } from './copper';

/** What one figure of a part's data is: its words, its unit, what it may be. */
export type PartField =
  | { kind: 'number'; name: string; label: string; unit: string; rule: NumberRule; optional?: boolean }
  | { kind: 'choice'; name: string; label: string; choices: readonly (string | number)[]; unit?: string }
  | { kind: 'flag'; name: string; label: string; yes: string; no: string; optional?: boolean }
  | TableField;

/** A curve: pairs whose first column rises. */
export interface TableField {
  kind: 'table';
  name: string;
  label: string;
  columns: [CurveColumn, CurveColumn];
  optional?: boolean;
  minRows?: number;
  /** The second column falls strictly. */
  falling?: boolean;
  /** It begins at 0, and the second column never rises. */
  neverRising?: boolean;
}

export interface CurveColumn {
  label: string;
  unit: string;
  rule: NumberRule;
  /** How a data sheet's plot usually divides this axis. */
  scale: 'log' | 'linear';
}

export const n = (name: string, label: string, unit: string, rule: NumberRule = { above: 0 }): PartField => ({
  kind: 'number',
  name,
  label,
  unit,
  rule,
});
/** A figure that not every maker gives. */
export const maybe = (name: string, label: string, unit: string): PartField => ({
  kind: 'number',
  name,
  label,
  unit,
  rule: { above: 0 },
  optional: true,
});
export const axis = (label: string, unit: string, rule: NumberRule = { above: 0 }): CurveColumn => ({
  label,
  unit,
  rule,
  scale: 'linear',
});
export const amps: CurveColumn = { label: 'Current', unit: 'A', rule: { above: 0 }, scale: 'log' };
export const seconds: CurveColumn = { label: 'Time', unit: 's', rule: { above: 0 }, scale: 'log' };
export const celsius = (label: string): CurveColumn => ({
  label,
  unit: '°C',
  rule: { min: -273.15 },
  scale: 'linear',
});
export const fraction: NumberRule = { min: 0, max: 1 };
export const temperature: NumberRule = { min: -100, max: 1000 };
export const area: PartField = {
  kind: 'choice',
  name: 'areaMm2',
  label: 'Conductor area',
  choices: cableAreasMm2,
  unit: 'mm²',
};
