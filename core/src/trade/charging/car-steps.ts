import { figureId, type Figure, type Gap } from '../../ground/figure';
import type { CheckValue } from '../../ground/finding';
import { formatNumber } from '../../ground/quantity';
import { supplyDefaults, type Design, type Id } from '../../model/document';
import { gapsBehind, judge, type StepDefinition } from '../../model/step';
import { packLowest } from '../pack';
import { builtCharger, chargerIds, efficiencyAt, onSupply } from './chargers';
import { ofParts } from './of-parts';
import { chargeRules } from './rules';
import { stationLimits } from './station-limits';
import { inletOf, inletRating } from './supply-inputs';

const n = formatNumber;
const yes = (label: string, value: boolean | undefined): CheckValue => ({
  label,
  value: value === true ? 1 : 0,
  unit: '',
});
const count = (label: string, value: number): CheckValue => ({ label, value, unit: '' });

/** Something is said of charging: then all of it is asked. */
export const saysCharging = ({ supplies = {}, inlets = {} }: Pick<Design, 'supplies' | 'inlets'>): boolean =>
  Object.keys(supplies).length + Object.keys(inlets).length > 0;

/** Each inlet: lock and release, sensors, what keeps the vehicle from driving off, and its contactors. */
export const inletStep: StepDefinition = {
  id: 'charge.inlet',
  version: 1,
  subjects: ({ inlets = {} }) => Object.keys(inlets),
  compute(subject, read) {
    const inlet = read.at('inlets')![subject]!;
    const { tag, current } = inlet;
    const at = `inlets.${subject}`;
    const { sensors: partSensors, lock: partLock } = inletRating(inlet, read.at('parts'));
    const lock = inlet.lock ?? (partLock === null ? undefined : partLock ? 'motor' : 'none');
    const sensors = inlet.sensors ?? partSensors;
    const takesStation = current !== 'mains';
    const unsaid = (value: unknown, path: string, label: string): Gap[] =>
      value === undefined || value === null
        ? [{ kind: 'not-given', path: `${at}.${path}`, label: `${label} of ${tag}` }]
        : [];
    const parts = inlet.inlet === undefined ? [] : [inlet.inlet];
    const active = Object.values(read.at('devices')).filter(
      ({ insulationMonitor }) => insulationMonitor === 'active',
    );
    const unknown = Object.entries(read.at('devices')).filter(
      ([, { kind, insulationMonitor }]) => kind === 'insulation-monitor' && insulationMonitor === undefined,
    );
    return {
      figures: [],
      checks: [
        judge(
          chargeRules.noRelease,
          [subject],
          lock === 'none'
            ? []
            : [...unsaid(lock, 'lock', 'lock'), ...unsaid(inlet.release, 'release', 'release')],
          lock !== 'none' && inlet.release === 'none'
            ? `The plug at ${tag} is locked and has ${n(0)} releases by hand.`
            : null,
          [yes('release by hand', inlet.release !== 'none')],
        ),
        judge(
          chargeRules.lockUnread,
          [subject],
          lock === 'none'
            ? []
            : [
                ...unsaid(lock, 'lock', 'lock'),
                ...unsaid(inlet.lockReadBack, 'lockReadBack', 'position of the lock'),
              ],
          lock === 'motor' && inlet.lockReadBack === false
            ? `At ${tag} current flows with ${n(0)} contacts read of its lock.`
            : null,
          [yes('read', inlet.lockReadBack)],
        ),
        judge(
          chargeRules.noLock,
          [subject],
          takesStation ? unsaid(lock, 'lock', 'lock') : [],
          takesStation && lock === 'none' ? `${tag} takes current of a station with ${n(0)} locks.` : null,
          [yes('lock', lock !== 'none')],
        ),
        judge(
          chargeRules.noInhibit,
          [subject],
          unsaid(inlet.driveInhibit, 'driveInhibit', 'what keeps the vehicle from driving'),
          inlet.driveInhibit === false ? `With ${tag} plugged in ${n(0)} things hold the drive back.` : null,
          [yes('drive blocked', inlet.driveInhibit)],
        ),
        judge(
          chargeRules.weld,
          [subject],
          takesStation ? unsaid(inlet.weldCheck, 'weldCheck', 'check for welding') : [],
          takesStation && inlet.weldCheck === false
            ? `${n(0)} checks are made of the contactors of ${tag}.`
            : null,
          [yes('checked', inlet.weldCheck)],
        ),
        judge(
          chargeRules.sensors,
          [subject],
          takesStation ? unsaid(sensors, 'sensors', 'temperature sensors') : [],
          takesStation && sensors !== null && sensors < 2
            ? `${tag} has ${n(sensors)} temperature sensors for 2 contacts.`
            : null,
          [count('sensors', sensors ?? 0), count('contacts', 2)],
        ),
        judge(
          chargeRules.monitors,
          [subject],
          takesStation && unknown.length > 0
            ? unknown.map(([id, device]) => ({
                kind: 'not-given' as const,
                path: `devices.${id}.insulationMonitor`,
                label: `how ${device.tag} watches`,
              }))
            : takesStation && active.length > 0
              ? unsaid(inlet.monitorPauses, 'monitorPauses', 'what the insulation monitor does at a station')
              : [],
          takesStation && active.length > 0 && inlet.monitorPauses === false
            ? `${n(active.length)} of the vehicle’s (${active.map((one) => one.tag).join(', ')}) goes on while ${tag} is at a station.`
            : null,
          [count('active monitors', active.length)],
        ),
      ].map((check) => ofParts(check, parts)),
    };
  },
};

