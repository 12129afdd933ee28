import { figureId, type FigureId, type FigureName, type Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import { heaterOfDevice } from '../../model/document';
import { gapsBehind, judge, type StepDefinition } from '../../model/step';
import { boxRules } from './box-rules';
import { soundRules } from './sound-rules';
import { packLowest } from './source-step';

/** Below this share of its rating a heater is worth a word. */
const weakHeaterFraction = 0.6;
/** Above this share it is more than a tolerance of its voltage. */
const strongHeaterFraction = 1.5;

/** Heaters of plain resistance: their power goes with the square of the voltage. */
export const heaterStep: StepDefinition = {
  id: 'pack.heater',
  version: 1,
  subjects: (design) =>
    Object.keys(design.devices).filter((id) => {
      const { ratedPowerW, ratedVoltageV, kind } = design.devices[id]!;
      // One that boxes or coolant name has the power of its part.
      if (kind === 'heater' && heaterOfDevice(design, id) !== null) return false;
      return kind === 'heater' || ratedPowerW !== undefined || ratedVoltageV !== undefined;
    }),
  compute(subject, read) {
    const device = read.at('devices', subject)!;
    const at = `devices.${subject}`;
    const gaps: Gap[] = [];
    for (const [field, label] of [
      ['ratedPowerW', 'rated power'],
      ['ratedVoltageV', 'rated voltage'],
    ] as const) {
      const value = device[field];
      if (value === undefined)
        gaps.push({ kind: 'not-given', path: `${at}.${field}`, label: `${label} of ${device.tag}` });
      else if (value <= 0)
        gaps.push({
          kind: 'invalid',
          path: `${at}.${field}`,
          label: `${label} of ${device.tag}`,
          message: 'must be above 0',
        });
    }
    const ratedW = device.ratedPowerW ?? 0;
    const ratedV = device.ratedVoltageV ?? 0;
    const powerAt = (name: FigureName<'pack.heater'>, label: string, voltage: FigureId) => {
      const figure = read.figure(voltage);
      const missing = [...gaps, ...(figure.value === null ? gapsBehind(figure) : [])];
      const value = missing.length > 0 ? null : ratedW * (figure.value! / ratedV) ** 2;
      return {
        id: figureId('pack.heater', subject, name),
        label,
        unit: 'W',
        value,
        gaps: missing,
        working:
          value === null
            ? []
            : [
                {
                  symbol: 'P',
                  label,
                  formula: 'P_r·(U/U_r)²',
                  inputs: [
                    {
                      symbol: 'P_r',
                      value: ratedW,
                      unit: 'W',
                      origin: { kind: 'document' as const, path: `${at}.ratedPowerW` },
                    },
                    {
                      symbol: 'U',
                      value: figure.value!,
                      unit: 'V',
                      origin: { kind: 'figure' as const, id: figure.id },
                    },
                    {
                      symbol: 'U_r',
                      value: ratedV,
                      unit: 'V',
                      origin: { kind: 'document' as const, path: `${at}.ratedVoltageV` },
                    },
                  ],
                  value,
                  unit: 'W',
                  source: 'A plain resistance takes power with the square of the voltage',
                },
              ],
      };
    };
    const low = powerAt('powerAtLowW', 'Heater power, bottom of the window', packLowest);
    const high = powerAt(
      'powerAtMaxW',
      'Heater power, pack full',
      figureId('pack.pack', 'pack', 'voltageMaxV'),
    );
    const circuits = read.at('circuits');
    const own = Object.keys(circuits).find((id) => circuits[id]!.device === subject);
    const switched = own !== undefined && circuits[own]!.contactor !== undefined;
    const cut = device.thermalCut;
    const isHeater = device.kind === 'heater';
    const strong = high.value !== null && high.value > strongHeaterFraction * ratedW;
    const weak = low.value !== null && low.value < weakHeaterFraction * ratedW;
    const cutCheck = judge(
      boxRules.heaterCut,
      [subject],
      cut === undefined
        ? [{ kind: 'not-given', path: `${at}.thermalCut`, label: `thermal cut-out of ${device.tag}` }]
        : [],
      cut === 'none'
        ? `${device.tag} has 0 cut-outs; it needs 1.`
        : cut === 'in the coil circuit' && !switched
          ? `That of ${device.tag} acts on the coils of contactors, and its circuit has 0 of them.`
          : null,
      [
        { label: 'contactors of its own', value: switched ? 1 : 0, unit: '' },
        { label: 'cut-outs', value: cut === undefined || cut === 'none' ? 0 : 1, unit: '' },
        { label: 'cut-outs that it needs', value: 1, unit: '' },
      ],
    );
    // Not rated as a plain resistance: its power is nobody's question here.
    if (device.ratedPowerW === undefined && device.ratedVoltageV === undefined)
      return { figures: [], checks: isHeater ? [cutCheck] : [] };
    return {
      figures: [low, high],
      checks: [
        ...(isHeater ? [cutCheck] : []),
        judge(
          boxRules.heater,
          [subject],
          low.gaps,
          weak
            ? `${device.tag} is rated ${formatNumber(ratedW / 1000)} kW at ${formatNumber(ratedV)} V; at the bottom of the charge window it gives ${formatNumber((low.value ?? 0) / 1000)} kW, full ${formatNumber((high.value ?? 0) / 1000)} kW.`
            : null,
          [
            { label: 'power at the bottom of the window', value: low.value ?? 0, unit: 'W' },
            { label: 'rated power', value: ratedW, unit: 'W' },
            { label: 'rated voltage', value: ratedV, unit: 'V' },
            { label: 'power, pack full', value: high.value ?? 0, unit: 'W' },
          ],
        ),
        judge(
          soundRules.heaterStrong,
          [subject],
          high.gaps,
          strong
            ? `${device.tag} is rated ${formatNumber(ratedW / 1000)} kW at ${formatNumber(ratedV)} V; from the full pack it takes ${formatNumber((high.value ?? 0) / 1000)} kW.`
            : null,
          [
            { label: 'power, pack full', value: high.value ?? 0, unit: 'W' },
            { label: 'rated voltage', value: ratedV, unit: 'V' },
            { label: 'rated power', value: ratedW, unit: 'W' },
          ],
        ),
      ],
    };
  },
};
