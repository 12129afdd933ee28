import { figureId, type Figure, type Gap } from '../../ground/figure';
import type { CheckValue } from '../../ground/finding';
import { formatNumber } from '../../ground/quantity';
import { lowVoltageDefaults } from '../../model/document';
import { Inputs, judge, type StepDefinition } from '../../model/step';
import { carriersView } from './carriers';
import { areaAsCable, boltedFusesA, feedAsCable, thinnestFeedCable } from './feed-cable';
import { fuseChecks, relayChecks } from './load-checks';
import { loadCurrentA } from './load-current';
import { lowVoltageRules } from './rules';
import { fedV, lowVoltageSystem } from './system';
import {
  bladeFusesA,
  wire12v,
  wireAmpacityA,
  wireDropV,
  type Wire12vInput,
  type Wire12vResult,
} from './wire-12v';

const n = formatNumber;
/** Each load: its current, the wire it needs, and whether what is chosen holds. */
export const loadStep: StepDefinition = {
  id: 'low-voltage.load',
  version: 1,
  subjects: ({ loads = {} }) => Object.keys(loads),
  compute(subject, read) {
    const load = read.at('loads')![subject]!;
    const { tag } = load;
    const at = `loads.${subject}`;
    const settings = read.at('lowVoltage') ?? {};
    const parts = read.at('parts');
    const system = lowVoltageSystem({ lowVoltage: settings, parts, settings: read.at('settings') });
    const current = loadCurrentA(subject, read);
    // What the looms say of its feed holds where the load itself says nothing.
    const feeders = read.shared(carriersView);
    const feeder = Object.hasOwn(feeders, subject) ? feeders[subject]! : null;
    const wireKey = load.wire ?? (feeder === null ? undefined : read.at('wires')?.[feeder]?.wire);
    const follows = load.wire === undefined && load.cable === undefined && wireKey !== undefined;
    const wire = parts[wireKey ?? ''];
    const chosen = wire?.kind === 'wire' ? wire : null;
    const ambientC = load.ambientC ?? settings.ambientC ?? lowVoltageDefaults.ambientC;
    const maxC = chosen?.data.maxC ?? 105;
    const inputs = new Inputs(read);
    inputs.missing(...current.gaps);
    if (current.value !== null)
      inputs.set(
        'currentA',
        current.value,
        { kind: 'figure', id: figureId('low-voltage.load', subject, 'currentA') },
        `current of ${tag}`,
      );
    if (load.lengthM === undefined && feeder !== null)
      inputs.figure('lengthM', figureId('looms.wire', feeder, 'lengthM'));
    else inputs.given('lengthM', load.lengthM, `${at}.lengthM`, `feed of ${tag}`);
    inputs.given('returnLengthM', load.returnLengthM, `${at}.returnLengthM`, `return of ${tag}`);
    inputs.set(
      'systemV',
      fedV(system),
      { kind: 'document', path: 'lowVoltage.systemV' },
      'voltage while it is fed',
    );
    inputs.optional(
      'maxDropFraction',
      settings.maxDropFraction,
      'lowVoltage.maxDropFraction',
      'drop allowed',
    );
    inputs.orDefault(
      'ambientC',
      load.ambientC ?? settings.ambientC,
      lowVoltageDefaults.ambientC,
      `${at}.ambientC`,
      `ambient of ${tag}`,
    );
    inputs.set(
      'maxConductorC',
      maxC,
      chosen === null
        ? { kind: 'default', path: `${at}.wire` }
        : { kind: 'part', key: wireKey!, path: 'maxC' },
      `conductor of ${tag}`,
    );
    const run = inputs.run<Wire12vInput, Wire12vResult>(wire12v);
    const { result } = run;
    const amps = current.value ?? 0;
    const cablePart = parts[load.cable ?? ''];
    const asCable =
      cablePart?.kind !== 'cable' || run.input === null
        ? null
        : feedAsCable(cablePart.label, cablePart.data, run.input);
    const beyond = result !== null && result.areaMm2 === null ? thinnestFeedCable(run.input!) : null;
    const neededMm2 = result?.areaMm2 ?? beyond?.areaMm2 ?? null;
    const chosenMm2 = asCable?.areaMm2 ?? chosen?.data.areaMm2 ?? null;
    const carriesA =
      asCable !== null
        ? asCable.carriesA
        : chosen === null
          ? null
          : wireAmpacityA(chosen.data.areaMm2, ambientC, maxC);
    const dropV =
      asCable !== null
        ? asCable.dropV
        : chosen === null || run.input === null
          ? (result?.dropV ?? beyond?.dropV ?? null)
          : wireDropV(chosen.data.areaMm2, amps, run.input.lengthM + run.input.returnLengthM);
    const wireA =
      carriesA ??
      (result?.areaMm2 == null ? (beyond?.carriesA ?? null) : wireAmpacityA(result.areaMm2, ambientC, maxC));
    const mostFuseA =
      wireA === null || current.value === null
        ? null
        : ([...bladeFusesA, ...boltedFusesA].findLast(
            (rating) => rating >= amps && rating <= wireA * (1 + 1e-9),
          ) ?? null);
    const allowedV = fedV(system) * (settings.maxDropFraction ?? lowVoltageDefaults.maxDropFraction);
    const figure = (
      name: 'currentA' | 'dropV' | 'fuseA',
      label: string,
      unit: string,
      value: number | null,
      gaps: Gap[],
      working: Figure['working'],
    ): Figure => ({
      id: figureId('low-voltage.load', subject, name),
      label,
      unit,
      value,
      gaps:
        value !== null
          ? []
          : gaps.length > 0
            ? gaps
            : [{ kind: 'never', label: `${label}: no wire of the table` }],
      working: value === null ? [] : working,
      ...(name === 'dropV' && { limit: { max: allowedV } }),
    });
    const v = (label: string, value: number, unit: string): CheckValue => ({ label, value, unit });
    const tooThin =
      chosenMm2 !== null &&
      run.input !== null &&
      // That nothing would do is said by itself.
      neededMm2 !== null &&
      // The current of a wire of the looms is judged there.
      ((!follows && carriesA! < amps * (1 - 1e-9)) || dropV! > allowedV * (1 + 1e-9));
    const { fuseA } = load;
    const noFuse: Gap[] =
      fuseA === undefined ? [{ kind: 'not-given', path: `${at}.fuseA`, label: `fuse of ${tag}` }] : [];
    const keys = asCable !== null ? [load.cable!] : chosen === null ? [] : [wireKey!];
    return {
      figures: [
        figure('currentA', `Current of ${tag}`, 'A', current.value, current.gaps, [
          {
            symbol: 'I',
            label: `Current of ${tag}`,
            formula: 'P/U',
            inputs: [
              {
                symbol: 'P',
                value: load.powerW ?? 0,
                unit: 'W',
                origin: { kind: 'document', path: `${at}.powerW` },
              },
              {
                symbol: 'U',
                label: load.steadyPower === true ? 'of the battery: it keeps its power' : 'while it is fed',
                value: load.steadyPower === true ? system.nominalV : fedV(system),
                unit: 'V',
              },
            ],
            value: current.value,
            unit: 'A',
            source: 'Power over voltage',
          },
        ]),
        ...run
          .figures('low-voltage.load', subject, [
            { name: 'areaMm2', label: `Wire of ${tag}, at least`, unit: 'mm²' },
          ])
          .map((one) => (beyond === null ? one : areaAsCable(one, beyond, amps))),
        figure('fuseA', `Fuse of ${tag}, at most`, 'A', mostFuseA, run.gaps, [
          {
            symbol: 'I_f',
            label: `Fuse of ${tag}, at most`,
            formula: 'I ≤ I_f ≤ I_w',
            inputs: [
              { symbol: 'I', value: amps, unit: 'A' },
              { symbol: 'I_w', label: 'wire carries', value: wireA ?? 0, unit: 'A' },
            ],
            value: mostFuseA,
            unit: 'A',
            source:
              'Largest fuse of the series that the wire carries: the chosen one, else the one that is needed',
          },
        ]),
        figure('dropV', `Drop to ${tag}`, 'V', dropV, run.gaps, [
          {
            symbol: 'ΔU',
            label: `Drop to ${tag}`,
            formula: 'I·r·(l + l_r)',
            inputs: [
              {
                symbol: 'I',
                value: amps,
                unit: 'A',
                origin: { kind: 'figure', id: figureId('low-voltage.load', subject, 'currentA') },
              },
              { symbol: 'A', value: chosenMm2 ?? neededMm2 ?? 0, unit: 'mm²' },
              { symbol: 'l', value: run.input?.lengthM ?? 0, unit: 'm' },
              { symbol: 'l_r', value: run.input?.returnLengthM ?? 0, unit: 'm' },
            ],
            value: dropV,
            unit: 'V',
            source:
              asCable !== null || (chosen === null && beyond !== null)
                ? 'Heat balance of a cable in free air, over both ways'
                : 'Copper at 60 °C over both ways',
          },
        ]),
      ],
      ...(run.input !== null && { run: { calculator: 'wire-12v', input: run.input, result } }),
      checks: [
        ...run
          .checks(
            [subject],
            [
              v('current', amps, 'A'),
              v('length', (run.input?.lengthM ?? 0) + (run.input?.returnLengthM ?? 0), 'm'),
              v('fuse proposed', result?.fuseA ?? 0, 'A'),
            ],
          )
          // What is chosen is judged by itself: the proposal’s fuse is nobody’s.
          .map((check) =>
            check.state === 'raised' &&
            ((check.rule.id === 'wire-12v.fuse-near' && fuseA !== undefined) ||
              // Beyond the table it is a cable.
              (check.rule.id === 'wire-12v.none-fits' && beyond !== null))
              ? judge(check.rule, [subject], [], null)
              : check,
          )
          .map((check) =>
            check.state === 'raised' ? { ...check, message: `${tag}: ${check.message}` } : check,
          ),
        judge(
          lowVoltageRules.thin,
          [subject],
          [
            ...run.gaps,
            ...(chosenMm2 === null
              ? [{ kind: 'not-given' as const, path: `${at}.wire`, label: `wire of ${tag}` }]
              : []),
          ],
          tooThin
            ? `${tag}: ${n(chosenMm2)} mm² carry ${n(carriesA!)} A of ${n(amps)} A and drop ${n(dropV!)} V of ${n(allowedV)} V allowed; ${n(neededMm2)} mm² are needed.`
            : null,
          [
            v('area', chosenMm2 ?? 0, 'mm²'),
            v('wire carries', carriesA ?? 0, 'A'),
            v('current', amps, 'A'),
            v('drop', dropV ?? 0, 'V'),
            v('drop allowed', allowedV, 'V'),
            v('area needed', neededMm2 ?? 0, 'mm²'),
          ],
          { parts: keys },
        ),
        judge(
          lowVoltageRules.fuseWide,
          [subject],
          [
            ...noFuse,
            ...(chosenMm2 === null
              ? [{ kind: 'not-given' as const, path: `${at}.wire`, label: `wire of ${tag}` }]
              : []),
          ],
          !follows && fuseA !== undefined && carriesA !== null && fuseA > carriesA * (1 + 1e-9)
            ? `${tag}: ${n(fuseA)} A before ${n(chosenMm2!)} mm², which carry ${n(carriesA)} A.`
            : null,
          [
            v('fuse', fuseA ?? 0, 'A'),
            v('area', chosenMm2 ?? 0, 'mm²'),
            v('wire carries', carriesA ?? 0, 'A'),
          ],
          { parts: keys },
        ),
        ...fuseChecks(subject, load, current),
        ...relayChecks(subject, load, current, system.nominalV, fedV(system), parts),
      ],
    };
  },
};
