import { conductorsOf, runLengths, type Design, type Id } from '@torvek/core/document';
import { stockOf, type Entry, type Item } from '@torvek/core/record';
import { cutPlan, type CutPlanResult } from '@torvek/core/routing';
import type { Label } from '../../../parts/labels';

/** A conductor to cut. */
export interface Cut {
  id: string;
  run: Id;
  name: string;
  lengthM: number;
}

/** A run on the cut list: each of its conductors has this length. */
export interface CutRow {
  run: Id;
  tag: string;
  part: string;
  partLabel: string;
  count: number;
  lengthM: number | null;
  /** Both ends can no longer move: cut now; else it is measured in place. */
  now: boolean;
  /** What was cut last, m; null: nothing yet. */
  cutM: number | null;
}

type Told = Pick<Entry, 'body'>;

/** Every conductor and hose of every run, by run and kind. */
export function cutRows(design: Design, entries: readonly Told[]): CutRow[] {
  const cut = new Map<string, number>();
  for (const { body } of entries) if (body.kind === 'cable-cut') cut.set(body.place, body.lengthM);
  return Object.entries(design.runs ?? {}).flatMap(([id, run]) => {
    const byPart = new Map<string, number>();
    const hoses = (run.hoses ?? []).map((hose) => ({ cable: design.plumbing?.[hose]?.hose, count: 1 }));
    for (const { cable, count } of [...conductorsOf(run, design), ...hoses])
      if (cable !== undefined) byPart.set(cable, (byPart.get(cable) ?? 0) + count);
    return [...byPart].map(([part, count]): CutRow => ({
      run: id,
      tag: run.tag,
      part,
      partLabel: design.parts[part]?.label ?? part,
      count,
      lengthM: runLengths(run)?.cutM ?? null,
      now: run.fromFixed === true && run.toFixed === true,
      cutM: cut.get(`runs.${id}.cutLengthM`) ?? null,
    }));
  });
}

export interface Reel {
  id: string;
  name: string;
  part: string;
  lengthM: number;
  leftM: number;
}

/** Reels of the stock with what is left of each. */
export const reelsOf = (entries: readonly Entry[]): Reel[] =>
  [...stockOf(entries).items.values()].flatMap((item: Item) =>
    item.lengthM === null || item.part === null || item.state === 'retired' || item.state === 'rejected'
      ? []
      : [
          {
            id: item.id,
            name: item.serial ?? item.id,
            part: item.part,
            lengthM: item.lengthM,
            leftM: Math.max(0, item.lengthM - item.cutM),
          },
        ],
  );

export interface PartPlan {
  part: string;
  label: string;
  cuts: Cut[];
  plan: CutPlanResult;
  /** False: a good plan, not the best for certain. */
  exact: boolean;
}

/** For each kind of cable: what is still to be cut, laid on its reels. */
export function plansOf(rows: readonly CutRow[], reels: readonly Reel[]): PartPlan[] {
  const kinds = [...new Set(rows.map(({ part }) => part))];
  return kinds.flatMap((part) => {
    const due = rows.filter((row) => row.part === part && row.cutM === null && row.lengthM !== null);
    const cuts = due.flatMap(({ run, tag, count, lengthM }) =>
      Array.from({ length: count }, (_, i): Cut => ({
        id: `${run}/${i + 1}`,
        run,
        name: count === 1 ? tag : `${tag} ${i + 1}`,
        lengthM: lengthM!,
      })),
    );
    if (cuts.length === 0) return [];
    const parsed = cutPlan.parse({
      reels: reels.filter((one) => one.part === part).map(({ id, leftM }) => ({ id, lengthM: leftM })),
      cuts: cuts.map(({ id, lengthM }) => ({ id, lengthM })),
    });
    if (!parsed.ok) return [];
    const { result, findings } = cutPlan.calculate(parsed.input);
    const label = rows.find((row) => row.part === part)!.partLabel;
    return [
      {
        part,
        label,
        cuts,
        plan: result,
        exact: !findings.some(({ rule }) => rule.id === 'cut-plan.not-exact'),
      },
    ];
  });
}

/** Two labels for each run, one for either end: what it carries, from where to where, how long. */
export function runLabels(job: string, design: Design): Label[] {
  const things: Record<string, { tag: string } | undefined> = { ...design.boxes, ...design.devices };
  const name = (id: Id | undefined) => things[id ?? '']?.tag ?? 'not said';
  return Object.entries(design.runs ?? {}).flatMap(([id, run]) => {
    const carries = [
      ...(run.circuits ?? []).map((one) => design.circuits[one]?.tag ?? one),
      ...(run.leads ?? []).map((one) => design.pack.leads?.[one]?.tag ?? one),
      ...(run.boards ?? []).map((one) => `sense wires of ${design.boards?.[one]?.tag ?? one}`),
      ...(run.hoses ?? []).map((one) => design.plumbing?.[one]?.tag ?? one),
    ].join(', ');
    const cutM = runLengths(run)?.cutM;
    const label = (end: string): Label => ({
      title: run.tag,
      lines: [
        job,
        carries === '' ? 'carries nothing yet' : carries,
        `${name(run.from)} to ${name(run.to)}, ${end}`,
        ...(cutM === undefined ? [] : [`${cutM.toFixed(2)} m as designed`]),
      ],
      path: `route?run=${encodeURIComponent(id)}`,
    });
    return [label('beginning'), label('end')];
  });
}
