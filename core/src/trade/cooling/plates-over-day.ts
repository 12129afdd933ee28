import { figureId, type FigureId, type Gap } from '../../ground/figure';
import { coolingDefaults, type Id } from '../../model/document';
import { numberProblem } from '../../ground/shape';
import { dedupe, gapsBehind, type Reader } from '../../model/step';
import { packOhm } from '../charging';
import { readPackLayout } from '../pack';
import { cycleInputs, cycleMoments, driveCycle } from '../vehicle';
import { wallsOf } from './box-walls';
import { platesUnder, readsCase } from './cases';
import { most, type LoopState } from './loop-state';
import { followTogether, type LumpsState, type PlateLump } from './lumps';
import { blocksOf } from './profile';

/** The modules of one plate over a day. */
export interface PlateOverDay {
  id: Id;
  coolingWPerK: number;
  /** Hottest coolant that comes to it, in any case that is asked. */
  coolantC: number;
  driveMaxC: number;
  /** null: no fast charge is asked. */
  chargeMaxC: number | null;
}

export interface PlatesOverDay {
  plates: PlateOverDay[];
}

/** Stretches times plates that are followed: more is not waited for. */
const mostSteps = 1_000_000;

export interface DayOfPlates {
  day: PlatesOverDay | null;
  gaps: Gap[];
  /** Whether a fast charge is asked after the drives. */
  hasFast: boolean;
}

/**
 * The plates of a loop over the drives of a day and a fast charge after them: each with its modules as one lump, with its own flow
 * and coolant; the pump follows the hottest of them.
 *
 * @returns null: no plate of this loop has modules
 */
