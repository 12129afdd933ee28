import { gapText, type FigureId } from '../../ground/figure';
import { gradeNames } from '../../ground/finding';
import { formatNumber, formatQuantity } from '../../ground/quantity';
import type { Design, Station } from '../../model/document';
import type { Evaluation } from '../../model/step';
import type { ProcedureStep } from '../commissioning';
import { stationOfCheck, type Assessment, type LiveState } from '../design';
import type { SheetBlock } from './sheet';

/** What a sheet is made from: a design as saved, what follows from it, and the record up to now. */
export interface SheetContext {
  design: Design;
  evaluation: Evaluation;
  procedure: readonly ProcedureStep[];
  assessment: Assessment;
  live: LiveState;
}

/** A figure with its unit; or why there is none. */
export function said({ evaluation }: Pick<SheetContext, 'evaluation'>, id: FigureId, digits = 3): string {
  const figure = evaluation.figures[id];
  if (figure === undefined) return '—';
  return figure.value === null ? 'not computed' : formatQuantity(figure.value, figure.unit, digits);
}

/** The figure alone, where its unit stands in the head of the column; “?” where it is not computed. */
export function bare(
  { evaluation }: Pick<SheetContext, 'evaluation'>,
  id: FigureId,
  digits = 3,
  scale = 1,
): string {
  const value = evaluation.figures[id]?.value;
  return value === undefined ? '—' : value === null ? '?' : formatNumber(value * scale, digits);
}

/** The plate of the vehicle, whole. */
export function plate(context: SheetContext): SheetBlock {
  const { design, live } = context;
  const { peakCurrentA } = design.pack;
  return {
    kind: 'facts',
    rows: [
      [
        'pack window',
        `${said(context, 'pack.pack:pack:voltageMinV')} to ${said(context, 'pack.pack:pack:voltageMaxV')}`,
      ],
      ['energy, usable', said(context, 'pack.pack:pack:usableEnergyKWh')],
      [
        'at peak',
        `${peakCurrentA === undefined ? '' : `${formatQuantity(peakCurrentA, 'A')}, `}${said(context, 'pack.pack:pack:voltageAtPeakV')}`,
      ],
      ['mass', said(context, 'vehicle.axles:vehicle:totalKg', 4)],
      ['state as last recorded', live.detail === '' ? live.text : `${live.text}; ${live.detail}`],
    ],
  };
}

/** What is found and what was not checked at some stations, so that a sheet does not look better than the design. */
export function findings(context: SheetContext, stations: readonly Station[]): SheetBlock[] {
  const { assessment, evaluation } = context;
  const here = assessment.findings.filter(({ check }) => stations.includes(stationOfCheck(check)));
  const unchecked = evaluation.checks.flatMap((check) =>
    check.state === 'not-checked' && stations.includes(stationOfCheck(check)) ? [check] : [],
  );
  const blocks: SheetBlock[] = [{ kind: 'heading', text: 'Findings' }];
  if (here.length === 0) blocks.push({ kind: 'text', text: 'None is open here.' });
  else
    blocks.push({
      kind: 'table',
      columns: [{ title: 'grade' }, { title: 'what' }, { title: 'in figures' }, { title: 'accepted' }],
      rows: here.map(({ check, accepted }) => [
        gradeNames[check.grade],
        check.rule.title,
        check.message,
        accepted === null ? 'no' : `entry ${accepted.seq}`,
      ]),
    });
  if (unchecked.length > 0) {
    const gaps = [...new Set(unchecked.flatMap(({ gaps: own }) => own.map(gapText)))];
    blocks.push({
      kind: 'text',
      text: `Not checked: ${unchecked.length} rules, because ${gaps.slice(0, 12).join('; ')}${gaps.length > 12 ? `; and ${gaps.length - 12} more` : ''}.`,
      tone: 'soft',
    });
  }
  return blocks;
}

/** The usual word at HV work, on every sheet that leads to it. */
export const hvWord: SheetBlock = {
  kind: 'text',
  tone: 'warn',
  text: 'High voltage kills. Isolated, locked off, discharged and proved dead with a meter that was proved before and after, unless a step says that it is live; rated gloves and tools, no jewellery, a second person. This sheet computes; it does not say that something is safe. Makers’ documents, local rules and licensed people come first.',
};
