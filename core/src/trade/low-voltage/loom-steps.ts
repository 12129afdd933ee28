import { figureId, type Figure, type Gap } from '../../ground/figure';
import type { CheckValue } from '../../ground/finding';
import { formatNumber } from '../../ground/quantity';
import { lowVoltageDefaults, type BundleItem, type Id, type WireItem } from '../../model/document';
import { judge, type Reader, type SharedView, type StepDefinition } from '../../model/step';
import { loadCurrentA } from './load-step';
import { waysFrom, wiresByEnd, wireWay, type LoomWay, type PinnedWire } from './looms';
import { loomRules } from './rules';
import { wireAmpacityA, wireDropV } from './wire-12v';

const n = formatNumber;

/** Which wires end where, once per design. */
const pinnedView: SharedView<Record<Id, PinnedWire[]>> = {
  id: 'looms.pinned',
  make: ({ wires }) => wiresByEnd({ wires: wires ?? {} }),
};
/** Ways through the bundles, by where they begin, once per design. */
const waysView: SharedView<(from: Id) => Map<Id, LoomWay>> = {
  id: 'looms.ways',
  make: ({ bundles }) => {
    const plain: Record<Id, BundleItem> = {};
    for (const [id, { tag, from, to, lengthM }] of Object.entries(bundles ?? {}))
      plain[id] = {
        tag,
        ...(from !== undefined && { from }),
        ...(to !== undefined && { to }),
        ...(lengthM !== undefined && { lengthM }),
      };
    const known = new Map<Id, Map<Id, LoomWay>>();
    return (from) => {
      const found = known.get(from) ?? waysFrom(from, plain);
      known.set(from, found);
      return found;
    };
  },
};

/** What a wire carries, A: typed, else the loads that hang on it; null: nobody says. */
function carriedA({ currentA, carries = [] }: WireItem, read: Reader): { value: number | null; gaps: Gap[] } {
  if (currentA !== undefined) return { value: currentA, gaps: [] };
  if (carries.length === 0) return { value: null, gaps: [] };
  const all = carries.map((id) => loadCurrentA(id, read));
  const gaps = all.flatMap((one) => one.gaps);
  return { value: gaps.length > 0 ? null : all.reduce((sum, one) => sum + one.value!, 0), gaps };
}

