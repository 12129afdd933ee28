import { figureId, type Figure, type Gap } from '../../ground/figure';
import type { CheckValue } from '../../ground/finding';
import { formatNumber } from '../../ground/quantity';
import { lowVoltageDefaults } from '../../model/document';
import { Inputs, judge, type StepDefinition } from '../../model/step';
import { carriersView } from './carriers';
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
/** A fuse nearer to the current than this is a finding. */
export const nearFraction = 0.1;
/** A start takes up to about ten times what runs; beyond this one of the two was mistyped. */
const mostPeakOver = 15;
/** Nothing looks after a wire before its fuse; longer than this it is a finding, m. */
const unfusedM = 0.2;

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
    const follows = load.wire === undefined && wireKey !== undefined;
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
    const carriesA = chosen === null ? null : wireAmpacityA(chosen.data.areaMm2, ambientC, maxC);
    const dropV =
      chosen === null || run.input === null
        ? (result?.dropV ?? null)
        : wireDropV(chosen.data.areaMm2, amps, run.input.lengthM + run.input.returnLengthM);
    const wireA =
      carriesA ?? (result?.areaMm2 == null ? null : wireAmpacityA(result.areaMm2, ambientC, maxC));
    const mostFuseA =
      wireA === null || current.value === null
        ? null
        : (bladeFusesA.findLast((rating) => rating >= amps && rating <= wireA * (1 + 1e-9)) ?? null);
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
      chosen !== null &&
      run.input !== null &&
      // That no wire of the table would do is said by itself.
      result?.areaMm2 != null &&
      // The current of a wire of the looms is judged there.
      ((!follows && carriesA! < amps * (1 - 1e-9)) || dropV! > allowedV * (1 + 1e-9));
    const { fuseA } = load;
    const relay = parts[load.relay ?? ''];
    const data = relay?.kind === 'relay' ? relay.data : null;
    const peakA = load.peakW === undefined ? amps : Math.max(amps, load.peakW / fedV(system));
    const tooMuch = data !== null && current.value !== null && (data.contactA < amps || data.makesA < peakA);
    const noFuse: Gap[] =
      fuseA === undefined ? [{ kind: 'not-given', path: `${at}.fuseA`, label: `fuse of ${tag}` }] : [];
    const shared = load.behind !== undefined;
    const near = fuseA !== undefined && current.value !== null ? fuseA / amps : Infinity;
    const isNear = near < 1 + nearFraction;
    const isSmall = near < 1 - 1e-9;
    const isOdd =
      load.peakW !== undefined &&
      load.powerW !== undefined &&
      (load.peakW < load.powerW * (1 - 1e-9) || load.peakW > load.powerW * mostPeakOver);
    const keys = chosen === null ? [] : [wireKey!];
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
        ...run.figures('low-voltage.load', subject, [
          { name: 'areaMm2', label: `Wire of ${tag}, at least`, unit: 'mm²' },
        ]),
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
              { symbol: 'A', value: chosen?.data.areaMm2 ?? result?.areaMm2 ?? 0, unit: 'mm²' },
              { symbol: 'l', value: run.input?.lengthM ?? 0, unit: 'm' },
              { symbol: 'l_r', value: run.input?.returnLengthM ?? 0, unit: 'm' },
            ],
            value: dropV,
            unit: 'V',
            source: 'Copper at 60 °C over both ways',
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
            check.state === 'raised' && check.rule.id === 'wire-12v.fuse-near' && fuseA !== undefined
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
            ...(chosen === null
              ? [{ kind: 'not-given' as const, path: `${at}.wire`, label: `wire of ${tag}` }]
              : []),
          ],
          tooThin
            ? `${tag}: ${n(chosen.data.areaMm2)} mm² carry ${n(carriesA!)} A of ${n(amps)} A and drop ${n(dropV!)} V of ${n(allowedV)} V allowed${
                result?.areaMm2 == null ? '' : `; ${n(result.areaMm2)} mm² are needed`
              }.`
            : null,
          [
            v('area', chosen?.data.areaMm2 ?? 0, 'mm²'),
            v('wire carries', carriesA ?? 0, 'A'),
            v('current', amps, 'A'),
            v('drop', dropV ?? 0, 'V'),
            v('drop allowed', allowedV, 'V'),
            v('area needed', result?.areaMm2 ?? 0, 'mm²'),
          ],
          { parts: keys },
        ),
        judge(
          lowVoltageRules.fuseWide,
          [subject],
          [
            ...noFuse,
            ...(chosen === null
              ? [{ kind: 'not-given' as const, path: `${at}.wire`, label: `wire of ${tag}` }]
              : []),
          ],
          !follows && fuseA !== undefined && carriesA !== null && fuseA > carriesA * (1 + 1e-9)
            ? `${tag}: ${n(fuseA)} A before ${n(chosen!.data.areaMm2)} mm², which carry ${n(carriesA)} A.`
            : null,
          [
            v('fuse', fuseA ?? 0, 'A'),
            v('area', chosen?.data.areaMm2 ?? 0, 'mm²'),
            v('wire carries', carriesA ?? 0, 'A'),
          ],
          { parts: keys },
        ),
        judge(
          lowVoltageRules.fuseNear,
          [subject],
          shared ? [] : [...noFuse, ...current.gaps],
          !shared && isNear && !isSmall ? `${tag}: ${n(fuseA!)} A for ${n(amps)} A.` : null,
          [v('fuse', fuseA ?? 0, 'A'), v('current', amps, 'A')],
        ),
        judge(
          lowVoltageRules.fuseSmall,
          [subject],
          [...noFuse, ...current.gaps],
          isSmall ? `${tag}: ${n(fuseA!)} A for ${n(amps)} A.` : null,
          [v('fuse', fuseA ?? 0, 'A'), v('current', amps, 'A')],
        ),
        judge(
          lowVoltageRules.peakOdd,
          [subject],
          load.peakW === undefined ? [] : current.gaps,
          isOdd ? `${tag} draws ${n(load.powerW!)} W and peaks at ${n(load.peakW!)} W.` : null,
          [v('draws', load.powerW ?? 0, 'W'), v('peaks at', load.peakW ?? 0, 'W')],
        ),
        judge(
          lowVoltageRules.toFuse,
          [subject],
          load.toFuseM === undefined
            ? [{ kind: 'not-given', path: `${at}.toFuseM`, label: `way to the fuse of ${tag}` }]
            : [],
          load.toFuseM !== undefined && load.toFuseM > unfusedM
            ? `${tag}: ${n(load.toFuseM)} m before its fuse; ${n(unfusedM)} m at most.`
            : null,
          [v('before the fuse', load.toFuseM ?? 0, 'm'), v('at most', unfusedM, 'm')],
        ),
        judge(
          lowVoltageRules.relay,
          [subject],
          data === null || tooMuch
            ? []
            : [
                ...current.gaps,
                // Without its peak nobody knows what the contact makes.
                ...(load.peakW === undefined
                  ? [{ kind: 'not-given' as const, path: `${at}.peakW`, label: `peak of ${tag}` }]
                  : []),
              ],
          tooMuch
            ? `${relay!.label} carries ${n(data!.contactA)} A and makes ${n(data!.makesA)} A; ${tag} draws ${n(amps)} A, at first ${n(peakA)} A.`
            : null,
          [
            v('contact carries', data?.contactA ?? 0, 'A'),
            v('contact makes', data?.makesA ?? 0, 'A'),
            v('draws', amps, 'A'),
            v('at first', peakA, 'A'),
          ],
          { parts: load.relay === undefined ? [] : [load.relay] },
        ),
        judge(
          lowVoltageRules.relayCoil,
          [subject],
          [],
          data !== null && Math.abs(data.coilV - system.nominalV) > system.nominalV * 0.2
            ? `${relay!.label} at ${tag}: ${n(data.coilV)} V in a vehicle of ${n(system.nominalV)} V.`
            : null,
          [v('coil', data?.coilV ?? 0, 'V'), v('vehicle', system.nominalV, 'V')],
          { parts: load.relay === undefined ? [] : [load.relay] },
        ),
        judge(
          lowVoltageRules.relayBare,
          [subject],
          [],
          data !== null && !data.suppressed
            ? `${relay!.label} at ${tag} has ${n(0)} parts across its coil.`
            : null,
          [v('suppressed', data?.suppressed === false ? 0 : 1, '')],
          { parts: load.relay === undefined ? [] : [load.relay] },
        ),
      ],
    };
  },
};
