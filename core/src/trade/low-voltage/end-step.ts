import type { Gap } from '../../ground/figure';
import type { CheckValue } from '../../ground/finding';
import { formatNumber } from '../../ground/quantity';
import type { Id } from '../../model/document';
import { judge, type StepDefinition } from '../../model/step';
import { loomRules } from './loom-rules';
import { carriedA, pinnedView } from './loom-views';

const n = formatNumber;

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
