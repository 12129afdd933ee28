import { formatNumber } from '../../ground/quantity';
import { figureId, type Figure } from '../../ground/figure';
import { onMainBus } from '../network';
import { gapsBehind, Inputs, judge, type StepDefinition } from '../../model/step';
import { busDischarge } from './bus-discharge';
import { mainBus, ownBuses } from './bus-step';
import { packHighest, capacitanceOf } from './places';
import { activeAlone, bleedHeat, bleedHot, hotBleedW } from './rules';

export const dischargeStep: StepDefinition = {
  id: 'precharge.discharge',
  version: 1,
  subjects: (design) => [mainBus, ...ownBuses(design)],
  compute(subject, read) {
    const settings = read.at('settings');
    const inputs = new Inputs(read);
    inputs.figure('voltageV', packHighest);
    inputs.figure('capacitanceF', capacitanceOf(subject));
    inputs.figure('bleedOhm', figureId('precharge.bus', subject, 'emptyOhm'));
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
    const passive = read.figure(figureId('precharge.bus', subject, 'bleedOhm'));
    const heat = figures.find(({ id }) => id.endsWith(':bleedPowerAtVoltageW'))!;
    // What is switched on at shut-down alone gives no heat while it runs.
    if (run.input !== null && passive.value !== run.input.bleedOhm)
      Object.assign(heat, onlyPassive(heat, run.input.voltageV, passive));
    const values = [
      { label: 'time to below the touch limit', value: run.result?.timeToSafeS ?? 0, unit: 's' },
      { label: 'limit', value: max ?? 0, unit: 's' },
      { label: 'touch limit', value: run.input?.safeVoltageV ?? 0, unit: 'V' },
      { label: 'largest bleed', value: run.result?.largestBleedOhmForLimit ?? 0, unit: 'Ω' },
    ];
    const all = read.at('devices');
    const fed = all[read.at('circuits', subject, 'device') ?? ''];
    const devices =
      subject === mainBus || fed === undefined
        ? onMainBus({ devices: all, circuits: read.at('circuits') }).map((id) => all[id]!)
        : [fed];
    const none =
      devices.length > 0 &&
      devices.every(({ bleedOhm, activeOhm }) => bleedOhm === undefined && activeOhm === undefined);
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
      [{ label: 'devices on the bus', value: devices.length, unit: '' }],
    );
    const heatW = heat.value ?? 0;
    const hot = judge(
      bleedHot,
      [subject],
      heat.value === null ? gapsBehind(heat) : [],
      heatW > hotBleedW
        ? `The bleed of the bus turns ${formatNumber(heatW)} W into heat whenever it is live.`
        : null,
      [{ label: 'bleed heat', value: heatW, unit: 'W' }],
    );
    const active = devices.filter(({ activeOhm }) => activeOhm !== undefined);
    const alone = judge(
      activeAlone,
      [subject],
      run.gaps,
      active.length > 0 && passive.value === null
        ? `Of ${devices.length} devices ${active.length} ${active.length === 1 ? 'empties' : 'empty'} the bus actively and none has a bleed that is always on.`
        : null,
      [
        { label: 'devices on the bus', value: devices.length, unit: '' },
        { label: 'devices that empty it actively', value: active.length, unit: '' },
      ],
    );
    return run.output(figures, [...run.checks([subject], values), noBleed, hot, alone]);
  },
};

/** The heat of the bleeds that are always on; none when there are none. */
function onlyPassive(heat: Figure, voltageV: number, passive: Figure): Figure {
  const value = passive.value === null ? 0 : voltageV ** 2 / passive.value;
  return {
    ...heat,
    value,
    working:
      passive.value === null
        ? []
        : [
            {
              symbol: 'P',
              label: heat.label,
              formula: 'V²/R',
              inputs: [
                { symbol: 'V', value: voltageV, unit: 'V', origin: { kind: 'figure', id: packHighest } },
                { symbol: 'R', value: passive.value, unit: 'Ω', origin: { kind: 'figure', id: passive.id } },
              ],
              value,
              unit: 'W',
              source: 'Bleeds that are always on',
            },
          ],
  };
}
