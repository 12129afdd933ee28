import { figureId, type Figure, type Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import { supplyDefaults, type Design, type Id } from '../../model/document';
import { gapsBehind, judge, type StepDefinition } from '../../model/step';
import { packLowest } from '../pack';
import { beyondPartChecks } from './beyond-part';
import { builtCharger, chargerIds, efficiencyAt, onSupply } from './chargers';
import { count } from './counted';
import { chargeRules } from './rules';
import { saysCharging } from './says';
import { stationLimits } from './station-limits';
import { inletOf } from './supply-inputs';

const n = formatNumber;

/** Each charger: whether anything that is given feeds it. */
export const chargerStep: StepDefinition = {
  id: 'charge.charger',
  version: 1,
  subjects: (design) => (saysCharging(design) ? chargerIds(design) : []),
  compute(subject, read) {
    const parts = read.at('parts');
    const { charger, gaps } = builtCharger(subject, { devices: read.at('devices'), parts });
    const mains = Object.values(read.at('supplies') ?? {}).filter(({ kind }) => kind !== 'station');
    const serving =
      charger === null ? [] : mains.filter(({ phases = 1 }) => onSupply(charger, phases) !== null);
    return {
      figures: [],
      checks: [
        ...beyondPartChecks(subject, read.at('devices', subject)!, parts),
        judge(
          chargeRules.noSupply,
          [subject],
          [
            ...gaps,
            ...(mains.length === 0
              ? [{ kind: 'not-given' as const, path: 'supplies', label: 'a supply of the mains' }]
              : []),
          ],
          charger !== null && serving.length === 0
            ? `${charger.tag} works at ${n(0)} of ${n(mains.length)} supplies.`
            : null,
          [count('works at', serving.length), count('supplies', mains.length)],
        ),
      ],
    };
  },
};

/** Circuits that feed, or are fed by, something that charges or converts. */
const branchesOf = (design: Pick<Design, 'circuits' | 'devices'>): Id[] =>
  Object.keys(design.circuits).filter((id) =>
    ['charger', 'dc-inlet', 'dc-dc'].includes(design.devices[design.circuits[id]!.device ?? '']?.kind ?? ''),
  );

/** What flows in the branch of a charger, an inlet or a converter, against the load that the branch is judged by. */
export const branchStep: StepDefinition = {
  id: 'charge.branch',
  version: 1,
  subjects: (design) =>
    branchesOf(design).filter((id) => {
      const { kind, charger } = design.devices[design.circuits[id]!.device!]!;
      if (kind === 'charger') return charger !== undefined || saysCharging(design);
      return kind === 'dc-dc'
        ? design.lowVoltage?.converter !== undefined
        : Object.keys(design.inlets ?? {}).length > 0;
    }),
  compute(subject, read) {
    const circuit = read.at('circuits', subject)!;
    const id = circuit.device!;
    const device = read.at('devices', id)!;
    const parts = read.at('parts');
    const lowest = read.figure(packLowest);
    const gaps: Gap[] = [];
    let currentA: number | null = null;
    let terms: [string, number, string][] = [];
    let formula = '';
    const lowV = () => {
      if (lowest.value === null) gaps.push(...gapsBehind(lowest));
      return lowest.value;
    };
    if (device.kind === 'charger') {
      const { charger, gaps: own } = builtCharger(id, { devices: read.at('devices'), parts });
      gaps.push(...own);
      const volts = lowV();
      if (charger !== null && volts !== null) {
        const mains = Object.values(read.at('supplies') ?? {}).filter(({ kind }) => kind !== 'station');
        // At the supply that gives the most.
        const phaseV = Math.max(
          ...mains.map(({ phaseVoltageV = supplyDefaults.phaseVoltageV }) => phaseVoltageV),
          ...(mains.length === 0 ? [supplyDefaults.phaseVoltageV] : []),
        );
        const watts =
          (charger.phase === 'all' ? 3 : 1) * phaseV * charger.maxInputA * efficiencyAt(charger, 1);
        currentA = Math.min(charger.maxOutputA, watts / volts);
        formula = 'min(I_out, P/U_low)';
        terms = [
          ['I_out', charger.maxOutputA, 'A'],
          ['P', watts, 'W'],
          ['U_low', volts, 'V'],
        ];
      }
    } else if (device.kind === 'dc-dc') {
      const part = parts[read.at('lowVoltage')?.converter ?? ''];
      const volts = lowV();
      if (part?.kind === 'converter' && volts !== null) {
        const { continuousA, outputV, efficiency } = part.data;
        currentA = (continuousA * outputV) / (efficiency * volts);
        formula = 'I·U/(η·U_low)';
        terms = [
          ['I', continuousA, 'A'],
          ['U', outputV, 'V'],
          ['η', efficiency, ''],
          ['U_low', volts, 'V'],
        ];
      }
    } else {
      const supplies = read.at('supplies') ?? {};
      const inlets = read.at('inlets') ?? {};
      const stations = Object.keys(supplies).filter(
        (one) => supplies[one]!.kind === 'station' && inletOf(supplies[one]!, inlets)?.item.device === id,
      );
      if (stations.length === 0)
        gaps.push({
          kind: 'not-given',
          path: 'supplies',
          label: `a station that ${device.tag} is charged at`,
        });
      for (const station of stations) {
        const { limits, gaps: own } = stationLimits(station, read);
        gaps.push(...own);
        const least = limits.reduce((low, one) => Math.min(low, one.currentA), Infinity);
        if (own.length === 0) currentA = Math.max(currentA ?? 0, least);
      }
      formula = 'max(I)';
      terms = currentA === null ? [] : [['I', currentA, 'A']];
    }
    if (gaps.length > 0) currentA = null;
    const profile = circuit.loadProfile ?? [];
    const judgedA = profile.reduce((most, [, amps]) => Math.max(most, Math.abs(amps)), 0);
    const figure: Figure = {
      id: figureId('charge.branch', subject, 'currentA'),
      label: `Current of the branch ${circuit.tag}, by charging`,
      unit: 'A',
      value: currentA,
      gaps:
        currentA !== null
          ? []
          : gaps.length > 0
            ? gaps
            : [{ kind: 'never', label: `${circuit.tag}: nothing flows` }],
      working:
        currentA === null
          ? []
          : [
              {
                symbol: 'I',
                label: `Current of ${circuit.tag}`,
                formula,
                inputs: terms.map(([symbol, value, unit]) => ({ symbol, value, unit })),
                value: currentA,
                unit: 'A',
                source: 'At the lowest voltage of the pack, where the same power takes the most',
              },
            ],
    };
    return {
      figures: [figure],
      checks: [
        judge(
          chargeRules.branch,
          [subject],
          [
            ...gaps,
            ...(profile.length === 0
              ? [
                  {
                    kind: 'not-given' as const,
                    path: `circuits.${subject}.loadProfile`,
                    label: 'load profile',
                  },
                ]
              : []),
          ],
          currentA !== null && profile.length > 0 && currentA > judgedA * 1.01
            ? `${circuit.tag}: up to ${n(currentA)} A flow; fuse and cable are judged by ${n(judgedA)} A.`
            : null,
          [
            { label: 'flows', value: currentA ?? 0, unit: 'A' },
            { label: 'judged by', value: judgedA, unit: 'A' },
          ],
        ),
        ...(device.kind === 'dc-dc'
          ? beyondPartChecks(subject, device, parts, read.at('lowVoltage')?.converter)
          : []),
      ],
    };
  },
};
