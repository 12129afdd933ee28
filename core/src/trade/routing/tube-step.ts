import { figureId, type Check, type Figure } from '../../ground/figure';
import { filleted, isProblem, legsOf, type Point } from '../../ground/space';
import { runDefaults, waysAlong, type RunItem } from '../../model/document';
import { Inputs, type Reader, type Run, type StepDefinition } from '../../model/step';
import { bendCard, type BendCardInput, type BendCardResult } from './bend-card';
import { kgPerM, lainIn, leastRadiusMm, tubesOf, type Tube } from './lain-in';
import { conduitFit, type ConduitFitResult } from './conduit-fit';
import { tubeChecks } from './tube-checks';
import { pull, type PullResult, type PullSection } from './pull';

/** What copper stands while it is pulled by its conductor, N/mm²: a careful figure where the maker gives none. */
export const pullPerMm2 = 50;

/** The points of a tube; null: one is not given. */
export function tubePoints({ points = [] }: RunItem, { from, to }: Tube): Point[] | null {
  const own = points.slice(from, to + 1);
  return own.every(({ xM, yM, zM }) => xM !== undefined && yM !== undefined && zM !== undefined)
    ? own.map(({ xM, yM, zM }): Point => [xM!, yM!, zM!])
    : null;
}

/** Straights and bends of a tube as a cable passes them, from its beginning. */
export function sectionsOf(points: readonly Point[], bendRadiusMm: number): PullSection[] | null {
  const legs = legsOf(points);
  if (isProblem(legs)) return null;
  const { pieces } = filleted(legs, () => bendRadiusMm / 1000);
  return pieces.map((piece): PullSection => {
    if (piece.kind === 'arc')
      return { kind: 'bend', angleDeg: (piece.turn * 180) / Math.PI, radiusMm: bendRadiusMm };
    const rise = (piece.to[2] - piece.from[2]) / piece.lengthM;
    return {
      kind: 'straight',
      lengthM: piece.lengthM,
      riseDeg: (Math.asin(Math.max(-1, Math.min(1, rise))) * 180) / Math.PI,
    };
  });
}

function cardRun(at: string, run: RunItem, tube: Tube, read: Reader): Run<BendCardInput, BendCardResult> {
  const inputs = new Inputs(read);
  const points = tubePoints(run, tube);
  if (points === null)
    inputs.missing({ kind: 'not-given', path: `${at}.points`, label: `points of ${run.tag}` });
  else inputs.set('points', points, { kind: 'document', path: `${at}.points` }, `points of ${run.tag}`);
  inputs.given('centrelineRadiusMm', run.bendRadiusMm, `${at}.bendRadiusMm`, `bend radius of ${run.tag}`);
  const outer = inputs.given(
    'tubeOuterMm',
    run.conduitOuterMm,
    `${at}.conduitOuterMm`,
    `outside of the conduit of ${run.tag}`,
  );
  const inner = run.conduitInnerMm;
  if (inner === undefined)
    inputs.missing({
      kind: 'not-given',
      path: `${at}.conduitInnerMm`,
      label: `bore of the conduit of ${run.tag}`,
    });
  else if (outer !== undefined)
    inputs.set(
      'wallMm',
      (outer - inner) / 2,
      { kind: 'document', path: `${at}.conduitInnerMm` },
      `wall of the conduit of ${run.tag}`,
    );
  inputs.optional('springbackFraction', run.springbackFraction, `${at}.springbackFraction`, 'spring-back');
  return inputs.run(bendCard);
}

function fitRun(
  at: string,
  run: RunItem,
  { lain, gaps }: ReturnType<typeof lainIn>,
  card: BendCardResult | null,
  read: Reader,
) {
  const inputs = new Inputs(read);
  inputs.missing(...gaps);
  inputs.given(
    'innerDiameterMm',
    run.conduitInnerMm,
    `${at}.conduitInnerMm`,
    `bore of the conduit of ${run.tag}`,
  );
  if (card === null)
    inputs.missing({ kind: 'not-given', path: `${at}.points`, label: `bends of ${run.tag}` });
  else
    inputs.set(
      'totalBendDeg',
      card.bends.reduce((sum, { angleDeg }) => sum + angleDeg, 0),
      { kind: 'document', path: `${at}.points` },
      'bends',
    );
  if (lain.length > 0) {
    const source = { kind: 'constant' as const, source: 'cables of the run' };
    inputs.set(
      'cables',
      lain.flatMap(({ outerDiameterMm, count }) =>
        Array.from({ length: Math.min(50, count) }, () => ({ outerDiameterMm })),
      ),
      source,
      'cables',
    );
    inputs.set('minCableRadiusMm', leastRadiusMm(lain, run), source, 'least radius of the cables');
    const widths = lain.flatMap(({ lug }) => (lug === null ? [] : [lug.data.palmWidthMm]));
    if (widths.length > 0) inputs.set('lugWidthMm', Math.max(...widths), source, 'width of the lugs');
  }
  if (card !== null && card.bends.length > 0)
    inputs.optional('elbowRadiusMm', run.bendRadiusMm, `${at}.bendRadiusMm`, 'bend radius');
  return inputs.run(conduitFit);
}

