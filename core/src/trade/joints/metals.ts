import type { Face, PollutionDegree, StackItem } from '../../model/document';

/** How far below gold each metal lies, V. Source: the anodic index, as in MIL-STD-889. */
export const anodicIndexV: Readonly<Record<Face, number>> = {
  silver: 0.15,
  nickel: 0.3,
  copper: 0.35,
  brass: 0.4,
  tin: 0.65,
  aluminium: 0.9,
};

/** Between two faces, V. */
export const galvanicV = (a: Face, b: Face): number => Math.abs(anodicIndexV[a] - anodicIndexV[b]);

/**
 * What may lie between them, V: 0.5 where it stays dry, 0.25 where dew comes now and then, 0.15 where it is wet and dirty.
 * Source: practice with the anodic index, three surroundings
 */
export const galvanicLimitV = (pollution: PollutionDegree): number =>
  ({ 1: 0.5, 2: 0.25, 3: 0.15 })[pollution];

/** What carries current in a stack. */
const conducts = (item: StackItem) => item === 'post' || item === 'bar' || item === 'lug';

/**
 * What lies between faces that carry current, or null when they lie on each other: a steel washer between lug and bar
 * conducts a tenth as well, and springs.
 */
export function betweenFaces(stack: readonly StackItem[]): StackItem | null {
  const first = stack.findIndex(conducts);
  const last = stack.findLastIndex(conducts);
  return stack.slice(first, last).find((item) => !conducts(item)) ?? null;
}

/** Whether a spring washer lies directly on a face that carries current. */
export const springOnFace = (stack: readonly StackItem[]): boolean =>
  stack.some((item, i) => item === 'spring' && i > 0 && conducts(stack[i - 1]!));
