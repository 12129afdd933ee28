import { gates } from '../../record';
import type { Design } from '../../model/document';
import { bondWalk, torqueWalk } from './walks';
import { boxSheet } from './box';
import { circuitSchedule } from './circuits';
import type { SheetContext } from './context';
import { loomSheet, senseSheet } from './harness';
import { ladderSheet } from './ladder';
import { blankProcedure } from './procedure';
import { dueSheet } from './due';
import type { Sheet } from './sheet';

export type { SheetContext } from './context';
export type { Sheet, SheetBlock, SheetColumn } from './sheet';

interface SheetKind {
  title: string;
  /** What there is one sheet of each; absent: one for the job. The first may be all of them. */
  subjects?(design: Design): { id: string; tag: string }[];
  make(context: SheetContext, subject: string | null): Sheet;
}

/** Every sheet that can be printed, in the order of the job. */
export const sheetKinds = {
  'to-do': { title: 'To do', make: dueSheet },
  circuits: { title: 'Circuit schedule', make: circuitSchedule },
  box: {
    title: 'Box sheet',
    subjects: ({ boxes }) => Object.entries(boxes).map(([id, { tag }]) => ({ id, tag })),
    make: (context, subject) => boxSheet(context, subject ?? Object.keys(context.design.boxes)[0] ?? ''),
  },
  torques: { title: 'Torque walk', make: torqueWalk },
  bonds: { title: 'Bond walk', make: bondWalk },
  ladder: { title: 'Cut-off ladder', make: ladderSheet },
  looms: { title: 'Continuity of the looms', make: loomSheet },
  sense: { title: 'Sense harness', make: senseSheet },
  procedure: {
    title: 'Procedure',
    subjects: () => [{ id: '', tag: 'all gates' }, ...gates.map(({ id, title }) => ({ id, tag: title }))],
    make: (context, subject) => blankProcedure(context, subject === '' ? null : subject),
  },
} as const satisfies Record<string, SheetKind>;
export type SheetId = keyof typeof sheetKinds;

export const isSheet = (id: string): id is SheetId => Object.hasOwn(sheetKinds, id);

/** What there is one sheet of each. */
export const subjectsOfSheet = (id: SheetId, design: Design): { id: string; tag: string }[] =>
  (sheetKinds[id] as SheetKind).subjects?.(design) ?? [];

/** A sheet of a design and its record; null: there is nothing of that name. */
export function makeSheet(id: SheetId, context: SheetContext, subject: string | null): Sheet | null {
  const kind: SheetKind = sheetKinds[id];
  const subjects = kind.subjects?.(context.design);
  if (subject !== null && subject !== '' && subjects?.every((one) => one.id !== subject) !== false)
    return null;
  return kind.make(context, subject);
}
