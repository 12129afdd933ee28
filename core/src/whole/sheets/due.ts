import { formatQuantity } from '../../ground/quantity';
import { gradeNames } from '../../ground/finding';
import { hvWord, plate, type SheetContext } from './context';
import type { Sheet, SheetBlock } from './sheet';

/** What can be done now: re-tests and failures first, then the steps of gates that are open, then what keeps gates shut. */
export function dueSheet(context: SheetContext): Sheet {
  const { assessment } = context;
  const open = new Map(assessment.gates.map((gate) => [gate.id, gate]));
  const now = assessment.steps.filter(({ step, state }) => state !== 'passed' && open.get(step.gate)?.open);
  const of = (states: readonly string[]) => now.filter(({ state }) => states.includes(state));
  const blocks: SheetBlock[] = [plate(context), hvWord];
  const ticks = (heading: string, items: string[]) => {
    if (items.length > 0)
      blocks.push({ kind: 'heading', text: heading }, { kind: 'list', items, ticks: true });
  };
  ticks(
    'Failed, to be explained and cured',
    assessment.deviations
      .filter(({ state }) => state === 'open')
      .map(({ result }) => `${result.body.title} (entry ${result.seq}): ${result.body.reasons.join('; ')}`),
  );
  ticks(
    'Again, because something moved',
    of(['stale']).map(
      ({ step, moved, workSince }) =>
        `${step.title}: ${moved
          .slice(0, 2)
          .map(
            ({ label, unit, was, now: is }) =>
              `${label} was ${formatQuantity(was, unit)}, is ${is === null ? 'no longer computed' : formatQuantity(is, unit)}`,
          )
          .concat(workSince === null ? [] : [`work since: ${workSince}`])
          .join('; ')}`,
    ),
  );
  ticks(
    'Open findings that stop',
    assessment.findings
      .filter(({ check, accepted }) => check.grade === 'stop' && accepted === null)
      .map(({ check }) => `${gradeNames[check.grade]}: ${check.message}`),
  );
  const due = of(['due', 'failed']);
  for (const gate of assessment.gates) {
    const own = due.filter(({ step }) => step.gate === gate.id);
    ticks(
      `Due: ${gate.title}`,
      own.map(({ step }) =>
        step.expected === null ? `${step.title}: not computed yet` : `${step.title}: ${step.expectedText}`,
      ),
    );
  }
  ticks(
    'Provisional, to be gone',
    assessment.snags.filter(({ gone }) => gone === null).map(({ entry }) => entry.body.what),
  );
  const shut = assessment.gates.filter((gate) => !gate.open && !gate.passed);
  if (shut.length > 0)
    blocks.push(
      { kind: 'heading', text: 'Shut until then' },
      {
        kind: 'table',
        columns: [{ title: 'gate' }, { title: 'waits for' }],
        rows: shut.map(({ title, waitsFor }) => [title, waitsFor.join('; ')]),
      },
    );
  return { id: 'to-do', title: 'To do', about: 'What the record and the design ask for next.', blocks };
}
