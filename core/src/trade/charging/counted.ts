import type { CheckValue } from '../../ground/finding';

/** Yes or no, as a value of a finding. */
export const yes = (label: string, value: boolean | undefined): CheckValue => ({
  label,
  value: value === true ? 1 : 0,
  unit: '',
});
export const count = (label: string, value: number): CheckValue => ({ label, value, unit: '' });
