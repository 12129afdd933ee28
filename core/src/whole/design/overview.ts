import { gapText } from '../../ground/figure';
import { stations, type Design, type Station } from '../../model/document';
import type { Evaluation } from '../../model/step';
import type { Assessment } from './assess';
import type { LiveState } from './live-state';
import { stationOfCheck, stationOfGap } from './station';

/** What comes next in a job, and where. */
export interface NextStep {
  text: string;
  station: Station;
  /** A step of the procedure; absent: a place of the design. */
  step?: string;
  /** A place of the design, by its path. */
  at?: string;
}

/** A job at a glance, for the list of all. */
export interface Overview {
  live: Pick<LiveState, 'shape' | 'text' | 'detail'>;
  /** Open findings that nobody accepted. */
  stops: number;
  mends: number;
  stale: number;
  next: NextStep | null;
  /** What the side view is drawn from. */
  vehicle: Pick<
    Design['vehicle'],
    'wheelbaseM' | 'lengthM' | 'frontOverhangM' | 'heightM' | 'wheelDiameterM'
  >;
  boxes: { tag: string; xM: number; zM: number; lengthM: number; heightM: number }[];
}

/**
 * The next thing that a job asks for: what is not given yet, station by station; then what stops it; what is due again; what is due
 * first behind an open gate. null: nothing.
 */
export function nextOf(evaluation: Evaluation, assessment: Assessment): NextStep | null {
  const order = new Map(stations.map((station, i) => [station, i]));
  const gaps = Object.values(evaluation.figures)
    .flatMap(({ value, gaps: own }) => (value === null ? own : []))
    .flatMap((gap) => {
      const station = stationOfGap(gap);
      return station === null || !('path' in gap) ? [] : [{ gap, station, path: gap.path }];
    })
    .sort((a, b) => order.get(a.station)! - order.get(b.station)!);
  const [first] = gaps;
  if (first !== undefined) return { text: gapText(first.gap), station: first.station, at: first.path };
  const stop = assessment.findings.find(({ check, accepted }) => check.grade === 'stop' && accepted === null);
  if (stop !== undefined) return { text: stop.check.message, station: stationOfCheck(stop.check) };
  const open = new Set(assessment.gates.flatMap(({ id, open: isOpen }) => (isOpen ? [id] : [])));
  const can = assessment.steps.filter(({ step }) => open.has(step.gate));
  const due = can.find(({ state }) => state === 'stale') ?? can.find(({ state }) => state !== 'passed');
  return due === undefined ? null : { text: due.step.title, station: 'prove', step: due.step.id };
}

export function overviewOf(
  { vehicle, boxes }: Pick<Design, 'vehicle' | 'boxes'>,
  evaluation: Evaluation,
  assessment: Assessment,
  { shape, text, detail }: LiveState,
): Overview {
  const openOf = (grade: string) =>
    assessment.findings.filter(({ check, accepted }) => check.grade === grade && accepted === null).length;
  const { wheelbaseM, lengthM, frontOverhangM, heightM, wheelDiameterM } = vehicle;
  return {
    live: { shape, text, detail },
    stops: openOf('stop'),
    mends: openOf('mend'),
    stale: assessment.steps.filter(({ state }) => state === 'stale').length,
    next: nextOf(evaluation, assessment),
    vehicle: {
      ...(wheelbaseM !== undefined && { wheelbaseM }),
      ...(lengthM !== undefined && { lengthM }),
      ...(frontOverhangM !== undefined && { frontOverhangM }),
      ...(heightM !== undefined && { heightM }),
      ...(wheelDiameterM !== undefined && { wheelDiameterM }),
    },
    boxes: Object.values(boxes).flatMap(({ tag, xM, zM, lengthM: long, heightM: high }) =>
      xM === undefined || zM === undefined || long === undefined || high === undefined
        ? []
        : [{ tag, xM, zM, lengthM: long, heightM: high }],
    ),
  };
}
