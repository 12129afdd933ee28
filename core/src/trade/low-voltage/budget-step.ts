import { figureId, type Figure, type FigureName, type Gap } from '../../ground/figure';
import type { CheckValue } from '../../ground/finding';
import { formatNumber } from '../../ground/quantity';
import {
  lowVoltageDefaults,
  settingsDefaults,
  startLowOf,
  supplyOf,
  type Design,
} from '../../model/document';
import { Inputs, judge, type StepDefinition } from '../../model/step';
import { loadsOf } from './budget-loads';
import { lowVoltageRules } from './rules';
import { fedV, lowVoltageSystem } from './system';
import { twelveVolt, twelveVoltRules, type TwelveVoltInput, type TwelveVoltResult } from './twelve-volt';

const n = formatNumber;
/** Of a night, h. */
const nightH = 12;
/** A battery is fed with at most so many times its nominal voltage. */
const mostFed = 1.25;
/** Without its converter a vehicle goes on at least that long, h. */
const limpH = 0.5;

export const saysLowVoltage = ({ lowVoltage, loads = {} }: Pick<Design, 'lowVoltage' | 'loads'>): boolean =>
  lowVoltage !== undefined || Object.keys(loads).length > 0;

/** What the low voltage draws in each mode, and how long battery and converter carry it. */
export const budgetStep: StepDefinition = {
  id: 'low-voltage.budget',
  version: 1,
  subjects: (design) => (saysLowVoltage(design) ? ['vehicle'] : []),
  compute(subject, read) {
    const settings = read.at('lowVoltage') ?? {};
    const system = lowVoltageSystem({
      lowVoltage: settings,
      parts: read.at('parts'),
      settings: read.at('settings'),
    });
    const systemV = fedV(system);
    const { loads, gaps } = loadsOf(read, systemV);
    const gather = (batteryV: number | null): Inputs => {
      const inputs = new Inputs(read);
      inputs.missing(...gaps);
      inputs.set(
        'loads',
        loads.map(({ id, watts, dutyFraction, when, essential, steady }) => ({
          id,
          // At the voltage of the battery what keeps its power draws more.
          watts: batteryV !== null && steady ? (watts * systemV) / batteryV : watts,
          dutyFraction,
          when,
          essential,
        })),
        { kind: 'document', path: 'loads' },
        'loads',
      );
      if (system.converterA !== null)
        inputs.set(
          'dcdcA',
          system.converterA,
          { kind: 'document', path: 'lowVoltage.converter' },
          'converter',
        );
      inputs.set(
        'systemV',
        systemV,
        system.systemV === null
          ? { kind: 'default', path: 'lowVoltage.systemV' }
          : { kind: 'document', path: 'lowVoltage.systemV' },
        'voltage while it is fed',
      );
      inputs.given('batteryAh', system.batteryAh ?? undefined, 'lowVoltage.battery', 'battery');
      inputs.optional(
        'usableFraction',
        system.usableFraction ?? undefined,
        'lowVoltage.usableFraction',
        'usable of the battery',
      );
      inputs.optional(
        'deratingFraction',
        settings.deratingFraction,
        'lowVoltage.deratingFraction',
        'counted on of the converter',
      );
      return inputs;
    };
    const fed = gather(null).run<TwelveVoltInput, TwelveVoltResult>(twelveVolt);
    const alone = gather(system.nominalV).run<TwelveVoltInput, TwelveVoltResult>(twelveVolt);
    const driving = loads.filter(({ when }) => when !== 'charging');
    const drivingW = driving.reduce((sum, one) => sum + one.watts * one.dutyFraction, 0);
    // A battery that the mains fill takes nothing out of the pack.
    const packW = system.hasConverter ? drivingW / (system.efficiency ?? 1) : 0;
    const accessoriesW = read.at('vehicle').accessoriesW;
    const steepest = driving.reduce(
      (most, one) => Math.max(most, one.peakW - one.watts * one.dutyFraction),
      0,
    );
    const peakA = (drivingW + steepest) / systemV;
    const named = driving.find((one) => one.peakW - one.watts * one.dutyFraction === steepest);
    const peakName = named === undefined ? '' : (read.at('loads')?.[named.id]?.tag ?? '');
    const own = (
      name: FigureName<'low-voltage.budget'>,
      label: string,
      unit: string,
      value: number,
      formula: string,
      terms: [string, number, string][],
    ): Figure => ({
      id: figureId('low-voltage.budget', subject, name),
      label,
      unit,
      value: gaps.length > 0 ? null : value,
      gaps,
      working:
        gaps.length > 0
          ? []
          : [
              {
                symbol: 'x',
                label,
                formula,
                inputs: terms.map(([symbol, one, of]) => ({ symbol, value: one, unit: of })),
                value,
                unit,
                source: 'Sum of power times duty; the largest peak stands on it',
              },
            ],
    });
    const converterA =
      system.converterA === null
        ? 0
        : system.converterA * (settings.deratingFraction ?? lowVoltageDefaults.deratingFraction);
    // When the converter is gone the battery alone takes the peak.
    const atPeakV =
      system.resistanceOhm === null
        ? null
        : system.nominalV - (peakA * systemV * system.resistanceOhm) / system.nominalV;
    const lowV =
      (startLowOf(read.at('settings')) * system.nominalV) /
      (read.at('settings').supplyV ?? settingsDefaults.supplyV);
    const v = (label: string, value: number, unit: string): CheckValue => ({ label, value, unit });
    const hours = alone.result?.hoursOnBatteryDriving ?? null;
    const essential = alone.result?.hoursEssentialOnly ?? null;
    const days = alone.result?.daysParked ?? null;
    const journeyH = settings.journeyH ?? lowVoltageDefaults.journeyH;
    const parkedDays = settings.parkedDays ?? lowVoltageDefaults.parkedDays;
    const onBattery = settings.school === 'mains charger';
    const coilsV = supplyOf(read.at('settings'));
    const isFed = system.hasConverter ? system.converterA !== null : settings.mainsChargerA !== undefined;
    // What a journey takes out, put back by a charger that fills at its current.
    const refillH =
      alone.result === null || settings.mainsChargerA === undefined || !(settings.mainsChargerA > 0)
        ? null
        : (alone.result.drivingA * journeyH) / settings.mainsChargerA;
    const battery = read.at('parts')[settings.battery ?? ''];
    const ofSheet = battery?.kind === 'battery' ? battery.data.usableFraction : null;
    const noBattery: Gap[] =
      system.resistanceOhm === null
        ? [{ kind: 'not-given', path: 'lowVoltage.battery', label: 'resistance of the battery' }]
        : [];
    return {
      figures: [
        ...fed.figures('low-voltage.budget', subject, [
          { name: 'drivingA', symbol: 'I_d', label: 'Low voltage while driving', unit: 'A' },
          { name: 'chargingA', symbol: 'I_c', label: 'Low voltage while charging', unit: 'A' },
          { name: 'parkedA', symbol: 'I_p', label: 'Low voltage while parked', unit: 'A' },
        ]),
        {
          ...fed.figures('low-voltage.budget', subject, [
            { name: 'marginA', label: 'Converter over its loads', unit: 'A' },
          ])[0]!,
          ...(fed.result !== null &&
            fed.result.marginA === null && { gaps: [{ kind: 'never' as const, label: 'no converter' }] }),
        },
        own('drivingW', 'Power of the low voltage while driving', 'W', drivingW, 'Σ P·d', [
          ['Σ', drivingW, 'W'],
        ]),
        own('packW', 'Power of the low voltage out of the pack', 'W', packW, 'P/η', [
          ['P', drivingW, 'W'],
          ['η', system.hasConverter ? (system.efficiency ?? 1) : 1, ''],
        ]),
        own('peakA', 'Largest peak of the low voltage', 'A', peakA, '(P + ΔP)/U', [
          ['P', drivingW, 'W'],
          ['ΔP', steepest, 'W'],
          ['U', systemV, 'V'],
        ]),
        ...alone.figures('low-voltage.budget', subject, [
          { name: 'hoursOnBatteryDriving', symbol: 't', label: 'Driving on the battery alone', unit: 'h' },
          { name: 'hoursEssentialOnly', label: 'The same, essential loads alone', unit: 'h' },
          { name: 'daysParked', label: 'Parked until flat', unit: 'days' },
        ]),
      ],
      ...(fed.input !== null && { run: { calculator: 'twelve-volt', input: fed.input, result: fed.result } }),
      checks: [
        ...fed
          .checks(
            [subject],
            [
              v('driving', fed.result?.drivingA ?? 0, 'A'),
              v('charging', fed.result?.chargingA ?? 0, 'A'),
              v('converter, as counted on', converterA, 'A'),
              v('battery', system.batteryAh ?? 0, 'Ah'),
            ],
          )
          // At a high rate: of a battery that carries the journeys alone.
          .map((check) =>
            check.rule === twelveVoltRules.rate && !onBattery
              ? judge(check.rule, [subject], [], null)
              : check,
          ),
        judge(
          lowVoltageRules.journey,
          [subject],
          onBattery ? alone.gaps : [],
          onBattery && hours !== null && hours < journeyH
            ? `Driving with all loads it lasts ${n(hours)} h; the longest journey takes ${n(journeyH)} h.`
            : null,
          [v('lasts with all loads', hours ?? 0, 'h'), v('journey', journeyH, 'h')],
        ),
        judge(
          lowVoltageRules.limp,
          [subject],
          onBattery ? [] : alone.gaps,
          !onBattery && essential !== null && essential < limpH
            ? `Essential loads alone empty the battery in ${n(essential)} h; ${n(limpH)} h are asked.`
            : null,
          [v('lasts with essential loads', essential ?? 0, 'h'), v('asked', limpH, 'h')],
        ),
        judge(
          lowVoltageRules.parked,
          [subject],
          alone.gaps,
          days !== null && days < parkedDays
            ? `Parked it lasts ${n(days)} days; it stands up to ${n(parkedDays)} days.`
            : null,
          [v('lasts parked', days ?? 0, 'days'), v('stands', parkedDays, 'days')],
        ),
        judge(
          lowVoltageRules.unfed,
          [subject],
          settings.school === undefined
            ? [{ kind: 'not-given', path: 'lowVoltage.school', label: 'what feeds the low voltage' }]
            : [],
          isFed ? null : `${n(loads.length)} loads draw from it.`,
          [v('loads', loads.length, '')],
        ),
        judge(
          lowVoltageRules.accessories,
          [subject],
          gaps,
          accessoriesW !== undefined && accessoriesW < packW * 0.98
            ? `${n(accessoriesW)} W are typed for accessories; the low voltage alone takes ${n(packW)} W.`
            : null,
          [v('typed', accessoriesW ?? 0, 'W'), v('low voltage takes', packW, 'W')],
        ),
        judge(
          lowVoltageRules.twoVoltages,
          [subject],
          settings.battery === undefined
            ? [{ kind: 'not-given', path: 'lowVoltage.battery', label: 'battery' }]
            : [],
          coilsV !== system.nominalV && settings.dropper !== true
            ? `Coils and monitor are judged at ${n(coilsV)} V; the battery has ${n(system.nominalV)} V.`
            : null,
          [v('coils', coilsV, 'V'), v('battery', system.nominalV, 'V')],
        ),
        judge(
          lowVoltageRules.fedVoltage,
          [subject],
          settings.battery === undefined
            ? [{ kind: 'not-given', path: 'lowVoltage.battery', label: 'battery' }]
            : [],
          systemV < system.nominalV * (1 - 1e-9) || systemV > system.nominalV * mostFed * (1 + 1e-9)
            ? `${n(systemV)} V while it is fed; the battery has ${n(system.nominalV)} V.`
            : null,
          [v('while it is fed', systemV, 'V'), v('battery', system.nominalV, 'V')],
          { also: ['lowVoltage'] },
        ),
        judge(
          lowVoltageRules.usable,
          [subject],
          [],
          ofSheet !== null &&
            settings.usableFraction !== undefined &&
            settings.usableFraction > ofSheet + 1e-9
            ? `${n(settings.usableFraction * 100)} % are counted on; its sheet says ${n(ofSheet * 100)} %.`
            : null,
          [v('counted on', (settings.usableFraction ?? 0) * 100, '%'), v('sheet', (ofSheet ?? 0) * 100, '%')],
          { also: ['lowVoltage'], parts: settings.battery === undefined ? [] : [settings.battery] },
        ),
        judge(
          lowVoltageRules.refill,
          [subject],
          onBattery
            ? [
                ...alone.gaps,
                ...(settings.mainsChargerA === undefined
                  ? [{ kind: 'not-given' as const, path: 'lowVoltage.mainsChargerA', label: 'mains charger' }]
                  : []),
              ]
            : [],
          onBattery && refillH !== null && refillH > nightH
            ? `After a journey of ${n(journeyH)} h the charger of ${n(settings.mainsChargerA!)} A takes ${n(refillH)} h to fill the battery again; a night has ${n(nightH)} h.`
            : null,
          [
            v('journey', journeyH, 'h'),
            v('charger', settings.mainsChargerA ?? 0, 'A'),
            v('fills in', refillH ?? 0, 'h'),
            v('a night', nightH, 'h'),
          ],
          { also: ['lowVoltage'] },
        ),
        judge(
          lowVoltageRules.sag,
          [subject],
          [...gaps, ...noBattery],
          atPeakV !== null && atPeakV < lowV
            ? `With ${peakName} starting the battery alone falls to ${n(atPeakV)} V; coils need ${n(lowV)} V.`
            : null,
          [v('at the peak', atPeakV ?? 0, 'V'), v('coils need', lowV, 'V')],
        ),
        judge(
          lowVoltageRules.peak,
          [subject],
          [
            ...gaps,
            ...(system.dischargeA === null
              ? [{ kind: 'not-given' as const, path: 'lowVoltage.battery', label: 'current of the battery' }]
              : []),
          ],
          system.dischargeA !== null && peakA - converterA > system.dischargeA
            ? `At most ${n(peakA)} A, of which the converter gives ${n(converterA)} A; the battery gives ${n(system.dischargeA)} A.`
            : null,
          [
            v('peak', peakA, 'A'),
            v('converter gives', converterA, 'A'),
            v('battery gives', system.dischargeA ?? 0, 'A'),
          ],
        ),
      ],
    };
  },
};
