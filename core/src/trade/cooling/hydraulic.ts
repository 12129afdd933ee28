import { defineCalculator } from '../../ground/calculator';
import { record } from '../../ground/shape';
import { rulesOf, type Rule } from '../../ground/finding';
import { formatQuantity } from '../../ground/quantity';
import type { Worksheet } from '../../ground/working';
import { crossLoop, fluidOf, groundOf, loopFields, type LoopInput } from './door';
import { lawOf, pipeAt, pipeDefaults, PumpCurve, type FluidOfPipes } from './laws';
import { solveLoop, type SolvedLoop } from './solve';

export interface PumpPoint {
  id: string;
  flowLPerMin: number;
  headKPa: number;
  hydraulicW: number;
}

export interface HydraulicResult {
  /** By element, from its `from` to its `to`. */
  flowsLPerMin: Record<string, number>;
  nodeKPa: Record<string, number | null>;
  pumps: PumpPoint[];
  /** By pipe, of the flow whichever way. */
  reynolds: Record<string, number>;
  residualKPa: number;
  iterations: number;
}

const rule = rulesOf('hydraulic');
const pumpSource = 'Pump maker’s curve against the curve of the loop';

export const hydraulicRules = {
  beyond: rule(
    'pump-beyond',
    'mend',
    'A pump works beyond its curve',
    'What it does there its maker does not say; motor and bearings may be overloaded, and it may cavitate.',
    'More resistance in the loop, or a pump for a larger flow.',
    pumpSource,
  ),
  backward: rule(
    'pump-backward',
    'mend',
    'Coolant is pushed backward through a pump',
    'Another pump is stronger: this one only resists.',
    'A check valve, pumps of one kind, or a loop for each.',
    pumpSource,
  ),
  apart: rule(
    'node-apart',
    'mend',
    'A part of the plumbing has no open way to the rest',
    'Coolant there stands still, or goes round in its own circle; its pressure is not known.',
    'Open the valve, or connect it.',
    'Nodes that an open way joins to the ground node',
  ),
  unsolved: rule(
    'unsolved',
    'stop',
    'The flows could not be computed',
    'The laws of the elements did not come to balance; no figure is to be relied upon.',
    'Look for elements of nearly no resistance beside ones of very much.',
    'Largest mismatch of an element’s law above 1e-6 kPa',
  ),
};

export const hydraulicSource =
  'Darcy–Weisbach; 64/Re below Re 2300, Haaland above 4000, between them linear; continuity at every node';

/** A result is relied upon up to this mismatch, kPa, or this share of the largest head. */
export const isSolved = ({ residualKPa }: Pick<SolvedLoop, 'residualKPa'>, headKPa: number): boolean =>
  residualKPa <= Math.max(1e-6, 1e-9 * headKPa);

/** Operating points of the pumps of a solved loop. */
export function pumpPoints({ elements }: Pick<LoopInput, 'elements'>, flows: readonly number[]): PumpPoint[] {
  return elements.flatMap((element, i) => {
    if (element.kind !== 'pump') return [];
    const headKPa = new PumpCurve(element.curve).at(flows[i]!).value;
    return [{ id: element.id, flowLPerMin: flows[i]!, headKPa, hydraulicW: (flows[i]! * headKPa) / 60 }];
  });
}

/** How each element takes its pressure, line by line. */
export function writeLoop(sheet: Worksheet, input: LoopInput, solved: SolvedLoop): void {
  const fluid = fluidOf(input.fluid);
  input.elements.forEach((element, i) => {
    const q = solved.flows[i]!;
    const at = `elements.${i}`;
    const flow = { symbol: 'Q', value: q, unit: 'L/min' };
    const { dropKPa } = element.kind === 'valve' && q === 0 ? { dropKPa: 0 } : lawOf(element, fluid).at(q);
    switch (element.kind) {
      case 'pump':
        sheet.add({
          symbol: 'H',
          label: `Head of ${element.id}`,
          formula: 'curve(Q)',
          inputs: [flow],
          value: -dropKPa,
          unit: 'kPa',
          source: 'Monotone cubic through the points of the curve (Fritsch and Butland)',
          solver: {
            method: 'Newton steps on the flows of the loops',
            iterations: solved.iterations,
            residual: solved.residualKPa,
            residualUnit: 'kPa',
          },
        });
        break;
      case 'pipe':
        writePipe(sheet, element, fluid, q, dropKPa, at);
        break;
      case 'fixed':
        sheet.add({
          symbol: 'Δp',
          label: `Drop across ${element.id}`,
          formula: 'a·Q + b·Q·|Q|',
          inputs: [
            { symbol: 'a', value: element.kPaPerLpm ?? 0, unit: 'kPa/(L/min)', from: `${at}.kPaPerLpm` },
            { symbol: 'b', value: element.kPaPerLpm2 ?? 0, unit: 'kPa/(L/min)²', from: `${at}.kPaPerLpm2` },
            flow,
          ],
          value: dropKPa,
          unit: 'kPa',
          source: 'Two coefficients of a part, from its sheet or timed readings',
        });
        break;
      case 'valve':
        sheet.add({
          symbol: 'Δp',
          label: `Drop across ${element.id}`,
          formula: '100·(ρ/1000)·(0.06·Q/(kv·open))²',
          inputs: [
            { symbol: 'ρ', value: fluid.densityKgM3, unit: 'kg/m³' },
            flow,
            { symbol: 'kv', value: element.kv, unit: 'm³/h', from: `${at}.kv` },
            { symbol: 'open', value: element.openFraction ?? 1, unit: '', from: `${at}.openFraction` },
          ],
          value: dropKPa,
          unit: 'kPa',
          source: 'kv: water at 1 bar through the open valve, m³/h',
        });
    }
  });
}