function pullRun(
  at: string,
  run: RunItem,
  tube: Tube,
  { lain, gaps }: ReturnType<typeof lainIn>,
  read: Reader,
) {
  const inputs = new Inputs(read);
  inputs.missing(...gaps);
  const points = tubePoints(run, tube);
  const sections =
    points === null || run.bendRadiusMm === undefined ? null : sectionsOf(points, run.bendRadiusMm);
  if (sections === null)
    inputs.missing({ kind: 'not-given', path: `${at}.points`, label: `way of ${run.tag}` });
  else inputs.set('sections', sections, { kind: 'document', path: `${at}.points` }, 'way in the conduit');
  if (lain.length > 0) {
    inputs.set('cableKgPerM', kgPerM(lain), { kind: 'constant', source: 'all conductors' }, 'mass per metre');
    const areaMm2 = lain.reduce((sum, { areaMm2, count }) => sum + areaMm2 * count, 0);
    inputs.orDefault(
      'maxTensionN',
      run.maxTensionN,
      pullPerMm2 * areaMm2,
      `${at}.maxTensionN`,
      'most tension',
    );
  }
  inputs.optional('friction', run.friction, `${at}.friction`, 'friction');
  inputs.orDefault(
    'maxSidewallNPerM',
    run.maxSidewallNPerM,
    runDefaults.maxSidewallNPerM,
    `${at}.maxSidewallNPerM`,
    'most side-wall pressure',
  );
  return inputs.run(pull);
}

/** What is computed of a tube; null: something is missing. */
export interface TubeAnswer {
  card: BendCardResult | null;
  fit: ConduitFitResult | null;
  pull: PullResult | null;
}

/** Each tube of each run: bends, cables in it, and the pull. Subjects are `run/number`. */
export const tubeStep: StepDefinition = {
  id: 'routing.tube',
  version: 1,
  subjects: ({ runs = {} }) =>
    Object.entries(runs).flatMap(([id, { points = [] }]) =>
      tubesOf(waysAlong(points)).map((_tube, i) => `${id}/${i + 1}`),
    ),
  compute(subject, read) {
    const at = subject.lastIndexOf('/');
    const [id, number] = [subject.slice(0, at), Number(subject.slice(at + 1))];
    const run = read.at('runs')![id]!;
    const tube = tubesOf(waysAlong(run.points ?? []))[number - 1]!;
    const place = `runs.${id}`;
    const carried = lainIn(run, id, read);
    const card = cardRun(place, run, tube, read);
    const fit = fitRun(place, run, carried, card.result, read);
    const pulled = pullRun(place, run, tube, carried, read);
    const named = (check: Check): Check =>
      check.state === 'raised'
        ? { ...check, message: `Conduit ${number} of ${run.tag}: ${check.message}` }
        : check;
    const way =
      pulled.result === null
        ? null
        : pulled.result[pulled.result.better === 'backward' ? 'backward' : 'forward'];
    const figure = (
      name: 'tubeCutMm' | 'pullN' | 'sidewallNPerM',
      label: string,
      unit: string,
      value: number | null,
      of: { gaps: Figure['gaps']; working(symbol?: string): Figure['working'] },
    ): Figure => ({
      id: figureId('routing.tube', subject, name),
      label,
      unit,
      value,
      gaps: value === null ? of.gaps : [],
      working: of.working(),
    });
    const figures = [
      figure('tubeCutMm', 'Tube to cut', 'mm', card.result?.cutLengthMm ?? null, card),
      ...fit.figures('routing.tube', subject, [
        {
          name: 'fillFraction',
          symbol: 'f',
          label: 'Fill of the conduit',
          unit: 'fraction',
          ...(fit.result !== null && { limit: { max: fit.result.allowedFraction } }),
        },
      ]),
      figure('pullN', 'Pull from the better end', 'N', way?.tensionN ?? null, pulled),
      figure('sidewallNPerM', 'Pressed against a bend', 'N/m', way?.worstSidewallNPerM ?? null, pulled),
    ];
    const checks = [
      ...card.checks(
        [subject],
        [{ label: 'radius over diameter', value: card.result?.radiusOverDiameter ?? 0, unit: '' }],
        [],
        [id],
      ),
      ...fit.checks([subject], [{ label: 'fill', value: fit.result?.fillFraction ?? 0, unit: '' }], [], [id]),
      ...pulled.checks([subject], [{ label: 'pull', value: way?.tensionN ?? 0, unit: 'N' }], [], [id]),
    ]
      .map(named)
      .concat(tubeChecks(subject, number, id, run, tubePoints(run, tube)));
    const answered: TubeAnswer = { card: card.result, fit: fit.result, pull: pulled.result };
    return {
      figures,
      checks,
      run: {
        calculator: 'tube',
        input: { card: card.input, fit: fit.input, pull: pulled.input },
        result: answered,
      },
    };
  },
};
