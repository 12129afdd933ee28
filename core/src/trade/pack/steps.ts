import { placingStep } from './placing-step';
import { alikeStep, soundStep, standingStep } from './sound-step';
import type { DeviceItem } from '../../model/document';
import {
  figureId,
  type Check,
  type Figure,
  type Gap,
  type FigureName,
  type Origin,
} from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import { gapsBehind, Inputs, judge, type Reader, type StepDefinition } from '../../model/step';
import { heaterStep } from './heater-step';
import { boxStep } from './box-steps';
import { liftStep } from './lift-step';
import { readPackLayout } from './layout';
import { pack } from './pack';
import { packRules } from './rules';
import { chargingStep } from './charging-step';
import { inSeries, leadStep } from './lead-step';
import { postsStep } from './posts-step';
import { stringStep } from './string-step';
import { linksAtPack, sourceStep, temperatureStep } from './source-step';

/** The pack before anybody said how far and how hard it is used: what depends on neither. */
function runOfModules(inputs: Inputs) {
  const none: Origin = { kind: 'document', path: 'pack' };
  inputs.set('socWindow', [0, 1], none, 'charge window');
  inputs.set('peakCurrentA', 0, none, 'peak current');
  return inputs.run(pack);
}

/** What all modules of the strings weigh: known although strings are so unlike that nothing else of the pack is. */
function massOfModules(subject: string, read: Reader, asOne: Figure): Figure {
  if (asOne.value !== null) return asOne;
  const [strings, modules, parts] = [read.at('strings'), read.at('modules'), read.at('parts')];
  const ids = Object.values(strings).flatMap((string) => string.modules);
  const masses = ids.map((id) => {
    const part = parts[modules[id]?.part ?? ''];
    return part?.kind === 'module' ? part.data.massKg : null;
  });
  if (masses.length === 0 || masses.includes(null)) return asOne;
  const value = masses.reduce<number>((sum, own) => sum + own!, 0);
  return {
    id: figureId('pack.pack', subject, 'massKg'),
    label: asOne.label,
    unit: 'kg',
    value,
    gaps: [],
    working: [
      {
        symbol: 'm',
        label: asOne.label,
        formula: 'Σ m_i',
        inputs: [{ symbol: 'n', label: 'modules', value: ids.length, unit: '' }],
        value,
        unit: 'kg',
        source: 'Mass of each module as its part has it',
      },
    ],
  };
}

