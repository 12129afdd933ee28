import type { ProcedureStep } from '@torvek/core/commissioning';
import type { StepStatus } from '@torvek/core/design';
import type { Design, Id } from '@torvek/core/document';

/** A leak test of a loop, at the bench, in a box or in the vehicle, with what was recorded last. */
export interface LeakRow {
  step: string;
  title: string;
  state: string;
  rawKPa: number | null;
  correctedKPa: number | null;
  at: string | null;
  by: string;
}

const words: Record<StepStatus['state'], string> = {
  passed: 'holds',
  failed: 'leaks',
  stale: 'due again',
  due: 'not tested',
};

/** The leak tests that concern a loop, in the order of the procedure. */
export function leakRows(
  { plumbing = {}, modules }: Pick<Design, 'plumbing' | 'modules'>,
  procedure: readonly ProcedureStep[],
  statuses: readonly StepStatus[],
  loop: Id,
): LeakRow[] {
  const plates = new Set(Object.keys(plumbing).filter((id) => plumbing[id]!.loop === loop));
  const boxes = new Set(
    [...plates].flatMap((id) =>
      (plumbing[id]!.modules ?? []).flatMap((module) => modules[module]?.box ?? []),
    ),
  );
  const concerns = (id: string) => {
    const [template, subject = ''] = id.split(':');
    if (template === 'leak-plate') return plates.has(subject);
    if (template === 'leak-box') return boxes.has(subject);
    return template === 'leak-loop' && subject === loop;
  };
  return procedure.flatMap((step): LeakRow[] => {
    if (!concerns(step.id)) return [];
    const status = statuses.find((one) => one.step.id === step.id);
    const entry = status?.entry ?? null;
    const detail = (label: string) => entry?.body.details.find((one) => one.label === label)?.value ?? null;
    return [
      {
        step: step.id,
        title: step.title,
        state: words[status?.state ?? 'due'],
        rawKPa: detail('raw drop'),
        correctedKPa: detail('corrected drop'),
        at: entry?.takenAt ?? null,
        by: entry?.by ?? '',
      },
    ];
  });
}
