import { mainCircuit, setAt, type CircuitPartKind, type Design, type Id } from '@torvek/core/document';
import { pin, unpinUnused } from '@torvek/core/pack';
import { partKindNames, type PartKind } from '@torvek/core/parts';
import { useLibrary } from '../stores/library';

interface Changing {
  design: Design;
  change(label: string, recipe: (draft: Design) => void): void;
}

/** A part that is exchanged together with another: the lug of a cable of another area. */
export interface AlongPart {
  kind: PartKind;
  partKey: string;
}

/** A thing of the design that has parts by their kinds: a circuit, a string, a cable of the pack. */
export interface Holder {
  path: string;
  tag: string;
  /** The main circuit: its parts have names of their own. */
  main: boolean;
}

/** The thing that a finding is about, where parts are chosen for it; null: it has none. */
export function holderOf({ circuits, strings, pack }: Design, subject: Id): Holder | null {
  const [id = ''] = subject.split('/');
  if (Object.hasOwn(circuits, id))
    return { path: `circuits.${id}`, tag: circuits[id]!.tag, main: id === mainCircuit };
  if (Object.hasOwn(strings, id)) return { path: `strings.${id}`, tag: strings[id]!.tag, main: false };
  const { leads = {} } = pack;
  return Object.hasOwn(leads, id) ? { path: `pack.leads.${id}`, tag: leads[id]!.tag, main: false } : null;
}

/**
 * Chooses a part of the library, or one pinned already, for a thing of the design: one change.
 *
 * @param along what has to be exchanged with it, in the same change
 */
export function takePart(
  job: Changing,
  holder: Holder,
  kind: PartKind,
  key: string,
  along: readonly AlongPart[] = [],
): void {
  const find = (one: string) => job.design.parts[one] ?? useLibrary().library.find(one);
  const part = find(key);
  if (part === undefined || part.kind !== kind) return;
  const others = along.flatMap((one) => {
    const found = find(one.partKey);
    return found === undefined || found.kind !== one.kind ? [] : [{ kind: one.kind, part: found }];
  });
  const [one] = partKindNames[kind];
  const name =
    (holder.main ? names[kind as CircuitPartKind] : undefined) ??
    `${one[0]!.toUpperCase()}${one.slice(1)} of ${holder.tag}`;
  const withThem = others.map((other) => `, with ${other.part.label}`).join('');
  job.change(`${name}: ${part.label}${withThem}`, (draft) => {
    for (const chosen of [{ kind, part }, ...others])
      setAt(draft, `${holder.path}.${chosen.kind}`, pin(draft, chosen.part));
    unpinUnused(draft);
  });
}

/** The same for a circuit that is there. */
export function choosePart(
  job: Changing,
  circuit: Id,
  kind: CircuitPartKind,
  key: string,
  along: readonly AlongPart[] = [],
): void {
  const place = job.design.circuits[circuit];
  if (place === undefined) return;
  takePart(
    job,
    { path: `circuits.${circuit}`, tag: place.tag, main: circuit === mainCircuit },
    kind,
    key,
    along,
  );
}

const names: Record<CircuitPartKind, string> = {
  contactor: 'Main contactors',
  resistor: 'Pre-charge resistor',
  fuse: 'Main fuse',
  cable: 'Traction cable',
  lug: 'Lugs of the traction cable',
  gland: 'Gland of the traction cable',
  plug: 'Plug of the traction cable',
};