const packStep: StepDefinition = {
  id: 'pack.pack',
  version: 1,
  subjects: () => ['pack'],
  compute(subject, read) {
    const settings = read.at('pack');
    const { layout, gaps } = readPackLayout(read);
    const low = settings.socLowFraction;
    const high = settings.socHighFraction;
    const extras = inSeries(read);
    const beside = extras.packOhm > 0 || [...extras.strings.values()].some((ohm) => ohm > 0);
    /** What the modules and their connection alone tell. */
    const ofModules = () => {
      const inputs = new Inputs(read);
      inputs.missing(...gaps);
      if (settings.linkResistanceOhm !== undefined || beside) inputs.figure('linkResistanceOhm', linksAtPack);
      else inputs.optional('linkResistanceOhm', undefined, 'pack.linkResistanceOhm', 'links of one string');
      if (layout === null) return inputs;
      const { key, part, strings, seriesCells } = layout;
      const { cell, cellsInParallel } = part.data;
      for (const [name, value] of Object.entries(cell)) {
        inputs.set(
          `cell.${name}`,
          value,
          { kind: 'part', key, path: `cell.${name}` },
          `${name} of ${part.label}`,
        );
      }
      const massOfCell = layout.massKg / (strings * seriesCells * cellsInParallel);
      inputs.set('cell.massKg', massOfCell, { kind: 'part', key, path: 'massKg' }, 'mass of a cell');
      inputs.set('series', seriesCells, { kind: 'document', path: 'strings' }, 'cells in series');
      inputs.set(
        'parallel',
        strings * cellsInParallel,
        { kind: 'document', path: 'strings' },
        'cells in parallel',
      );
      return inputs;
    };
    const inputs = ofModules();
    if (low === undefined)
      inputs.missing({
        kind: 'not-given',
        path: 'pack.socLowFraction',
        label: 'bottom of the charge window',
      });
    if (high === undefined)
      inputs.missing({ kind: 'not-given', path: 'pack.socHighFraction', label: 'top of the charge window' });
    inputs.set('socWindow', [low, high], { kind: 'document', path: 'pack.socHighFraction' }, 'charge window');
    inputs.given('peakCurrentA', settings.peakCurrentA, 'pack.peakCurrentA', 'peak current');
    inputs.optional(
      'socForPeakFraction',
      settings.socForPeakFraction,
      'pack.socForPeakFraction',
      'state of charge at the peak',
    );
    const run = inputs.run(pack);
    const own = run.result === null ? runOfModules(ofModules()) : run;
    const figures = [
      ...own.figures('pack.pack', subject, [
        { name: 'voltageMinV', symbol: 'U_min', label: 'Lowest pack voltage', unit: 'V' },
        { name: 'voltageMaxV', symbol: 'U_max', label: 'Highest pack voltage', unit: 'V' },
        { name: 'voltageNominalV', symbol: 'U_nom', label: 'Nominal voltage', unit: 'V' },
        { name: 'capacityAh', symbol: 'Q', label: 'Capacity', unit: 'Ah' },
        { name: 'energyKWh', symbol: 'E', label: 'Energy, full to empty', unit: 'kWh' },
        { name: 'resistanceOhm', symbol: 'R', label: 'Pack resistance', unit: 'Ω' },
        { name: 'shortCircuitCurrentA', symbol: 'I_sc', label: 'Short-circuit current, full', unit: 'A' },
      ]),
      massOfModules(
        subject,
        read,
        own.figures('pack.pack', subject, [{ name: 'massKg', label: 'Mass of the modules', unit: 'kg' }])[0]!,
      ),
      ...run.figures('pack.pack', subject, [
        { name: 'usableEnergyKWh', symbol: 'E_use', label: 'Usable energy', unit: 'kWh' },
        { name: 'sagAtPeakV', symbol: 'ΔU', label: 'Sag at peak', unit: 'V' },
        { name: 'voltageAtPeakV', symbol: 'U_pk', label: 'Voltage at peak', unit: 'V' },
        {
          name: 'cellVoltageAtPeakV',
          symbol: 'u_pk',
          label: 'Cell voltage at peak',
          unit: 'V',
          ...(layout !== null && { limit: { min: layout.part.data.cell.minV } }),
        },
      ]),
    ];
    const checks: Check[] = own.checks(
      [subject],
      [{ label: 'short-circuit current', value: own.result?.shortCircuitCurrentA ?? 0, unit: 'A' }],
    );
    const cellMinV = layout?.part.data.cell.minV ?? 0;
    const atPeak = run.result?.cellVoltageAtPeakV ?? 0;
    checks.push(
      judge(
        packRules.cellAtPeak,
        [subject],
        run.gaps,
        atPeak < cellMinV
          ? `At ${formatNumber(settings.peakCurrentA ?? 0)} A a cell falls to ${formatNumber(atPeak)} V; its minimum is ${formatNumber(cellMinV)} V.`
          : null,
        [
          { label: 'cell voltage at peak', value: atPeak, unit: 'V' },
          { label: 'minimum cell voltage', value: cellMinV, unit: 'V' },
        ],
      ),
    );
    const share = (settings.peakCurrentA ?? 0) / (layout?.strings ?? 1);
    const modulePeakA = layout?.peakA ?? 0;
    checks.push(
      judge(
        packRules.modulePeak,
        [subject],
        run.gaps,
        share > modulePeakA
          ? `Each string carries ${formatNumber(share)} A at the peak; ${layout?.part.label ?? 'the module'} is made for ${formatNumber(modulePeakA)} A.`
          : null,
        [
          { label: 'peak current of a string', value: share, unit: 'A' },
          { label: 'peak current of the module', value: modulePeakA, unit: 'A' },
        ],
      ),
    );
    return run.output(figures, checks);
  },
};