/** Each wire of a loom: its length, what it carries, and whether it may. */
export const wireStep: StepDefinition = {
  id: 'looms.wire',
  version: 1,
  subjects: ({ wires = {} }) => Object.keys(wires),
  compute(subject, read) {
    const wire = read.at('wires')![subject]!;
    const { tag, from, to, system, fuseA, twistedWith, was } = wire;
    const at = `wires.${subject}`;
    const parts = read.at('parts');
    const part = parts[wire.wire ?? ''];
    const chosen = part?.kind === 'wire' ? part.data : null;
    const ends = read.at('ends') ?? {};
    const way = wireWay(wire, read.shared(waysView));
    const noWay: Gap[] =
      way !== null
        ? []
        : from === undefined || to === undefined
          ? [
              {
                kind: 'not-given',
                path: `${at}.${from === undefined ? 'from' : 'to'}`,
                label: `end of ${tag}`,
              },
            ]
          : [{ kind: 'not-given', path: `${at}.lengthM`, label: `length of ${tag}: no bundles lead there` }];
    const current = carriedA(wire, read);
    const noCurrent: Gap[] =
      current.value !== null
        ? []
        : current.gaps.length > 0
          ? current.gaps
          : [{ kind: 'not-given', path: `${at}.currentA`, label: `current of ${tag}` }];
    const noWire: Gap[] =
      chosen === null ? [{ kind: 'not-given', path: `${at}.wire`, label: `wire of ${tag}` }] : [];
    const ambientC = read.at('lowVoltage')?.ambientC ?? lowVoltageDefaults.ambientC;
    const carriesA = chosen === null ? null : wireAmpacityA(chosen.areaMm2, ambientC, chosen.maxC);
    const dropV =
      chosen === null || current.value === null || way === null
        ? null
        : wireDropV(chosen.areaMm2, current.value, way.lengthM);
    const figure = (
      name: 'lengthM' | 'currentA' | 'dropV',
      label: string,
      unit: string,
      value: number | null,
      gaps: Gap[],
      formula: string,
      source: string,
    ): Figure => ({
      id: figureId('looms.wire', subject, name),
      label,
      unit,
      value,
      gaps: value === null ? gaps : [],
      working: value === null ? [] : [{ symbol: 'x', label, formula, inputs: [], value, unit, source }],
    });
    const feeds = system === undefined || system === 'low voltage';
    const asked = feeds && was !== 'capped';
    const isOpen = was !== 'capped' && (from === undefined || to === undefined);
    const pair = twistedWith === undefined ? undefined : read.at('wires')?.[twistedWith];
    const together =
      pair === undefined || (pair.from === from && pair.to === to) || (pair.from === to && pair.to === from);
    const isReturn = ends[to ?? '']?.kind === 'ground' || ends[from ?? '']?.kind === 'ground';
    const amps = current.value ?? 0;
    /** The one load that it feeds: what is behind its fuse is behind the load’s. */
    const alone = wire.carries?.length === 1 ? read.at('loads')?.[wire.carries[0]!] : undefined;
    const ways = read.shared(waysView);
    const leads = (end: Id) => ways(end).size > 1;
    // Both ends hang on bundles, or it is to be as it is: then it is no matter of not being laid yet.
    const isApart =
      way === null &&
      from !== undefined &&
      to !== undefined &&
      (wire.state === 'frozen' || (leads(from) && leads(to)));
    const v = (label: string, value: number, unit: string): CheckValue => ({ label, value, unit });
    const most = Math.max(amps, fuseA ?? 0);
    return {
      figures: [
        figure(
          'lengthM',
          `Length of ${tag}`,
          'm',
          way?.lengthM ?? null,
          noWay,
          'Σ l',
          'Bundles on its way, or as typed',
        ),
        // Signals and sense take next to nothing: nothing is asked of them, and nothing said.
        ...(!feeds && current.value === null
          ? []
          : [
              figure(
                'currentA',
                `Current of ${tag}`,
                'A',
                current.value,
                noCurrent,
                'Σ I',
                'Loads that it carries, or as typed',
              ),
              figure(
                'dropV',
                `Drop along ${tag}`,
                'V',
                dropV,
                [...noWire, ...noCurrent, ...noWay],
                'I·r·l',
                'Copper at 60 °C, one way',
              ),
            ]),
      ],
      checks: [
        judge(
          loomRules.thin,
          [subject],
          asked ? [...noWire, ...noCurrent] : [],
          carriesA !== null && most > carriesA * (1 + 1e-9)
            ? `${tag}: ${n(chosen!.areaMm2)} mm² carry ${n(carriesA)} A; ${
                amps > carriesA ? `${n(amps)} A flow` : `its fuse lets ${n(fuseA!)} A flow`
              }.`
            : null,
          [
            v('area', chosen?.areaMm2 ?? 0, 'mm²'),
            v('carries', carriesA ?? 0, 'A'),
            v('flows', amps, 'A'),
            v('fuse', fuseA ?? 0, 'A'),
          ],
          { parts: wire.wire === undefined ? [] : [wire.wire] },
        ),
        judge(
          loomRules.fuseSmall,
          [subject],
          feeds && fuseA !== undefined ? current.gaps : [],
          feeds && fuseA !== undefined && current.value !== null && fuseA < amps * (1 - 1e-9)
            ? `${tag} carries ${n(amps)} A behind a fuse of ${n(fuseA)} A.`
            : null,
          [v('flows', amps, 'A'), v('fuse', fuseA ?? 0, 'A')],
          { also: wire.carries ?? [] },
        ),
        judge(
          loomRules.fuseDiffers,
          [subject],
          [],
          alone?.fuseA !== undefined && fuseA !== undefined && alone.fuseA !== fuseA
            ? `${tag} has ${n(fuseA)} A; ${alone.tag} is given ${n(alone.fuseA)} A.`
            : null,
          [v('wire', fuseA ?? 0, 'A'), v('load', alone?.fuseA ?? 0, 'A')],
          { also: wire.carries ?? [] },
        ),
        judge(
          loomRules.noWay,
          [subject],
          isApart ? [] : noWay,
          isApart
            ? `${tag}: ${n(0)} ways lead from ${ends[from]?.tag ?? from} to ${ends[to]?.tag ?? to}.`
            : null,
          [v('ways', way === null ? 0 : 1, '')],
        ),
        judge(
          loomRules.unfused,
          [subject],
          [],
          feeds && !isReturn && fuseA === undefined && (wire.carries?.length ?? 0) > 0 && was !== 'capped'
            ? `${tag} feeds ${n(wire.carries!.length)} loads without a fuse.`
            : null,
          [v('loads', wire.carries?.length ?? 0, '')],
        ),
        judge(
          loomRules.open,
          [subject],
          [],
          isOpen
            ? `${tag} has ${n((from === undefined ? 0 : 1) + (to === undefined ? 0 : 1))} of 2 ends.`
            : null,
          [v('ends', (from === undefined ? 0 : 1) + (to === undefined ? 0 : 1), ''), v('of', 2, '')],
        ),
        judge(
          loomRules.twist,
          [subject],
          [],
          together ? null : `${tag} is twisted with ${pair.tag}; ${n(0)} of their ends are the same.`,
          [v('ends that are the same', together ? 2 : 0, '')],
        ),
      ],
    };
  },
};

