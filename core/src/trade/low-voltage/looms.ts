import type { BundleItem, Design, EndItem, Id, WireItem } from '../../model/document';

/** A wire in a cavity. */
export interface PinnedWire {
  wire: Id;
  pin: number | null;
}

/** The way of a wire through the bundles. */
export interface LoomWay {
  lengthM: number;
  bundles: Id[];
}

type Slices = Pick<Design, 'ends' | 'bundles' | 'wires'>;

/** The wires that end at each end. */
export function wiresByEnd({ wires = {} }: Pick<Design, 'wires'>): Record<Id, PinnedWire[]> {
  const at: Record<Id, PinnedWire[]> = {};
  const add = (end: Id | undefined, wire: Id, pin: number | undefined) => {
    if (end === undefined) return;
    const list = Object.hasOwn(at, end) ? at[end]! : [];
    if (list.length === 0) at[end] = list;
    list.push({ wire, pin: pin ?? null });
  };
  for (const [id, wire] of Object.entries(wires)) {
    add(wire.from, id, wire.fromPin);
    add(wire.to, id, wire.toPin);
  }
  return at;
}

/** Shortest ways through the bundles from one end to all others; a bundle without a length is no way. */
export function waysFrom(from: Id, bundles: Readonly<Record<Id, BundleItem>>): Map<Id, LoomWay> {
  const next = new Map<Id, [to: Id, bundle: Id, lengthM: number][]>();
  for (const [id, { from: a, to: b, lengthM }] of Object.entries(bundles)) {
    if (a === undefined || b === undefined || lengthM === undefined || !(lengthM >= 0)) continue;
    next.set(a, [...(next.get(a) ?? []), [b, id, lengthM]]);
    next.set(b, [...(next.get(b) ?? []), [a, id, lengthM]]);
  }
  const found = new Map<Id, LoomWay>([[from, { lengthM: 0, bundles: [] }]]);
  const settled = new Set<Id>();
  for (;;) {
    let nearest: Id | null = null;
    for (const [id, { lengthM }] of found)
      if (!settled.has(id) && (nearest === null || lengthM < found.get(nearest)!.lengthM)) nearest = id;
    if (nearest === null) return found;
    settled.add(nearest);
    const here = found.get(nearest)!;
    for (const [to, bundle, lengthM] of next.get(nearest) ?? []) {
      const there = found.get(to);
      if (there === undefined || here.lengthM + lengthM < there.lengthM - 1e-12)
        found.set(to, { lengthM: here.lengthM + lengthM, bundles: [...here.bundles, bundle] });
    }
  }
}

/** The way of a wire: typed, or the shortest through the bundles; null: there is none. */
export function wireWay(
  { from, to, lengthM }: Pick<WireItem, 'from' | 'to' | 'lengthM'>,
  ways: (from: Id) => Map<Id, LoomWay>,
): LoomWay | null {
  const through = from === undefined || to === undefined ? null : (ways(from).get(to) ?? null);
  if (lengthM !== undefined) return { lengthM, bundles: through?.bundles ?? [] };
  return through;
}

/** Colours are the same however they are written: “brown / white” and “Brown/White”. */
export const sameColour = (a: string, b: string): boolean => {
  const plain = (one: string) => one.toLowerCase().replace(/[\s/_-]+/g, '/');
  return plain(a) === plain(b);
};

/** The colour of a wire: typed, or that of its line in the code; empty: nobody says. */
export const colourOf = (
  { colour, code }: Pick<WireItem, 'colour' | 'code'>,
  colours: Design['colours'],
): string => colour ?? colours?.[code ?? '']?.colour ?? '';

/** A line of a continuity sheet: what must be joined, and what each pin must be parted from. */
export interface ContinuityLine {
  /** A wire, or an adapter with one of its pins. */
  kind: 'wire' | 'adapter';
  wire: Id;
  tag: string;
  from: string;
  fromPin: number | null;
  to: string;
  toPin: number | null;
  colour: string;
  areaMm2: number | null;
  lengthM: number | null;
  /** Cavities beside its own at both ends: a neighbour’s pin is the likeliest mistake. */
  apartFrom: string[];
}

