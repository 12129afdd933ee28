import { figureId } from '../figure';
import { onMainBus } from '../network';
import { gapsBehind, Inputs, judge, type StepDefinition } from '../step';
import { busDischarge } from './bus-discharge';
import { mainBus, ownBuses } from './bus-step';
import { packHighest, capacitanceOf } from './places';
import { bleedHeat } from './rules';

export const dischargeStep: StepDefinition = {
  id: 'precharge.discharge',
  version: 1,
  subjects: (design) => [mainBus, ...ownBuses(design)],
  compute(subject, read) {
    const settings = read.at('settings');
    const inputs = new Inputs(read);
    inputs.figure('voltageV', packHighest);
    inputs.figure('capacitanceF', capacitanceOf(subject));
    inputs.figure('bleedOhm', figureId('precharge.bus', subject, 'bleedOhm'));
    inputs.optional('safeVoltageV', settings.touchLimitV, 'settings.touchLimitV', 'touch limit');
    inputs.optional(
      'limitS',
      settings.dischargeLimitS,
      'settings.dischargeLimitS',
      'time allowed after shut-down',
    );
    const run = inputs.run(busDischarge);
    const max = run.input?.limitS;
    const figures = run.figures('precharge.discharge', subject, [
      {
        name: 'timeToSafeS',
        symbol: 't',
        label: 'Time to below the touch limit',
        unit: 's',
        ...(max !== undefined && { limit: { max } }),
      },
      { name: 'energyJ', symbol: 'W', label: 'Energy on the bus', unit: 'J' },
      { name: 'bleedPowerAtVoltageW', symbol: 'P', label: 'Bleed heat', unit: 'W' },
      { name: 'largestBleedOhmForLimit', symbol: 'R_max', label: 'Largest bleed for the limit', unit: 'Ω' },
    ]);
    const values = [
      { label: 'time to below the touch limit', value: run.result?.timeToSafeS ?? 0, unit: 's' },
      { label: 'limit', value: max ?? 0, unit: 's' },
    ];
    const all = read.at('devices');
    const fed = all[read.at('circuits', subject, 'device') ?? ''];
    const devices =
      subject === mainBus || fed === undefined
        ? onMainBus({ devices: all, circuits: read.at('circuits') }).map((id) => all[id]!)
        : [fed];
    const none = devices.length > 0 && devices.every((device) => device.bleedOhm === undefined);
    const capacitance = read.figure(capacitanceOf(subject));
    const noBleed = judge(
      bleedHeat,
      [subject],
      capacitance.value === null ? gapsBehind(capacitance) : [],
      !none
        ? null
        : subject === mainBus
          ? `No device among ${devices.length} on the bus has a bleed resistor entered.`
          : `${fed?.tag} hangs behind contactors of its own and has no bleed resistor entered.`,
    );
    return run.output(figures, [...run.checks([subject], values), noBleed]);
  },
};
