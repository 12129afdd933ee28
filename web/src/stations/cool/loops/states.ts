import { bypassBelow, starvedBelow, type CoolingCase, type LoopAnswer } from '@torvek/core/cooling';
import type { Id } from '@torvek/core/document';

/** What a picture shows: flows alone, with all pumps on, or a case with its temperatures. */
export type Shown = 'flows' | CoolingCase;

export interface PieceState {
  /** L/min from its beginning to its end; null: not known. */
  flow: number | null;
  outC: number | null;
  surfaceC: number | null;
  heatW: number | null;
  /** A word where something is wrong with it. */
  mark: string | null;
}

/** Every piece of a loop as it is in what is shown. */
export function statesOf(answer: LoopAnswer | null, shown: Shown): Map<Id, PieceState> {
  const states = new Map<Id, PieceState>();
  if (answer === null) return states;
  const own = shown === 'flows' ? undefined : answer.cases.find(({ at }) => at === shown);
  const flows = own?.flows ?? answer.flows;
  const means = new Map<Id, number>();
  for (const { plates } of answer.balance) {
    const sum = plates.reduce((all, id) => {
      const i = answer.elements.findIndex((one) => one.id === id);
      return all + Math.abs(flows[i] ?? 0);
    }, 0);
    for (const id of plates) means.set(id, sum / plates.length);
  }
  answer.elements.forEach((element, i) => {
    const flow = flows[i]!;
    const warm = own?.piecesC?.[element.id] ?? null;
    states.set(element.id, {
      flow,
      outC: warm?.outC ?? null,
      surfaceC: warm?.surfaceC ?? null,
      heatW: warm?.heatW ?? null,
      mark: markOf(element, flow, means.get(element.id)),
    });
  });
  return states;
}

function markOf(
  element: LoopAnswer['elements'][number],
  flow: number,
  mean: number | undefined,
): string | null {
  if (element.kind === 'valve' && element.openFraction === 0) return 'shut';
  if (element.kind !== 'valve' && Math.abs(flow) < 0.005) return 'stands still';
  if (mean !== undefined && Math.abs(flow) < starvedBelow * mean) return 'starved';
  if (element.kind === 'pump' && flow < 0) return 'pushed backward';
  return null;
}

/** What a loop does, in a sentence. */
export function sentenceOf(
  tag: string,
  pumpLPerMin: number | null,
  share: number | null,
  worst: number | null,
): string {
  if (pumpLPerMin === null) return `${tag}: not computed yet.`;
  const parts = [`${tag}: ${pumpLPerMin.toPrecision(3)} L/min`];
  if (share !== null && share < bypassBelow)
    parts.push(`only ${Math.round(100 * share)} % of it through what is cooled`);
  if (worst !== null) parts.push(`like plates differ by up to ${Math.round(100 * worst)} %`);
  return `${parts.join('; ')}.`;
}