/** Few devices work over more than this, as highest over lowest voltage. */
const likelyWindow = 10;

/** A charger and a DC inlet do nothing while the vehicle drives: the sag of its peak is none of theirs. */
const worksWhileDriving = ({ kind }: DeviceItem) => kind !== 'charger' && kind !== 'dc-inlet';

/** Each device on the bus against the pack's voltages. */
const windowsStep: StepDefinition = {
  id: 'pack.windows',
  version: 1,
  subjects: (design) => Object.keys(design.devices),
  compute(subject, read) {
    const device = read.at('devices', subject)!;
    const pick = (name: FigureName<'pack.pack'>) => read.figure(figureId('pack.pack', 'pack', name));
    const highest = pick('voltageMaxV');
    const lowest = pick('voltageMinV');
    const sagging = pick('voltageAtPeakV');
    const missing = (value: number | undefined, end: 'minV' | 'maxV'): Gap[] =>
      value === undefined
        ? [
            {
              kind: 'not-given',
              path: `devices.${subject}.${end}`,
              label: `${end === 'minV' ? 'lowest' : 'highest'} voltage of ${device.tag}`,
            },
          ]
        : [];
    const gapsOf = (...figures: (typeof highest)[]) =>
      figures.flatMap((figure) => (figure.value === null ? gapsBehind(figure) : []));
    const compare = (
      rule: (typeof packRules)['deviceHigh'],
      figure: typeof highest,
      limit: number | undefined,
      end: 'minV' | 'maxV',
      text: (value: string, limit: string) => string,
    ): Check => {
      const value = figure.value ?? 0;
      const out = limit !== undefined && (end === 'maxV' ? value > limit : value < limit);
      return judge(
        rule,
        [subject],
        [...missing(limit, end), ...gapsOf(figure)],
        out ? text(formatNumber(value, 4), formatNumber(limit, 4)) : null,
        [
          { label: figure.label, value, unit: 'V' },
          {
            label: `${end === 'maxV' ? 'highest' : 'lowest'} voltage of the device`,
            value: limit ?? 0,
            unit: 'V',
          },
        ],
      );
    };
    return {
      figures: [],
      checks: [
        compare(
          packRules.deviceHigh,
          highest,
          device.maxV,
          'maxV',
          (v, l) => `The pack reaches ${v} V; ${device.tag} stands ${l} V.`,
        ),
        compare(
          packRules.deviceLow,
          lowest,
          device.minV,
          'minV',
          (v, l) => `The pack goes down to ${v} V; ${device.tag} works from ${l} V.`,
        ),
        judge(
          packRules.deviceWide,
          [subject],
          [...missing(device.minV, 'minV'), ...missing(device.maxV, 'maxV')],
          device.minV !== undefined &&
            device.maxV !== undefined &&
            device.minV > 0 &&
            device.maxV > device.minV * likelyWindow
            ? `${device.tag} works from ${formatNumber(device.minV, 4)} to ${formatNumber(device.maxV, 4)} V.`
            : null,
          [
            { label: 'works from', value: device.minV ?? 0, unit: 'V' },
            { label: 'works up to', value: device.maxV ?? 0, unit: 'V' },
          ],
        ),
        ...(worksWhileDriving(device)
          ? [
              compare(
                packRules.deviceSag,
                sagging,
                device.minV,
                'minV',
                (v, l) => `At peak current the bus sags to ${v} V; ${device.tag} works from ${l} V.`,
              ),
            ]
          : []),
      ],
    };
  },
};

export const packSteps: StepDefinition[] = [
  sourceStep,
  packStep,
  temperatureStep,
  windowsStep,
  heaterStep,
  boxStep,
  liftStep,
  placingStep,
  soundStep,
  alikeStep,
  standingStep,
  leadStep,
  chargingStep,
  postsStep,
  stringStep,
];
