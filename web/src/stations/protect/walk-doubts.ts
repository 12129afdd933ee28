import type { JointWork } from '@torvek/core/record';

export interface Read {
  id: string;
  tag: string;
  /** N·m, or volts. */
  value: number;
}

/** A reading this many times what is usual, or that fraction of it, is asked about before it is recorded. */
const doubtTimes = 8;

/** Where nothing is usual yet: what a thousandfold slip of a sound or a bad one would lie beyond, Ω. */
const soundOhm: Record<'drop' | 'bond', [leastOhm: number, mostOhm: number]> = {
  drop: [1e-6, 5e-3],
  bond: [1e-5, 1],
};

/**
 * Readings that look like a slip of the decimal point, of the unit or of the joint; leads may be swapped.
 *
 * @param expected what one should read; null: not known
 * @param currentA that flowed; null: not said, or none is needed
 */
export function doubtsOf(
  read: readonly Read[],
  work: JointWork,
  currentA: number | null,
  expected: (id: string) => number | null,
): Read[] {
  const sizes = read.map(({ value }) => Math.abs(value)).sort((a, b) => a - b);
  const middle = sizes.length < 3 ? null : sizes[sizes.length >> 1]!;
  const unsound = (size: number) => {
    if (work === 'torque' || currentA === null || size === 0) return false;
    const [leastOhm, mostOhm] = soundOhm[work];
    return size / currentA < leastOhm || size / currentA > mostOhm;
  };
  return read.filter(({ id, value }) => {
    const known = expected(id);
    // All may be slipped alike, so the middle of them says nothing of the unit.
    if (known === null && unsound(Math.abs(value))) return true;
    const usual = known ?? middle;
    if (usual === null || usual === 0) return false;
    const times = Math.abs(value / usual);
    return times > doubtTimes || times < 1 / doubtTimes;
  });
}