export function platesOverDay(subject: Id, state: LoopState, read: Reader): DayOfPlates | null {
  const { cooled, shares, plateWPerK, known, indexOf, standing } = state;
  if (cooled.length === 0) return null;
  const cooling = read.at('cooling') ?? {};
  const { layout, gaps: noLayout } = readPackLayout(read);
  const cycle = cycleInputs(read).run(driveCycle);
  const ohm = packOhm(read);
  const hasFast = readsCase(read, 'fast');
  const fast = hasFast
    ? (['packHeatW', 'minutes'] as const).map((name) => read.figure(figureId('cooling.charge', 'fast', name)))
    : [];
  const walls = wallsByModule(state, read);
  const gaps = dedupe([
    ...standing,
    ...noLayout,
    ...cycle.gaps,
    ...ohm.gaps,
    ...walls.gaps,
    ...fast.flatMap((figure) => (figure.value === null ? gapsBehind(figure) : [])),
  ]);
  const switching = {
    onAboveC: cooling.onAboveC ?? coolingDefaults.onAboveC,
    offBelowC: cooling.offBelowC ?? coolingDefaults.offBelowC,
  };
  const moments = cycle.input === null ? [] : cycleMoments(cycle.input);
  const coolantC = cooled.map(({ id }) =>
    most(known.map((one) => one.settled.temperatures?.elements[indexOf.get(id)!]?.inC ?? null)),
  );
  const repeats = cooling.repeats ?? coolingDefaults.repeats;
  const blocks = blocksOf(moments);
  const heatJPerKgK = cooling.cellHeatJPerKgK ?? coolingDefaults.cellHeatJPerKgK;
  /** What is given and makes no day. */
  const unsaid = (): Gap[] => {
    const needs = (figure: FigureId, label: string): Gap[] => [{ kind: 'needs', figure, label }];
    const invalid = (path: string, label: string, message: string): Gap[] => [
      { kind: 'invalid', path, label, message },
    ];
    if (plateWPerK === null)
      return needs(figureId('cooling.loop', subject, 'packUaWPerK'), 'from cells to coolant');
    if (!(layout!.massKg > 0)) return invalid('cooling', 'temperature over time', 'must be above 0');
    if (!(heatJPerKgK > 0))
      return invalid('cooling.cellHeatJPerKgK', 'temperature over time', 'must be above 0');
    if (coolantC.includes(null))
      return needs(figureId('cooling.loop', subject, 'platesC'), 'coolant at the plates');
    if (moments.some(({ currentA }) => currentA === null))
      return needs(figureId('vehicle.cycle', 'vehicle', 'peakA'), 'current of the cycle');
    if (!(switching.offBelowC < switching.onAboveC))
      return invalid('cooling.offBelowC', 'cooling off', 'must be below where it comes on');
    // In the words of the pack as one lump: one cause is told once.
    const wrong = numberProblem(repeats, { min: 1, integer: true });
    if (wrong !== null) return invalid('cooling.repeats', 'temperature over time', wrong);
    return blocks.length * repeats * cooled.length > mostSteps
      ? [{ kind: 'never', label: 'Plates over so many drives: only the pack as a whole' }]
      : [];
  };
  if (gaps.length === 0) gaps.push(...unsaid());
  if (gaps.length > 0) return { day: null, gaps, hasFast };
  const lumps = cooled.map(({ id }, i): PlateLump => ({
    capacityJPerK: layout!.massKg * shares.get(id)! * heatJPerKgK,
    uaToAmbientWPerK: walls.ofPlate(id),
    coolingWPerK: plateWPerK!.get(id)!,
    coolantC: coolantC[i]!,
  }));
  const ambientC = cooling.hotC ?? coolingDefaults.hotC;
  const startC = cooling.startC ?? coolingDefaults.startC;
  // Plates alike are followed once: of most packs two or three are left.
  const kindOf = lumps.map((one, i) =>
    [...Object.values(one), shares.get(cooled[i]!.id)!].map((value) => value.toPrecision(9)).join(),
  );
  const firsts = kindOf.flatMap((kind, i) => (kindOf.indexOf(kind) === i ? [i] : []));
  const placeOf = kindOf.map((kind) => firsts.findIndex((first) => kindOf[first] === kind));
  const distinct = firsts.map((i) => lumps[i]!);
  const heatShares = firsts.map((i) => shares.get(cooled[i]!.id)!);
  const lumpState: LumpsState = {
    temperaturesC: distinct.map(() => startC),
    isCooling: startC > switching.onAboveC,
  };
  /** Follows stretches of heat in the pack, and tells the highest of each. */
  const reached = (stretches: readonly [durationS: number, packHeatW: number][], times: number): number[] => {
    const maxC = [...lumpState.temperaturesC];
    for (let turn = 0; turn < times; turn += 1)
      for (const [durationS, packHeatW] of stretches) {
        const heatsW = heatShares.map((share) => packHeatW * share);
        followTogether(distinct, lumpState, { ambientC, heatsW, durationS }, switching, (lastsS, at) => {
          for (let i = 0; i < maxC.length; i += 1) maxC[i] = Math.max(maxC[i]!, at(i, lastsS));
        });
      }
    return maxC;
  };
  const driven = reached(
    blocks.map(([durationS, currentA]) => [durationS, currentA ** 2 * ohm.value!]),
    repeats,
  );
  const charged = fast.length === 0 ? null : reached([[fast[1]!.value! * 60, fast[0]!.value!]], 1);
  return {
    day: {
      plates: cooled.map(({ id }, i) => ({
        id,
        coolingWPerK: lumps[i]!.coolingWPerK,
        coolantC: lumps[i]!.coolantC,
        driveMaxC: driven[placeOf[i]!]!,
        chargeMaxC: charged?.[placeOf[i]!] ?? null,
      })),
    },
    gaps: [],
    hasFast,
  };
}

/** What each plate’s modules lose through the walls of their boxes: by the share of a box that they are. */
function wallsByModule({ slices, cooled }: LoopState, read: Reader) {
  const modules = slices.modules;
  const inBox = new Map<Id, number>();
  for (const { box } of Object.values(modules))
    if (box !== undefined) inBox.set(box, (inBox.get(box) ?? 0) + 1);
  const under = platesUnder(slices.plumbing);
  const boxes = new Set(
    cooled.flatMap(({ item }) =>
      (item.modules ?? []).flatMap((id) => {
        const box = modules[id]?.box;
        return box === undefined ? [] : [box];
      }),
    ),
  );
  const uaWPerK = new Map<Id, number>();
  const gaps: Gap[] = [];
  for (const box of boxes) {
    const run = wallsOf(box, read);
    gaps.push(...run.gaps);
    uaWPerK.set(box, run.result?.uaWPerK ?? 0);
  }
  return {
    gaps,
    ofPlate: (plate: Id) =>
      (slices.plumbing![plate]!.modules ?? []).reduce((sum, id) => {
        const box = modules[id]?.box;
        return box === undefined ? sum : sum + uaWPerK.get(box)! / inBox.get(box)! / under.get(id)!;
      }, 0),
  };
}