/** What ends a charge when the charger does not. */
export const cutStep: StepDefinition = {
  id: 'charge.cut',
  version: 1,
  subjects: (design) => [...(saysCharging(design) ? ['vehicle'] : []), ...Object.keys(design.cuts ?? {})],
  compute(subject, read) {
    const cuts = read.at('cuts') ?? {};
    if (subject === 'vehicle') {
      const charging = Object.entries(read.at('devices')).filter(
        ([, { kind }]) => kind === 'charger' || kind === 'dc-inlet',
      );
      const chargers = charging.map(([, device]) => device);
      return {
        figures: [],
        checks: [
          judge(
            chargeRules.noStop,
            ['vehicle'],
            [],
            chargers.length > 0 && Object.keys(cuts).length === 0
              ? `${chargers.map((one) => one.tag).join(' and ')} can charge the pack; ${n(0)} independent cuts are given.`
              : null,
            [count('independent cuts', Object.keys(cuts).length)],
            { also: charging.map(([id]) => id) },
          ),
        ],
      };
    }
    const cut = cuts[subject]!;
    const { tag, opens } = cut;
    const unsaid = (value: unknown, path: string, label: string): Gap[] =>
      value === undefined
        ? [{ kind: 'not-given', path: `cuts.${subject}.${path}`, label: `${label} of ${tag}` }]
        : [];
    const atMains = opens === 'feed of the mains';
    return {
      figures: [],
      checks: [
        judge(
          chargeRules.cutPowered,
          [subject],
          unsaid(cut.opensUnpowered, 'opensUnpowered', 'state without power'),
          cut.opensUnpowered === false ? `Without power ${tag} opens ${n(0)} contacts.` : null,
          [yes('open without power', cut.opensUnpowered)],
        ),
        judge(
          chargeRules.cutPhases,
          [subject],
          [
            ...unsaid(opens, 'opens', 'place'),
            ...(atMains ? unsaid(cut.everyPhase, 'everyPhase', 'phases') : []),
          ],
          atMains && cut.everyPhase === false
            ? `${tag} parts ${n(0)} phases for certain: not every one is said to open.`
            : null,
          [yes('every phase', cut.everyPhase)],
        ),
        judge(
          chargeRules.cutRearms,
          [subject],
          unsaid(cut.latches, 'latches', 'how it closes again'),
          cut.latches === false
            ? `${tag} closes again by itself, after ${n(0)} times armed.`
            : cut.latches === true && cut.armedAt === undefined
              ? `${n(0)} places are named where ${tag} is armed again.`
              : null,
          [
            yes('stays open', cut.latches),
            count('armed again at', cut.armedAt === undefined ? 0 : 1),
            count('times armed', 0),
          ],
        ),
      ],
    };
  },
};

/** Each charger: whether anything that is given feeds it. */
export const chargerStep: StepDefinition = {
  id: 'charge.charger',
  version: 1,
  subjects: (design) => (saysCharging(design) ? chargerIds(design) : []),
  compute(subject, read) {
    const { charger, gaps } = builtCharger(subject, { devices: read.at('devices'), parts: read.at('parts') });
    const mains = Object.values(read.at('supplies') ?? {}).filter(({ kind }) => kind !== 'station');
    const serving =
      charger === null ? [] : mains.filter(({ phases = 1 }) => onSupply(charger, phases) !== null);
    return {
      figures: [],
      checks: [
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
      ],
    };
  },
};
