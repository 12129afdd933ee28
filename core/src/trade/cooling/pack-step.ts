import { figureId, type Check, type Figure, type FigureName, type Gap } from '../../ground/figure';
import { formatQuantity } from '../../ground/quantity';
import { coolingDefaults, type Id } from '../../model/document';
import { gapsBehind, judge, type Reader, type StepDefinition } from '../../model/step';
import { readPackLayout } from '../pack';
import { cycleInputs, cycleMoments, driveCycle } from '../vehicle';
import { blown } from './air-step';
import { readsCase } from './cases';
import { heating, type DayAfterDay, type Ran } from './days';
import { daysTold } from './days-told';
import { cellLimits, packOhm } from '../charging';
import { packThermal, type PackThermalInput, type PackThermalResult } from './pack-thermal';
import { blocksOf } from './profile';
import { coolingRules } from './rules';

/** The pack over a day: drives one after the other, a fast charge, and the drives without cooling. */
export interface PackOverTime {
  drive: PackThermalResult;
  charge: PackThermalResult | null;
  uncooled: PackThermalResult;
  limitC: number;
  /** How far cooling helps; null: there is none by liquid or by a fan. */
  coolingWPerK: number | null;
  /** Days like this one until mornings repeat; null: not computed. */
  days: DayAfterDay | null;
}

/** The cooling of all loops and fans together as the lump feels it, and what is missing to say so. */
function coolingOf(read: Reader): { uaWPerK: number; coolantC: number; loops: Id[]; gaps: Gap[] } | null {
  const loops = Object.keys(read.at('loops') ?? {});
  const plumbing = Object.values(read.at('plumbing') ?? {});
  const serving = loops.filter((loop) =>
    plumbing.some(
      ({ kind, loop: own, modules = [] }) => kind === 'plate' && own === loop && modules.length > 0,
    ),
  );
  const boxes = blown({ boxes: read.at('boxes'), modules: read.at('modules') });
  if (serving.length + boxes.length === 0) return null;
  const gaps: Gap[] = [];
  let [uaWPerK, sum] = [0, 0];
  const airC = read.at('cooling')?.hotC ?? coolingDefaults.hotC;
  for (const box of boxes) {
    const ua = read.figure(figureId('cooling.air', box, 'airWPerK'));
    if (ua.value === null) gaps.push(...gapsBehind(ua));
    uaWPerK += ua.value ?? 0;
    sum += (ua.value ?? 0) * airC;
  }
  for (const loop of serving) {
    const ua = read.figure(figureId('cooling.loop', loop, 'packUaWPerK'));
    const cool = read.figure(figureId('cooling.loop', loop, 'platesC'));
    if (ua.value === null) gaps.push(...gapsBehind(ua));
    if (cool.value === null) gaps.push(...gapsBehind(cool));
    uaWPerK += ua.value ?? 0;
    sum += (ua.value ?? 0) * (cool.value ?? 0);
  }
  return { uaWPerK, coolantC: uaWPerK > 0 ? sum / uaWPerK : 0, loops: serving, gaps };
}

/** The hottest modules of all plates; null: there are none, or none that is known apart from the pack as a whole. */
function hottestOf(
  read: Reader,
  loops: readonly Id[],
  name: 'modulesDriveC' | 'modulesChargeC',
): number | null {
  return loops.reduce<number | null>((most, loop) => {
    const { value } = read.figure(figureId('cooling.loop', loop, name));
    return value === null ? most : Math.max(most ?? -Infinity, value);
  }, null);
}

/** Losses of all boxes with modules together, W/K. */
function lossesOf(read: Reader): { uaWPerK: number; gaps: Gap[] } {
  const modules = read.at('modules');
  const boxes = [
    ...new Set(Object.values(modules).flatMap(({ box }): Id[] => (box === undefined ? [] : [box]))),
  ];
  const gaps: Gap[] =
    boxes.length === 0 ? [{ kind: 'not-given', path: 'boxes', label: 'boxes of the modules' }] : [];
  let uaWPerK = 0;
  for (const box of boxes) {
    const figure = read.figure(figureId('cooling.box', box, 'uaWPerK'));
    if (figure.value === null) gaps.push(...gapsBehind(figure));
    uaWPerK += figure.value ?? 0;
  }
  return { uaWPerK, gaps };
}

