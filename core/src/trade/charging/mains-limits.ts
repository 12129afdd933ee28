import { figureId, type Gap } from '../../ground/figure';
import { supplyDefaults, type Id } from '../../model/document';
import { gapsBehind, type Reader } from '../../model/step';
import { packLowest } from '../pack';
import type { AcChargeInput, AcChargeResult } from './ac-charge';
import { mainsFlow, mainsWay, type MainsWay } from './supply-inputs';

/** A supply as the pack sees it: the most power and current, and where the voltage is held. */
export interface MainsLimits {
  maxW: number;
  maxA: number;
  maxV: number;
  /** At the nominal voltage of the pack. */
  flow: { input: AcChargeInput; result: AcChargeResult };
  /** What the chargers would draw, whatever wires and breaker say. */
  drawn: AcChargeResult;
  /** Out of their window at the bottom or at the top of the pack’s. */
  outside: { tag: string; minV: number; maxV: number; packV: number }[];
}

/** Brings a supply together with the voltages of the pack. */
export function mainsLimits(
  subject: Id,
  read: Reader,
): { way: MainsWay; limits: MainsLimits | null; gaps: Gap[] } {
  const supply = read.at('supplies')![subject]!;
  const way = mainsWay(subject, read);
  const volts = ['voltageNominalV', 'voltageMaxV'] as const;
  const [nominal, highest] = volts.map((name) => read.figure(figureId('pack.pack', 'pack', name)));
  const lowest = read.figure(packLowest);
  const gaps = [
    ...way.gaps,
    ...[nominal!, highest!, lowest].flatMap((figure) => (figure.value === null ? gapsBehind(figure) : [])),
  ];
  if (gaps.length === 0 && way.serving.length === 0)
    gaps.push({ kind: 'never', label: `${supply.tag}: no charger works on its phases` });
  if (gaps.length > 0) return { way, limits: null, gaps };
  const volt = supply.phaseVoltageV ?? supplyDefaults.phaseVoltageV;
  const endV = Math.min(highest!.value!, ...way.serving.map((one) => one.endV ?? one.maxV));
  const flow = mainsFlow(way, volt, nominal!.value!);
  const top = mainsFlow(way, volt, endV);
  const free = mainsFlow({ ...way, wireA: 1e6, breakerA: null }, volt, nominal!.value!);
  for (const one of [flow, top, free])
    if ('problem' in one)
      return {
        way,
        limits: null,
        gaps: [
          {
            kind: 'invalid',
            path: `supplies.${subject}`,
            label: supply.tag,
            message: `${one.problem.path} ${one.problem.message}`,
          },
        ],
      };
  const of = (one: typeof flow) => one as Exclude<typeof one, { problem: unknown }>;
  const inside = way.serving.filter(({ minV, maxV }) => endV >= minV && endV <= maxV);
  return {
    way,
    gaps: [],
    limits: {
      maxW: of(top).result.outputW,
      maxA: inside.reduce((sum, { maxOutputA }) => sum + maxOutputA, 0),
      maxV: endV,
      flow: of(flow),
      drawn: of(free).result,
      outside: way.serving.flatMap(({ tag, minV, maxV }) =>
        [lowest.value!, endV]
          .filter((packV) => packV < minV || packV > maxV)
          .slice(0, 1)
          .map((packV) => ({ tag, minV, maxV, packV })),
      ),
    },
  };
}
