import { figureId, type Figure } from '../../ground/figure';
import { coolingDefaults } from '../../model/document';
import { gapsBehind, Inputs, type Reader, type StepDefinition, type StepOutput } from '../../model/step';
import {
  chargeCurve,
  chargeHeat,
  packInputs,
  packOhm,
  type ChargeCurveInput,
  type ChargeCurveResult,
} from '../charging';
import { readPackLayout } from '../pack';
import { cycleInputs, driveCycle, hillS } from '../vehicle';
import { chargePower, type ChargePower } from './cases';

const hasCooling = (design: { cooling?: unknown; loops?: object }) =>
  design.cooling !== undefined || Object.keys(design.loops ?? {}).length > 0;

/** What the hill asks of the pack and of its cooling. */
export const hillStep: StepDefinition = {
  id: 'cooling.hill',
  version: 1,
  subjects: (design) => (hasCooling(design) ? ['vehicle'] : []),
  compute(subject, read) {
    const cooling = read.at('cooling');
    const inputs = cycleInputs(read, {
      speedKmH: cooling?.hillSpeedKmH ?? coolingDefaults.hillSpeedKmH,
      gradeFraction: cooling?.hillGradeFraction ?? coolingDefaults.hillGradeFraction,
    });
    const run = inputs.run(driveCycle);
    const ohm = packOhm(read);
    const gaps = run.gaps.length > 0 ? run.gaps : ohm.gaps;
    const amps = run.result?.rmsA ?? null;
    const never = { kind: 'never' as const, label: 'the pack cannot give this power' };
    const told = (
      name: 'powerW' | 'currentA' | 'packHeatW',
      label: string,
      unit: string,
      value: number | null,
    ): Figure => ({
      id: figureId('cooling.hill', subject, name),
      label,
      unit,
      value,
      gaps: value !== null ? [] : gaps.length > 0 ? gaps : [never],
      working: value === null ? [] : run.working(),
    });
    return run.output(
      [
        // Steady: watt-hours over the time it lasts.
        told(
          'powerW',
          'Power on the hill',
          'W',
          run.result === null ? null : (run.result.energyWh * 3600) / hillS,
        ),
        told('currentA', 'Current on the hill', 'A', amps),
        heatFigure(amps, ohm.value),
      ],
      run.checks([`${subject}/hill`]),
    );

    function heatFigure(currentA: number | null, value: number | null): Figure {
      const heat = currentA === null || value === null ? null : currentA * currentA * value;
      const figure = told('packHeatW', 'Heat of the pack on the hill', 'W', heat);
      if (heat === null) return figure;
      return {
        ...figure,
        working: [
          {
            symbol: 'P',
            label: figure.label,
            formula: 'I²·R',
            inputs: [
              {
                symbol: 'I',
                value: currentA!,
                unit: 'A',
                origin: { kind: 'figure', id: figureId('cooling.hill', subject, 'currentA') },
              },
              { symbol: 'R', value: value!, unit: 'Ω', origin: { kind: 'figure', id: ohm.id } },
            ],
            value: heat,
            unit: 'W',
            source: 'Heat of a resistance',
          },
        ],
      };
    }
  },
};

/** What a charge is asked with: its power, and from where to where. */
function chargeInputs(read: Reader, at: string): Inputs {
  const cooling = read.at('cooling');
  const { socLowFraction, socHighFraction } = read.at('pack');
  const inputs = new Inputs(read);
  packInputs(read, inputs);
  const { layout } = readPackLayout(read);
  if (layout !== null)
    inputs.set('source.maxV', layout.part.data.cell.maxV * layout.seriesCells, {
      kind: 'constant',
      source: 'highest voltage of the pack',
    });
  const field = at === 'fast' ? 'fastChargeW' : 'chargeW';
  inputs.given(
    'source.maxW',
    cooling?.[field],
    `cooling.${field}`,
    at === 'fast' ? 'fast charge' : 'charge at home',
  );
  const reach = (name: 'startSoc' | 'endSoc', value: number | undefined, path: string, label: string) => {
    if (at === 'fast')
      inputs.set(name, name === 'startSoc' ? 0.1 : 0.8, { kind: 'constant', source: 'usual for a station' });
    else inputs.given(name, value, path, label);
  };
  reach('startSoc', socLowFraction, 'pack.socLowFraction', 'bottom of the charge window');
  reach('endSoc', socHighFraction, 'pack.socHighFraction', 'top of the charge window');
  return inputs;
}

/** What Charge has computed of the supply that gives the most: it is the same charge. */
function followedCharge(subject: 'fast' | 'home', { supply, gaps }: ChargePower, read: Reader): StepOutput {
  const what = subject === 'fast' ? 'fast charge' : 'charge at home';
  const of = (name: 'minutes' | 'peakA' | 'heatW') =>
    supply === null
      ? null
      : subject === 'fast'
        ? figureId('charge.station', supply, name)
        : figureId('charge.supply', supply, name);
  const told = (
    name: 'minutes' | 'peakA' | 'packHeatW',
    from: 'minutes' | 'peakA' | 'heatW',
    label: string,
    unit: string,
  ): Figure => {
    const id = of(from);
    const source = id === null ? null : read.figure(id);
    const value = source?.value ?? null;
    return {
      id: figureId('cooling.charge', subject, name),
      label,
      unit,
      value,
      gaps: value !== null ? [] : source === null ? gaps : gapsBehind(source),
      working:
        value === null
          ? []
          : [
              {
                symbol: 'x',
                label,
                formula: 'x',
                inputs: [{ symbol: 'x', value, unit, origin: { kind: 'figure', id: id! } }],
                value,
                unit,
                source: 'As Charge has it',
              },
            ],
    };
  };
  return {
    figures: [
      told('minutes', 'minutes', `Time of the ${what}`, 'min'),
      told('peakA', 'peakA', `Peak current of the ${what}`, 'A'),
      told('packHeatW', 'heatW', `Heat of the pack, ${what}`, 'W'),
    ],
    checks: [],
  };
}

/** A fast charge, and one at home: how long, and what of it becomes heat in the pack. */
export const chargeStep: StepDefinition = {
  id: 'cooling.charge',
  version: 1,
  subjects: ({ cooling, supplies = {} }) => {
    const has = (isStation: boolean) =>
      cooling !== undefined && Object.values(supplies).some(({ kind }) => (kind === 'station') === isStation);
    return [
      ...(cooling?.fastChargeW !== undefined || has(true) ? ['fast'] : []),
      ...(cooling?.chargeW !== undefined || has(false) ? ['home'] : []),
    ];
  },
  compute(subject, read) {
    const followed = chargePower(read, subject as 'fast' | 'home');
    if (followed.typedW === null) return followedCharge(subject as 'fast' | 'home', followed, read);
    const run = chargeInputs(read, subject).run<ChargeCurveInput, ChargeCurveResult>(chargeCurve);
    const what = subject === 'fast' ? 'fast charge' : 'charge at home';
    const heat = chargeHeat(
      figureId('cooling.charge', subject, 'packHeatW'),
      `Heat of the pack, ${what}`,
      what,
      run,
    );
    return run.output(
      [
        ...run.figures('cooling.charge', subject, [
          { name: 'minutes', symbol: 't', label: `Time of the ${what}`, unit: 'min' },
          { name: 'peakA', label: `Peak current of the ${what}`, unit: 'A' },
        ]),
        heat,
      ],
      run.checks([subject]),
    );
  },
};