/** How hot the pack gets over the drives of a day, over a fast charge after them, and day after day. */
export const packStep: StepDefinition = {
  id: 'cooling.pack',
  version: 1,
  subjects: ({ cooling }) => (cooling === undefined ? [] : ['pack']),
  compute(subject, read) {
    const cooling = read.at('cooling') ?? {};
    const { layout, gaps: noLayout } = readPackLayout(read);
    const { maxC } = cellLimits(cooling, layout?.part.data.chemistry);
    const cycle = cycleInputs(read).run(driveCycle);
    const ohm = packOhm(read);
    const losses = lossesOf(read);
    const liquid = coolingOf(read);
    const on = {
      onAboveC: cooling.onAboveC ?? coolingDefaults.onAboveC,
      offBelowC: cooling.offBelowC ?? coolingDefaults.offBelowC,
    };
    const order: Gap[] =
      liquid !== null && !(on.offBelowC < on.onAboveC)
        ? [
            {
              kind: 'invalid',
              path: 'cooling.offBelowC',
              label: 'cooling off',
              message: 'must be below where it comes on',
            },
          ]
        : [];
    const gaps = [...noLayout, ...cycle.gaps, ...ohm.gaps, ...losses.gaps, ...(liquid?.gaps ?? []), ...order];
    const moments = cycle.input === null ? [] : cycleMoments(cycle.input);
    if (gaps.length === 0 && moments.some(({ currentA }) => currentA === null))
      gaps.push({
        kind: 'needs',
        figure: figureId('vehicle.cycle', 'vehicle', 'peakA'),
        label: 'current of the cycle',
      });

    const base = {
      massKg: layout?.massKg ?? 0,
      specificHeatJPerKgK: cooling.cellHeatJPerKgK ?? coolingDefaults.cellHeatJPerKgK,
      startC: cooling.startC ?? coolingDefaults.startC,
      ambientC: cooling.hotC ?? coolingDefaults.hotC,
      uaToAmbientWPerK: losses.uaWPerK,
      resistanceOhm: ohm.value ?? 0,
      profile: blocksOf(moments),
      repeat: cooling.repeats ?? coolingDefaults.repeats,
      heaterW: 0,
    };
    const cooled =
      liquid === null ? {} : { cooling: { uaWPerK: liquid.uaWPerK, coolantC: liquid.coolantC, ...on } };
    const runOf = (input: object): Ran => {
      if (gaps.length > 0) return { result: null, gaps };
      const parsed = packThermal.parse(input);
      if (parsed.ok) return { result: packThermal.calculate(parsed.input).result, gaps: [] };
      const { path, message } = parsed.issues[0]!;
      return {
        result: null,
        gaps: [
          {
            kind: 'invalid',
            path: fieldOf[path.split('.')[0]!] ?? 'cooling',
            label: 'temperature over time',
            message,
          },
        ],
      };
    };
    const drive = runOf({ ...base, ...cooled });
    const uncooled = runOf(base);
    const hasFast = readsCase(read, 'fast');
    const heat = hasFast ? read.figure(figureId('cooling.charge', 'fast', 'packHeatW')) : null;
    const minutes = hasFast ? read.figure(figureId('cooling.charge', 'fast', 'minutes')) : null;
    const chargeGaps: Gap[] =
      heat === null
        ? [{ kind: 'not-given', path: 'cooling.fastChargeW', label: 'fast charge' }]
        : [heat, minutes!].flatMap((figure) => (figure.value === null ? gapsBehind(figure) : []));
    const charge =
      chargeGaps.length > 0 || drive.result === null
        ? { result: null, gaps: drive.result === null ? [...drive.gaps, ...chargeGaps] : chargeGaps }
        : runOf({
            ...base,
            ...cooled,
            startC: drive.result.endC,
            repeat: 1,
            profile: [heating({ minutes: minutes!.value!, packHeatW: heat!.value! }, ohm.value!)],
          });

    const loops = liquid?.loops ?? [];
    /** Of the hottest plate, where plates are known; else of the pack as one lump. */
    const platesC = {
      drive: hottestOf(read, loops, 'modulesDriveC'),
      charge: hasFast ? hottestOf(read, loops, 'modulesChargeC') : null,
    };
    const hottest = (result: PackThermalResult, plateC: number | null) =>
      Math.max(result.maxC, plateC ?? -Infinity);
    const told = (
      name: FigureName<'cooling.pack'>,
      label: string,
      from: { result: PackThermalResult | null; gaps: Gap[] },
      of: 'maxC' | 'endC',
      plateC: number | null = null,
    ): Figure => ({
      id: figureId('cooling.pack', subject, name),
      label,
      unit: '°C',
      value: from.result === null ? null : of === 'maxC' ? hottest(from.result, plateC) : from.result[of],
      gaps: from.gaps,
      working:
        from.result === null
          ? []
          : [
              {
                symbol: 'T',
                label,
                formula:
                  plateC === null
                    ? 'm·c·dT/dt = I²·R − UA·(T − T_a) − UA_c·(T − T_c)'
                    : 'max(T, T_p); m·c·dT/dt = I²·R − UA·(T − T_a) − UA_c·(T − T_c)',
                inputs: [
                  ...(plateC === null
                    ? []
                    : [{ symbol: 'T_p', label: 'modules on the hottest plate', value: plateC, unit: '°C' }]),
                  { symbol: 'm', value: base.massKg, unit: 'kg' },
                  { symbol: 'c', value: base.specificHeatJPerKgK, unit: 'J/kgK' },
                  {
                    symbol: 'R',
                    value: base.resistanceOhm,
                    unit: 'Ω',
                    origin: { kind: 'figure', id: ohm.id },
                  },
                  { symbol: 'UA', value: base.uaToAmbientWPerK, unit: 'W/K' },
                  {
                    symbol: 'T_a',
                    value: base.ambientC,
                    unit: '°C',
                    origin: {
                      kind: cooling.hotC === undefined ? 'default' : 'document',
                      path: 'cooling.hotC',
                    },
                  },
                  ...(liquid === null || name === 'uncooledMaxC'
                    ? []
                    : [
                        { symbol: 'UA_c', value: liquid.uaWPerK, unit: 'W/K' },
                        { symbol: 'T_c', value: liquid.coolantC, unit: '°C' },
                      ]),
                ],
                value: of === 'maxC' ? hottest(from.result, plateC) : from.result[of],
                unit: '°C',
                source: 'One lump, each stretch of constant current exactly; each plate as one of its own',
              },
            ],
      ...(of === 'maxC' && name !== 'uncooledMaxC' && { limit: { max: maxC } }),
    });
    const overLimit = (result: PackThermalResult | null, plateC: number | null, what: string) => {
      if (result === null || hottest(result, plateC) <= maxC) return null;
      const reached =
        plateC === null || plateC <= result.maxC
          ? `the pack reaches ${formatQuantity(result.maxC, '°C')}`
          : `the modules on the hottest plate reach ${formatQuantity(plateC, '°C')}, the pack as a whole ${formatQuantity(result.maxC, '°C')}`;
      return `${what} ${reached}; cells may get ${formatQuantity(maxC, '°C')}.`;
    };
    const values = (result: PackThermalResult | null, plateC: number | null, when: string) => [
      { label: `pack, ${when}`, value: result?.maxC ?? 0, unit: '°C' },
      ...(plateC === null ? [] : [{ label: `hottest plate, ${when}`, value: plateC, unit: '°C' }]),
      { label: 'cells at most', value: maxC, unit: '°C' },
    ];
    const checks: Check[] = [
      judge(
        coolingRules.driveHot,
        [subject],
        drive.gaps,
        overLimit(drive.result, platesC.drive, 'Over the drives of the day'),
        values(drive.result, platesC.drive, 'driving'),
      ),
      ...(liquid === null
        ? []
        : [
            judge(
              coolingRules.warms,
              [subject],
              [...liquid.gaps, ...order],
              on.onAboveC < liquid.coolantC
                ? `It comes on at ${formatQuantity(on.onAboveC, '°C')}; coolant comes to the cells with ${formatQuantity(liquid.coolantC, '°C')}.`
                : null,
              [
                { label: 'comes on at', value: on.onAboveC, unit: '°C' },
                { label: 'coolant', value: liquid.coolantC, unit: '°C' },
              ],
            ),
          ]),
      ...(hasFast
        ? [
            judge(
              coolingRules.chargeHot,
              [subject],
              charge.gaps,
              overLimit(charge.result, platesC.charge, 'Over the fast charge'),
              values(charge.result, platesC.charge, 'fast charge'),
            ),
          ]
        : []),
    ];
    const {
      days,
      figures: ofDays,
      check,
    } = daysTold({
      subject,
      read,
      drive: { input: { ...base, ...cooled }, ...drive },
      charge: hasFast ? { ...charge, minutes: minutes!.value ?? 0, packHeatW: heat!.value ?? 0 } : null,
      maxC,
      aboveMeanK: Math.max(
        0,
        drive.result === null ? 0 : (platesC.drive ?? -Infinity) - drive.result.maxC,
        charge.result === null ? 0 : (platesC.charge ?? -Infinity) - charge.result.maxC,
      ),
      run: runOf,
    });
    checks.push(check);
    const over: PackOverTime | null =
      drive.result === null || uncooled.result === null
        ? null
        : {
            drive: drive.result,
            charge: charge.result,
            uncooled: uncooled.result,
            limitC: maxC,
            coolingWPerK: liquid?.uaWPerK ?? null,
            days,
          };
    return {
      figures: [
        told('driveMaxC', 'Pack at most, drives of the day', drive, 'maxC', platesC.drive),
        told('driveEndC', 'Pack after the drives', drive, 'endC'),
        ...(hasFast
          ? [told('chargeMaxC', 'Pack at most, fast charge after them', charge, 'maxC', platesC.charge)]
          : []),
        told('uncooledMaxC', 'Pack at most without cooling', uncooled, 'maxC'),
        ...ofDays,
      ],
      checks,
      ...(over !== null && {
        run: { calculator: 'pack-over-time', input: base as unknown as PackThermalInput, result: over },
      }),
    };
  },
};

/** Where what the calculator takes stands in the design. */
const fieldOf: Record<string, string> = {
  specificHeatJPerKgK: 'cooling.cellHeatJPerKgK',
  startC: 'cooling.startC',
  ambientC: 'cooling.hotC',
  repeat: 'cooling.repeats',
  cooling: 'cooling.onAboveC',
  profile: 'vehicle.cycle',
};
