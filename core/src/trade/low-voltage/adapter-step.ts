import type { CheckValue } from '../../ground/finding';
import type { Check, Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import type { Id } from '../../model/document';
import { judge, type Reader, type StepDefinition } from '../../model/step';
import { loomRules } from './loom-rules';
import { carriedA, pinnedView } from './loom-views';
import { sameColour } from './looms';

const n = formatNumber;
const v = (label: string, value: number, unit = ''): CheckValue => ({ label, value, unit });

/** One side of an adapter: its plug, and the pins that the table names there. */
interface Side {
  end: Id | undefined;
  tag: string;
  pins: number[];
  face: { cavities: number; pinA: number } | null;
}

function sideOf(end: Id | undefined, pins: number[], read: Reader): Side {
  const item = end === undefined ? undefined : read.at('ends')?.[end];
  const part = read.at('parts')[item?.connector ?? ''];
  return {
    end,
    tag: item?.tag ?? end ?? 'nowhere',
    pins,
    face: part?.kind === 'connector' ? { cavities: part.data.cavities, pinA: part.data.pinA } : null,
  };
}

/** Pins that stand more than once. */
const twiceIn = (pins: readonly number[]) => [...new Set(pins.filter((pin, i) => pins.indexOf(pin) !== i))];

/** Each adapter: that its table joins nothing, names pins that are there, passes every wire on, and heats no pin. */
export const adapterStep: StepDefinition = {
  id: 'looms.adapter',
  version: 1,
  subjects: ({ adapters = {} }) => Object.keys(adapters),
  compute(subject, read): { figures: []; checks: Check[] } {
    const { tag, from, to, pins = [] } = read.at('adapters')![subject]!;
    const at = `adapters.${subject}`;
    const wires = read.at('wires') ?? {};
    const pinned = read.shared(pinnedView);
    const near = sideOf(
      from,
      pins.map(([pin]) => pin),
      read,
    );
    const far = sideOf(
      to,
      pins.map(([, pin]) => pin),
      read,
    );
    const sides = [near, far];
    const unsaid = (value: unknown, field: string, label: string): Gap[] =>
      value === undefined ? [{ kind: 'not-given', path: `${at}.${field}`, label: `${label} of ${tag}` }] : [];
    const open: Gap[] = [
      ...unsaid(from, 'from', 'plug'),
      ...unsaid(to, 'to', 'far plug'),
      ...(pins.length === 0 ? unsaid(undefined, 'pins', 'pins') : []),
    ];
    const noFace = sides.flatMap(({ end, face, tag: name }): Gap[] =>
      end !== undefined && face === null
        ? [{ kind: 'not-given', path: `ends.${end}.connector`, label: `connector ${name}` }]
        : [],
    );
    const twice = sides.flatMap((side) => twiceIn(side.pins).map((pin) => ({ side, pin })));
    const beyond = sides.flatMap((side) =>
      side.face === null
        ? []
        : side.pins
            .filter((pin) => pin < 1 || pin > side.face!.cavities || !Number.isInteger(pin))
            .map((pin) => ({ side, pin })),
    );
    const lost = sides.flatMap((side) =>
      (side.end === undefined ? [] : (pinned[side.end] ?? []))
        .filter(({ wire, pin }) => pin !== null && wires[wire]!.was !== 'capped' && !side.pins.includes(pin))
        .map(({ wire, pin }) => ({ side, wire, pin: pin! })),
    );
    // What a wire carries to one plug leaves by the pin of the other.
    const hot = sides.flatMap((side, i) => {
      const other = sides[1 - i]!;
      if (side.end === undefined || other.face === null) return [];
      return (pinned[side.end] ?? []).flatMap(({ wire, pin }) => {
        const row = pin === null ? -1 : side.pins.indexOf(pin);
        const amps = carriedA(wires[wire]!, read).value;
        return row >= 0 && amps !== null && amps > other.face!.pinA * (1 + 1e-9)
          ? [{ wire, amps, pin: other.pins[row]!, side: other, pinA: other.face!.pinA }]
          : [];
      });
    });
    const keys = sides.flatMap(({ end }) => {
      const key = end === undefined ? undefined : read.at('ends')?.[end]?.connector;
      return key === undefined ? [] : [key];
    });
    const tagOf = (wire: Id) => wires[wire]?.tag ?? wire;
    return {
      figures: [],
      checks: [
        judge(
          loomRules.adapterTwice,
          [subject],
          twice.length > 0 ? [] : open,
          twice.length > 0
            ? `${tag}: ${twice.map(({ side, pin }) => `pin ${n(pin)} of ${side.tag} stands twice`).join(', ')}.`
            : null,
          twice.map(({ side, pin }) => v(`pin of ${side.tag}`, pin)),
        ),
        judge(
          loomRules.adapterPin,
          [subject],
          beyond.length > 0 ? [] : [...open, ...noFace],
          beyond.length > 0
            ? `${tag}: ${beyond.map(({ side, pin }) => `${side.tag} has ${n(side.face!.cavities)} cavities, the table names ${n(pin)}`).join('; ')}.`
            : null,
          beyond.flatMap(({ side, pin }) => [
            v(`cavities of ${side.tag}`, side.face!.cavities),
            v(`named of ${side.tag}`, pin),
          ]),
          { parts: keys },
        ),
        judge(
          loomRules.adapterOpen,
          [subject],
          lost.length > 0 ? [] : open,
          lost.length > 0
            ? `${tag}: ${lost.map(({ side, wire, pin }) => `${tagOf(wire)} at pin ${n(pin)} of ${side.tag}`).join(', ')}.`
            : null,
          lost.map(({ wire, pin }) => v(`pin of ${tagOf(wire)}`, pin)),
          { also: lost.map(({ wire }) => wire) },
        ),
        judge(
          loomRules.adapterHot,
          [subject],
          hot.length > 0 ? [] : [...open, ...noFace],
          hot.length > 0
            ? `${tag}: ${hot.map(({ wire, amps, pin, side, pinA }) => `${tagOf(wire)} brings ${n(amps)} A to pin ${n(pin)} of ${side.tag}, made for ${n(pinA)} A`).join('; ')}.`
            : null,
          hot.flatMap(({ wire, amps, pin, pinA }) => [
            v(`through ${tagOf(wire)}`, amps, 'A'),
            v(`pin for ${tagOf(wire)}`, pin),
            v(`it is made for, ${tagOf(wire)}`, pinA, 'A'),
          ]),
          { parts: keys, also: hot.map(({ wire }) => wire) },
        ),
      ],
    };
  },
};

/** The code of colours: that no two purposes look alike. */
export const colourStep: StepDefinition = {
  id: 'looms.colour',
  version: 1,
  subjects: ({ colours = {} }) => Object.keys(colours),
  compute(subject, read): { figures: []; checks: Check[] } {
    const all = read.at('colours')!;
    const { tag, colour } = all[subject]!;
    const alike = Object.keys(all).filter(
      (id) =>
        id !== subject &&
        colour !== undefined &&
        all[id]!.colour !== undefined &&
        sameColour(colour, all[id]!.colour!),
    );
    return {
      figures: [],
      checks: [
        judge(
          loomRules.colourTwice,
          // The group is one finding, said of the first of them.
          [subject],
          colour === undefined
            ? [{ kind: 'not-given', path: `colours.${subject}.colour`, label: `colour of ${tag}` }]
            : [],
          alike.length > 0 && alike.every((id) => subject < id)
            ? `${colour} stands for ${n(alike.length + 1)}: ${[tag, ...alike.map((id) => all[id]!.tag)].join(', ')}.`
            : null,
          [v('purposes', alike.length + 1)],
          { also: alike },
        ),
      ],
    };
  },
};