/** Each end of the looms: its cavities, pins and neighbours. */
export const endStep: StepDefinition = {
  id: 'looms.end',
  version: 1,
  subjects: ({ ends = {} }) => Object.keys(ends),
  compute(subject, read) {
    const end = read.at('ends')![subject]!;
    const { tag, kind } = end;
    const parts = read.at('parts');
    const part = parts[end.connector ?? ''];
    const face = part?.kind === 'connector' ? part.data : null;
    const keys = face === null ? [] : [end.connector!];
    const here = read.shared(pinnedView)[subject] ?? [];
    const wires = read.at('wires') ?? {};
    const isConnector = kind === 'connector';
    const noFace: Gap[] =
      isConnector && face === null
        ? [{ kind: 'not-given', path: `ends.${subject}.connector`, label: `connector ${tag}` }]
        : [];
    const v = (label: string, value: number, unit = ''): CheckValue => ({ label, value, unit });
    const pins = here.flatMap(({ pin }) => (pin === null ? [] : [pin]));
    const noPin: Gap[] = !isConnector
      ? []
      : here
          .filter(({ pin }) => pin === null)
          .map(({ wire }) => ({
            kind: 'not-given',
            path: `wires.${wire}.${wires[wire]!.from === subject && wires[wire]!.fromPin === undefined ? 'fromPin' : 'toPin'}`,
            label: `cavity of ${wires[wire]!.tag} in ${tag}`,
          }));
    const twice = isConnector ? [...new Set(pins.filter((pin, i) => pins.indexOf(pin) !== i))] : [];
    const beyond =
      face === null
        ? []
        : here.filter(
            ({ pin }) => pin !== null && (pin > face.cavities || pin < 1 || !Number.isInteger(pin)),
          );
    const areaOf = (id: Id): number | null => {
      const own = parts[wires[id]!.wire ?? ''];
      return own?.kind === 'wire' ? own.data.areaMm2 : null;
    };
    const unfit =
      face === null
        ? []
        : here.flatMap(({ wire }) => {
            const area = areaOf(wire);
            return area !== null && (area < face.wireMinMm2 - 1e-9 || area > face.wireMaxMm2 + 1e-9)
              ? [{ tag: wires[wire]!.tag, area }]
              : [];
          });
    const hot =
      face === null
        ? []
        : here.flatMap(({ wire }) => {
            const amps = carriedA(wires[wire]!, read).value;
            return amps !== null && amps > face.pinA * (1 + 1e-9) ? [{ tag: wires[wire]!.tag, amps }] : [];
          });
    const loads = here.filter(
      ({ wire }) => (wires[wire]!.carries?.length ?? 0) > 0 || wires[wire]!.system === 'low voltage',
    );
    const sensed = here.filter(({ wire }) => wires[wire]!.system === 'sense');
    const ends = read.at('ends') ?? {};
    const alike =
      face === null || face.keyed || end.place === undefined
        ? []
        : Object.keys(ends).filter(
            (id) => id !== subject && ends[id]!.place === end.place && ends[id]!.connector === end.connector,
          );
    return {
      figures: [],
      checks: [
        judge(
          loomRules.twice,
          [subject],
          twice.length > 0 ? [] : noPin,
          twice.length > 0 ? `${tag}: two wires in cavity ${twice.map((pin) => n(pin)).join(', ')}.` : null,
          twice.map((pin) => v('cavity', pin)),
        ),
        judge(
          loomRules.beyond,
          [subject],
          noFace,
          beyond.length > 0
            ? `${tag} has ${n(face!.cavities)} cavities; ${beyond.map(({ wire, pin }) => `${wires[wire]!.tag} goes to ${n(pin!)}`).join(', ')}.`
            : null,
          [v('cavities', face?.cavities ?? 0), ...beyond.map(({ pin }) => v('goes to', pin!))],
          { parts: keys },
        ),
        judge(
          loomRules.unfit,
          [subject],
          noFace,
          unfit.length > 0
            ? `${tag} takes ${n(face!.wireMinMm2)} to ${n(face!.wireMaxMm2)} mm²; ${unfit.map((one) => `${one.tag} has ${n(one.area)} mm²`).join(', ')}.`
            : null,
          [
            v('from', face?.wireMinMm2 ?? 0, 'mm²'),
            v('to', face?.wireMaxMm2 ?? 0, 'mm²'),
            ...unfit.map((one) => v(one.tag, one.area, 'mm²')),
          ],
          { parts: keys },
        ),
        judge(
          loomRules.pinHot,
          [subject],
          noFace,
          hot.length > 0
            ? `A pin of ${tag} carries ${n(face!.pinA)} A; ${hot.map((one) => `${one.tag} has ${n(one.amps)} A`).join(', ')}.`
            : null,
          [v('a pin carries', face?.pinA ?? 0, 'A'), ...hot.map((one) => v(one.tag, one.amps, 'A'))],
          { parts: keys },
        ),
        judge(
          loomRules.senseGround,
          [subject],
          [],
          kind === 'ground' && loads.length > 0 && (end.forSense === true || sensed.length > 0)
            ? `${tag} is the ground of ${end.forSense === true ? 'sensors' : `${n(sensed.length)} sensors (${sensed.map(({ wire }) => wires[wire]!.tag).join(', ')})`}; ${n(loads.length)} wires of loads return through it: ${loads.map(({ wire }) => wires[wire]!.tag).join(', ')}.`
            : null,
          [v('returns of loads', loads.length), v('sensors', sensed.length)],
          { also: [...loads, ...sensed].map(({ wire }) => wire) },
        ),
        judge(
          loomRules.lone,
          [subject],
          [],
          kind === 'splice' && here.length === 1
            ? `${tag} joins ${n(1)} wire: ${wires[here[0]!.wire]!.tag}.`
            : null,
          [v('wires', here.length)],
          { also: here.map(({ wire }) => wire) },
        ),
        judge(
          loomRules.alike,
          // The pair is one finding, whichever of the two it is read at.
          [subject],
          isConnector && end.place !== undefined ? noFace : [],
          alike.length > 0 && subject < alike[0]!
            ? `${n(alike.length + 1)} are alike at ${end.place}: ${[tag, ...alike.map((id) => ends[id]!.tag)].join(', ')}.`
            : null,
          [v('alike', alike.length + 1)],
          { parts: keys },
        ),
      ],
    };
  },
};

/** Each stretch of loom: that it leads from one place to another. */
export const bundleStep: StepDefinition = {
  id: 'looms.bundle',
  version: 1,
  subjects: ({ bundles = {} }) => Object.keys(bundles),
  compute(subject, read) {
    const { tag, from, to, lengthM } = read.at('bundles')![subject]!;
    const unsaid = (value: unknown, name: string, label: string): Gap[] =>
      value === undefined
        ? [{ kind: 'not-given', path: `bundles.${subject}.${name}`, label: `${label} of ${tag}` }]
        : [];
    return {
      figures: [],
      checks: [
        judge(
          loomRules.nowhere,
          [subject],
          [
            ...unsaid(from, 'from', 'beginning'),
            ...unsaid(to, 'to', 'end'),
            ...unsaid(lengthM, 'lengthM', 'length'),
          ],
          from === to ? `${tag}: ${n(1)} place at both ends.` : null,
          [{ label: 'places', value: from === to ? 1 : 2, unit: '' }],
          { also: from === undefined ? [] : [from] },
        ),
      ],
    };
  },
};