/** Where pins lie in a face, seen from the front; from the wires’ side the columns are mirrored. */
export function cavityPlaces(cavities: number, rows: number): { pin: number; row: number; column: number }[] {
  const columns = Math.ceil(cavities / Math.max(1, rows));
  return Array.from({ length: cavities }, (_, i) => ({
    pin: i + 1,
    row: Math.floor(i / columns),
    column: i % columns,
  }));
}

/** Pins that touch a pin in its face. */
export function besidePins(pin: number, cavities: number, rows: number): number[] {
  const places = cavityPlaces(cavities, rows);
  const own = places.find((one) => one.pin === pin);
  if (own === undefined) return [];
  return places
    .filter(
      (one) => one.pin !== pin && Math.abs(one.row - own.row) <= 1 && Math.abs(one.column - own.column) <= 1,
    )
    .map((one) => one.pin);
}

const { compare: order } = new Intl.Collator('en', { numeric: true });

/** The sheet by which a loom is proved before it is plugged in, by its ends and pins in order. */
export function continuitySheet(
  design: Slices & Pick<Design, 'parts' | 'adapters' | 'colours'>,
): ContinuityLine[] {
  const { ends = {}, bundles = {}, wires = {}, adapters = {}, colours, parts } = design;
  const at = wiresByEnd(design);
  const known = new Map<Id, Map<Id, LoomWay>>();
  const ways = (from: Id) => {
    const found = known.get(from) ?? waysFrom(from, bundles);
    known.set(from, found);
    return found;
  };
  const faceOf = (id: Id | undefined) => {
    const part = parts[ends[id ?? '']?.connector ?? ''];
    return part?.kind === 'connector' ? part.data : null;
  };
  const named = (id: Id | undefined, end: EndItem | undefined) => end?.tag ?? id ?? '';
  const filled = new Map<Id, Set<number | null>>();
  const filledAt = (end: Id) => {
    const known = filled.get(end);
    if (known !== undefined) return known;
    const made = new Set([
      ...(at[end] ?? []).map((one) => one.pin),
      ...Object.values(adapters).flatMap(({ from, to, pins = [] }) =>
        pins.map(([near, far]) => (from === end ? near : to === end ? far : null)),
      ),
    ]);
    filled.set(end, made);
    return made;
  };
  const beside = (end: Id | undefined, pin: number | undefined) => {
    const face = faceOf(end);
    if (end === undefined || pin === undefined || face === null) return [];
    return besidePins(pin, face.cavities, face.rows)
      .filter((one) => filledAt(end).has(one))
      .map((one) => `${named(end, ends[end])} ${one}`);
  };
  const through = Object.entries(adapters).flatMap(([id, { tag, from, to, pins = [] }]) =>
    pins.map(([fromPin, toPin]): ContinuityLine => ({
      kind: 'adapter',
      wire: id,
      tag,
      from: named(from, ends[from ?? '']),
      fromPin,
      to: named(to, ends[to ?? '']),
      toPin,
      colour: '',
      areaMm2: null,
      lengthM: null,
      apartFrom: [...new Set([...beside(from, fromPin), ...beside(to, toPin)])],
    })),
  );
  return Object.entries(wires)
    .map(([wire, item]): ContinuityLine => {
      const part = parts[item.wire ?? ''];
      return {
        kind: 'wire',
        wire,
        tag: item.tag,
        from: named(item.from, ends[item.from ?? '']),
        fromPin: item.fromPin ?? null,
        to: named(item.to, ends[item.to ?? '']),
        toPin: item.toPin ?? null,
        colour: colourOf(item, colours),
        areaMm2: part?.kind === 'wire' ? part.data.areaMm2 : null,
        lengthM: wireWay(item, ways)?.lengthM ?? null,
        apartFrom: [...new Set([...beside(item.from, item.fromPin), ...beside(item.to, item.toPin)])],
      };
    })
    .concat(through)
    .sort((a, b) => order(a.from, b.from) || (a.fromPin ?? 0) - (b.fromPin ?? 0) || order(a.tag, b.tag));
}
