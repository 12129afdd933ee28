import type { PlanTask } from '@torvek/core/balance';

/** Tasks of one kind that are done in one go. */
export interface DueGroup {
  key: string;
  kind: PlanTask['kind'];
  fromMs: number;
  /** The one that is late most. */
  lateH: number;
  tasks: PlanTask[];
}

const minute = 60_000;
/** What lies closer together than this is one walk to the bench. */
const togetherMs = 30 * minute;

/**
 * What is to be done from now until an instant, grouped by kind and time; readings that are due now are one walk.
 *
 * @param untilMs end of the day
 */
export function dueUntil(tasks: readonly PlanTask[], nowMs: number, untilMs: number): DueGroup[] {
  const due = tasks
    .filter(
      ({ kind, state, fromMs }) =>
        fromMs < untilMs &&
        (kind === 'take off' ||
          kind === 'read' ||
          kind === 'raise' ||
          (kind === 'load' && state === 'planned')),
    )
    .sort((a, b) => a.fromMs - b.fromMs);
  const groups: DueGroup[] = [];
  for (const task of due) {
    const at = Math.max(task.fromMs, nowMs);
    const open = groups.find(({ kind, fromMs }) => kind === task.kind && at - fromMs < togetherMs);
    if (open === undefined)
      groups.push({
        key: `${task.kind}:${at}`,
        kind: task.kind,
        fromMs: at,
        lateH: task.lateH,
        tasks: [task],
      });
    else {
      open.tasks.push(task);
      open.lateH = Math.max(open.lateH, task.lateH);
    }
  }
  return groups.sort((a, b) => b.lateH - a.lateH || a.fromMs - b.fromMs);
}
