import type { Design, EndItem, Id } from '@torvek/core/document';
import { wiresByEnd, wireWay, waysFrom, type LoomWay } from '@torvek/core/low-voltage';

/** An end of the loom where it is drawn. */
export interface TreeEnd {
  id: Id;
  tag: string;
  kind: EndItem['kind'];
  x: number;
  y: number;
  /** Wires that end there. */
  wires: number;
  /** Something leads on from it: its name stands below it. */
  inner: boolean;
}

/** A bundle, or an adapter, from its parent to its child. */
export interface TreeBranch {
  id: Id;
  kind: 'bundle' | 'adapter';
  from: { x: number; y: number };
  to: { x: number; y: number };
  lengthM: number | null;
  /** Wires that run through it. */
  wires: number;
  text: string;
}

export interface LoomTree {
  ends: TreeEnd[];
  branches: TreeBranch[];
  /** Bundles that close a ring: they are in the table, not in the tree. */
  rings: Id[];
  width: number;
  height: number;
}

const rowPx = 34;
/** The name of a fuse box stands above it. */
const topPx = 36;
const stepPx = 132;
const labelPx = 178;

type Slices = Pick<Design, 'ends' | 'bundles' | 'wires' | 'adapters'>;

/** What leads from one end to another. */
interface Link {
  kind: TreeBranch['kind'];
  from?: Id;
  to?: Id;
  lengthM: number | null;
  wires: number;
  text: string;
}

const counted = (count: number, one: string) => `${count} ${count === 1 ? one : `${one}s`}`;

/** Bundles and adapters alike: each is drawn once, from the inside out. */
function linksOf(design: Slices): Record<Id, Link> {
  const through = wiresThrough(design);
  const links: Record<Id, Link> = {};
  for (const [id, { from, to, lengthM }] of Object.entries(design.bundles ?? {})) {
    const wires = through.get(id) ?? 0;
    links[id] = {
      kind: 'bundle',
      ...(from !== undefined && { from }),
      ...(to !== undefined && { to }),
      lengthM: lengthM ?? null,
      wires,
      text: `${lengthM === undefined ? '? m' : `${lengthM} m`}, ${counted(wires, 'wire')}`,
    };
  }
  for (const [id, { from, to, pins = [] }] of Object.entries(design.adapters ?? {}))
    links[id] = {
      kind: 'adapter',
      ...(from !== undefined && { from }),
      ...(to !== undefined && { to }),
      lengthM: 0,
      wires: pins.length,
      text: `adapter, ${counted(pins.length, 'pin')}`,
    };
  return links;
}

/** How many wires run through each bundle, and along which way. */
function wiresThrough({ bundles = {}, wires = {} }: Slices): Map<Id, number> {
  const known = new Map<Id, Map<Id, LoomWay>>();
  const ways = (from: Id) => {
    const found = known.get(from) ?? waysFrom(from, bundles);
    known.set(from, found);
    return found;
  };
  const through = new Map<Id, number>();
  for (const wire of Object.values(wires))
    for (const bundle of wireWay(wire, ways)?.bundles ?? [])
      through.set(bundle, (through.get(bundle) ?? 0) + 1);
  return through;
}

/**
 * A loom as a tree from its fuse box, or from the end that most wires leave: each outermost end has a row of its own, so that no name
 * stands on another. Looms that do not hang together stand below one another.
 */
export function loomTree(design: Slices): LoomTree {
  const { ends = {} } = design;
  const links = linksOf(design);
  const at = wiresByEnd({ wires: design.wires ?? {} });
  const next = new Map<Id, { bundle: Id; to: Id; item: Link }[]>();
  const join = (from: Id, to: Id, bundle: Id, item: Link) =>
    next.set(from, [...(next.get(from) ?? []), { bundle, to, item }]);
  for (const [id, item] of Object.entries(links)) {
    if (item.from === undefined || item.to === undefined || item.from === item.to) continue;
    if (ends[item.from] === undefined || ends[item.to] === undefined) continue;
    join(item.from, item.to, id, item);
    join(item.to, item.from, id, item);
  }
  const count = (id: Id) => (Object.hasOwn(at, id) ? at[id]!.length : 0);
  const rank = (id: Id) => (ends[id]!.kind === 'fuse box' ? 1e6 : 0) + count(id);
  const waiting = Object.keys(ends).sort((a, b) => rank(b) - rank(a));
  const placed = new Map<Id, TreeEnd>();
  const branches: TreeBranch[] = [];
  const used = new Set<Id>();
  let row = 0;
  let deepest = 0;

  const put = (id: Id, depth: number): TreeEnd => {
    const end: TreeEnd = {
      id,
      tag: ends[id]!.tag,
      kind: ends[id]!.kind,
      x: 20 + depth * stepPx,
      y: 0,
      wires: count(id),
      inner: false,
    };
    placed.set(id, end);
    deepest = Math.max(deepest, depth);
    const children: { child: TreeEnd; bundle: Id; item: Link }[] = [];
    for (const { bundle, to, item } of next.get(id) ?? []) {
      if (used.has(bundle) || placed.has(to)) continue;
      used.add(bundle);
      children.push({ child: put(to, depth + 1), bundle, item });
    }
    end.y =
      children.length === 0 ? topPx + rowPx * row++ : (children[0]!.child.y + children.at(-1)!.child.y) / 2;
    end.inner = end.kind === 'branch' || (children.length > 0 && end.kind !== 'fuse box');
    for (const { child, bundle, item } of children)
      branches.push({
        id: bundle,
        kind: item.kind,
        from: { x: end.x, y: end.y },
        to: { x: child.x, y: child.y },
        lengthM: item.lengthM,
        wires: item.wires,
        text: item.text,
      });
    return end;
  };
  for (const id of waiting) if (!placed.has(id)) put(id, 0);
  return {
    ends: [...placed.values()],
    branches,
    rings: Object.keys(links).filter((id) => {
      const { from, to } = links[id]!;
      return from !== undefined && to !== undefined && placed.has(from) && placed.has(to) && !used.has(id);
    }),
    width: 20 + deepest * stepPx + labelPx,
    height: topPx + 8 + rowPx * Math.max(1, row),
  };
}
