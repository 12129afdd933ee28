import { placesStep, plausibleStep } from './plausible-step';
import type { Rule } from '../../ground/finding';
import { figureId, type Check, type Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import { Inputs, judge, type Reader, type StepDefinition } from '../../model/step';
import { axleLoads, type MassChange } from './axle-loads';
import { cycleStep } from './cycle-step';
import { massesStep, massListView, placed, type MassBlock } from './masses';
import { range } from './range';
import { roadInputs } from './road-inputs';
import { accessories } from './accessories';
import { notableShiftPoints, vehicleRules } from './rules';
import { winterStep } from './winter-step';

const axlesStep: StepDefinition = {
  id: 'vehicle.axles',
  version: 1,
  subjects: () => ['vehicle'],
  compute(subject, read) {
    const vehicle = read.at('vehicle');
    const { blocks, gaps, placeGaps, uncounted } = read.shared(massListView);
    const loadsOf = (all: MassChange[], missing: Gap[]) => {
      const inputs = new Inputs(read);
      inputs.given('wheelbaseM', vehicle.wheelbaseM, 'vehicle.wheelbaseM', 'wheelbase');
      inputs.given('frontKg', vehicle.frontKg, 'vehicle.frontKg', 'front axle load before');
      inputs.given('rearKg', vehicle.rearKg, 'vehicle.rearKg', 'rear axle load before');
      inputs.missing(...missing);
      inputs.set('changes', all, { kind: 'document', path: 'masses' }, 'masses out and in');
      return inputs.run(axleLoads);
    };
    const change = ({ name, massKg }: MassBlock, xM: number) => ({ name, massKg, xM });
    const run = loadsOf(
      placed(blocks).map((block) => change(block, block.xM)),
      [...gaps, ...placeGaps],
    );
    // The mass is the same wherever things stand.
    const anywhere =
      placeGaps.length === 0
        ? run
        : loadsOf(
            blocks.map((block) => change(block, block.xM ?? 0)),
            gaps,
          );
    const atMost = (max: number | undefined) => (max === undefined ? {} : { limit: { max } });
    const figures = run.figures('vehicle.axles', subject, [
      {
        name: 'frontKg',
        symbol: 'm_f',
        label: 'Front axle load',
        unit: 'kg',
        ...atMost(vehicle.frontLimitKg),
      },
      { name: 'rearKg', symbol: 'm_r', label: 'Rear axle load', unit: 'kg', ...atMost(vehicle.rearLimitKg) },
      { name: 'frontFraction', label: 'Front share', unit: 'fraction' },
      { name: 'originalFrontFraction', label: 'Front share before', unit: 'fraction' },
      { name: 'shiftPoints', symbol: 's', label: 'Shift of the axle split', unit: 'points' },
    ]);
    const totals = anywhere.figures('vehicle.axles', subject, [
      {
        name: 'totalKg',
        symbol: 'm',
        label: 'Mass, ready to drive',
        unit: 'kg',
        ...atMost(vehicle.grossLimitKg),
      },
    ]);
    const result = run.result;
    const limited = (
      rule: Rule,
      value: number | undefined,
      limit: number | undefined,
      path: string,
      label: string,
      gaps = run.gaps,
    ): Check => {
      const missing =
        limit === undefined ? [{ kind: 'not-given' as const, path, label: `limit of the ${label}` }] : [];
      const over = value !== undefined && limit !== undefined && value > limit;
      const message = over
        ? `The ${label} comes to ${formatNumber(value, 4)} kg; the limit is ${formatNumber(limit, 4)} kg.`
        : null;
      // What is not counted yet may be what is too much.
      return judge(rule, [subject], [...gaps, ...missing, ...(over ? [] : uncounted)], message, [
        { label, value: value ?? 0, unit: 'kg' },
        { label: `limit of the ${label}`, value: limit ?? 0, unit: 'kg' },
      ]);
    };
    const shift = result?.shiftPoints ?? 0;
    const axleValues = [
      { label: 'front axle', value: result?.frontKg ?? 0, unit: 'kg' },
      { label: 'rear axle', value: result?.rearKg ?? 0, unit: 'kg' },
    ];
    const checks = [
      ...run.checks([subject], axleValues),
      limited(
        vehicleRules.frontLimit,
        result?.frontKg,
        vehicle.frontLimitKg,
        'vehicle.frontLimitKg',
        'front axle',
      ),
      limited(
        vehicleRules.rearLimit,
        result?.rearKg,
        vehicle.rearLimitKg,
        'vehicle.rearLimitKg',
        'rear axle',
      ),
      limited(
        vehicleRules.grossLimit,
        anywhere.result?.totalKg,
        vehicle.grossLimitKg,
        'vehicle.grossLimitKg',
        'whole vehicle',
        anywhere.gaps,
      ),
      judge(
        vehicleRules.shift,
        [subject],
        run.gaps,
        Math.abs(shift) > notableShiftPoints
          ? `The front share moves by ${formatNumber(shift)} points, to ${formatNumber((result?.frontFraction ?? 0) * 100)} %.`
          : null,
        [
          { label: 'shift', value: shift, unit: 'points' },
          { label: 'front share', value: result?.frontFraction ?? 0, unit: 'fraction' },
        ],
      ),
    ];
    return run.output([...figures.slice(0, 2), ...totals, ...figures.slice(2)], checks);
  },
};

/** What both schools of range need. */
function rangeInputs(read: Reader, method: 'mass-rule' | 'road-load'): Inputs {
  const inputs = new Inputs(read);
  inputs.set('method', method, { kind: 'constant', source: 'the two schools stand side by side' });
  inputs.figure('usableEnergyKWh', figureId('pack.pack', 'pack', 'usableEnergyKWh'));
  inputs.figure('massKg', figureId('vehicle.axles', 'vehicle', 'totalKg'));
  return inputs;
}

const rangeStep: StepDefinition = {
  id: 'vehicle.range',
  version: 1,
  subjects: () => ['mass-rule', 'road-load'],
  compute(subject, read) {
    const vehicle = read.at('vehicle');
    const massRule = subject === 'mass-rule';
    const inputs = rangeInputs(read, massRule ? 'mass-rule' : 'road-load');
    if (massRule) {
      inputs.optional(
        'whPerKmPerKg',
        vehicle.whPerKmPerKg,
        'vehicle.whPerKmPerKg',
        'consumption per km and kg',
      );
    } else {
      roadInputs(inputs, vehicle);
      accessories(inputs, read);
    }
    const run = inputs.run(range);
    const wanted = vehicle.wantedRangeKm;
    const figures = run.figures('vehicle.range', subject, [
      {
        name: 'whPerKm',
        symbol: 'e',
        label: massRule ? 'Consumption by mass rule' : 'Consumption by road load',
        unit: 'Wh/km',
      },
      {
        name: 'rangeKm',
        symbol: 's',
        label: massRule ? 'Range by mass rule' : 'Range by road load',
        unit: 'km',
        ...(wanted !== undefined && { limit: { min: wanted } }),
      },
    ]);
    if (massRule) return run.output(figures, []);
    const power = run.result?.batteryPowerW;
    figures.push({
      id: figureId('vehicle.range', subject, 'batteryPowerW'),
      label: 'Battery power at steady speed',
      unit: 'W',
      value: power ?? null,
      gaps: run.gaps,
      working: run.working('P'),
    });
    const rangeKm = run.result?.rangeKm ?? null;
    const noWish =
      wanted === undefined
        ? [{ kind: 'not-given' as const, path: 'vehicle.wantedRangeKm', label: 'range wanted' }]
        : [];
    const short = wanted !== undefined && rangeKm !== null && rangeKm < wanted;
    const checks = [
      ...run.checks([subject], [{ label: 'consumption', value: run.result?.whPerKm ?? 0, unit: 'Wh/km' }]),
      judge(
        vehicleRules.range,
        [subject],
        [...run.gaps, ...noWish],
        short
          ? `Road load gives ${formatNumber(rangeKm)} km; the brief asks for ${formatNumber(wanted)} km.`
          : null,
        [
          { label: 'range', value: rangeKm ?? 0, unit: 'km' },
          { label: 'range wanted', value: wanted ?? 0, unit: 'km' },
        ],
      ),
    ];
    return run.output(figures, checks);
  },
};

export const vehicleSteps: StepDefinition[] = [
  massesStep,
  axlesStep,
  rangeStep,
  winterStep,
  cycleStep,
  plausibleStep,
  placesStep,
];