function writePipe(
  sheet: Worksheet,
  pipe: Extract<LoopInput['elements'][number], { kind: 'pipe' }>,
  fluid: FluidOfPipes,
  q: number,
  dropKPa: number,
  at: string,
): void {
  const { velocityMPerS, reynolds, friction } = pipeAt(pipe, fluid, q);
  sheet.add({
    symbol: 'Δp',
    label: `Drop across ${pipe.id}, at Re ${Math.round(reynolds)}`,
    formula: '(f·L/d + K)·ρ·v²/2000',
    inputs: [
      { symbol: 'f', value: friction ?? 0, unit: '' },
      { symbol: 'L', value: pipe.lengthM, unit: 'm', from: `${at}.lengthM` },
      { symbol: 'd', value: pipe.innerMm / 1000, unit: 'm', from: `${at}.innerMm` },
      { symbol: 'K', value: pipe.minorK ?? pipeDefaults.minorK, unit: '', from: `${at}.minorK` },
      { symbol: 'ρ', value: fluid.densityKgM3, unit: 'kg/m³' },
      { symbol: 'v', value: velocityMPerS, unit: 'm/s' },
    ],
    value: dropKPa,
    unit: 'kPa',
    source: hydraulicSource,
  });
}

/** What is wrong with how a solved loop works. */
export function raiseOfLoop(
  input: LoopInput,
  solved: SolvedLoop,
  pumps: readonly PumpPoint[],
  raise: (rule: Rule, message: string) => void,
): void {
  const heads = input.elements.flatMap((element) => (element.kind === 'pump' ? [element.curve[0]![1]] : []));
  if (!isSolved(solved, Math.max(...heads)))
    raise(
      hydraulicRules.unsolved,
      `${formatQuantity(solved.residualKPa, 'kPa')} are left after ${solved.iterations} steps.`,
    );
  for (const { id, flowLPerMin } of pumps) {
    const element = input.elements.find((one) => one.id === id)!;
    const last = element.kind === 'pump' ? element.curve[element.curve.length - 1]![0] : Infinity;
    if (flowLPerMin > last)
      raise(
        hydraulicRules.beyond,
        `${id}: ${formatQuantity(flowLPerMin, 'L/min')}; its curve ends at ${formatQuantity(last, 'L/min')}.`,
      );
    // What only rounding moves stands still.
    if (flowLPerMin < -1e-9)
      raise(hydraulicRules.backward, `${id}: ${formatQuantity(-flowLPerMin, 'L/min')} backward.`);
  }
  const apart = [...solved.pressures].filter(([, kPa]) => kPa === null).map(([node]) => node);
  if (apart.length > 0)
    raise(
      hydraulicRules.apart,
      `${apart.length === 1 ? '1 node' : `${apart.length} nodes`}: ${apart.slice(0, 8).join(', ')}${apart.length > 8 ? ' and more' : ''}.`,
    );
}

/**
 * Flows and pressures of a coolant loop as it is connected.
 *
 * Source: Darcy–Weisbach, pump curves by monotone cubics, continuity at every node.
 */
export const hydraulic = defineCalculator<LoopInput, HydraulicResult>({
  name: 'hydraulic',
  version: 1,
  title: 'Flow in a coolant loop',
  rules: Object.values(hydraulicRules),
  door: { schema: record(loopFields), cross: crossLoop },
  isLong: (body) => {
    const { elements } = body as { elements?: unknown };
    return Array.isArray(elements) && elements.length > 300;
  },
  compute(input, { sheet, raise }) {
    const fluid = fluidOf(input.fluid);
    const solved = solveLoop(input.elements, fluid, groundOf(input))!;
    const pumps = pumpPoints(input, solved.flows);
    writeLoop(sheet, input, solved);
    raiseOfLoop(input, solved, pumps, raise);
    return {
      flowsLPerMin: Object.fromEntries(input.elements.map(({ id }, i) => [id, solved.flows[i]!])),
      nodeKPa: Object.fromEntries(solved.pressures),
      pumps,
      reynolds: Object.fromEntries(
        input.elements.flatMap((element, i) =>
          element.kind === 'pipe' ? [[element.id, pipeAt(element, fluid, solved.flows[i]!).reynolds]] : [],
        ),
      ),
      residualKPa: solved.residualKPa,
      iterations: solved.iterations,
    };
  },
});
