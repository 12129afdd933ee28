import type { Id, JoinItem, LoopItem, PlumbingItem, PlumbingKind } from '@torvek/core/document';
import type { ElkExtendedEdge, ElkNode, LayoutOptions } from 'elkjs/lib/elk-api';
import type { Elk } from '../../../parts/elk';
import { textWidth } from '../../../parts/text-size';

/** What is drawn of a loop: pieces as plates, hoses as lines, joins where more than two meet as dots. */
export interface LoopGraph {
  nodes: {
    id: string;
    kind: Exclude<PlumbingKind, 'hose'> | 'join' | 'tank';
    tag: string;
    piece: Id | null;
    bleed: boolean;
    box: Id | null;
  }[];
  /** Drawn from one node to another; the flow shown is that of `piece`, from its own beginning to its end. */
  edges: { id: string; from: string; to: string; piece: Id; isHose: boolean }[];
}

export interface LoopSlices {
  loops: Readonly<Record<Id, LoopItem>>;
  joins: Readonly<Record<Id, JoinItem>>;
  plumbing: Readonly<Record<Id, PlumbingItem>>;
  /** The box in which a plate lies, by its modules. */
  boxOf(piece: Id): Id | null;
}

/** The graph of a loop from its connections. */
export function loopGraph(loop: Id, { loops, joins, plumbing, boxOf }: LoopSlices): LoopGraph {
  const pieces = Object.entries(plumbing).filter(
    ([, one]) => one.loop === loop && one.from !== undefined && one.to !== undefined,
  );
  const meeting = new Map<Id, Id[]>();
  for (const [id, { from, to }] of pieces)
    for (const join of [from!, to!]) meeting.set(join, [...(meeting.get(join) ?? []), id]);
  const tank = loops[loop]?.tank;
  const nodes: LoopGraph['nodes'] = [];
  /** Where a line that comes to a join ends, seen from one of its pieces. */
  const endAt = new Map<Id, (from: Id) => string>();
  for (const [join, those] of meeting) {
    const { tag = join, bleed = false } = joins[join] ?? {};
    const solid = those.filter((id) => plumbing[id]!.kind !== 'hose');
    // Two pieces, or a piece and a hose, meet without anything between them.
    const isSeen = join === tank || bleed === true || those.length !== 2 || solid.length === 0;
    if (isSeen) {
      nodes.push({
        id: `join|${join}`,
        kind: join === tank ? 'tank' : 'join',
        tag,
        piece: null,
        bleed: bleed === true,
        box: null,
      });
      endAt.set(join, () => `join|${join}`);
    } else endAt.set(join, (from) => `piece|${solid.find((id) => id !== from) ?? solid[0]!}`);
  }
  const edges: LoopGraph['edges'] = [];
  for (const [id, { kind, tag, from, to }] of pieces) {
    if (kind === 'hose') {
      edges.push({ id, from: endAt.get(from!)!(id), to: endAt.get(to!)!(id), piece: id, isHose: true });
      continue;
    }
    nodes.push({
      id: `piece|${id}`,
      kind,
      tag,
      piece: id,
      bleed: false,
      box: kind === 'plate' ? boxOf(id) : null,
    });
    const before = endAt.get(from!)!(id);
    const after = endAt.get(to!)!(id);
    // A hose draws its own line; of two pieces that meet, one draws it.
    const hasHose = (join: Id) => meeting.get(join)!.some((one) => plumbing[one]!.kind === 'hose');
    if (before.startsWith('join|'))
      edges.push({ id: `${id}|in`, from: before, to: `piece|${id}`, piece: id, isHose: false });
    if (after.startsWith('join|') || (!hasHose(to!) && after !== `piece|${id}` && id < after.slice(6)))
      edges.push({ id: `${id}|out`, from: `piece|${id}`, to: after, piece: id, isHose: false });
    if (!before.startsWith('join|') && !hasHose(from!) && id < before.slice(6))
      edges.push({ id: `${id}|in`, from: before, to: `piece|${id}`, piece: id, isHose: false });
  }
  return { nodes, edges };
}

export interface Spot {
  x: number;
  y: number;
  width: number;
  height: number;
}
export interface LaidLoop {
  width: number;
  height: number;
  nodes: Map<string, Spot>;
  edges: Map<string, [x: number, y: number][]>;
}

const options: LayoutOptions = {
  'elk.algorithm': 'layered',
  'elk.direction': 'RIGHT',
  'elk.edgeRouting': 'ORTHOGONAL',
  'elk.randomSeed': '11',
  'elk.layered.spacing.nodeNodeBetweenLayers': '9',
  'elk.layered.spacing.edgeNodeBetweenLayers': '6',
  'elk.spacing.nodeNode': '7',
  'elk.spacing.edgeNode': '12',
  'elk.spacing.edgeEdge': '6',
  'elk.layered.nodePlacement.strategy': 'NETWORK_SIMPLEX',
  'elk.layered.feedbackEdges': 'true',
  'elk.padding': '[top=8,left=4,bottom=8,right=4]',
};

const nameSize = 12.7;
/** Beside the name: the sign of the piece, and a margin. */
const beside = 25;
/** A name that is wider stands in two lines; no line is wider than the second. */
const oneLine = 87;
const widest = 104;
const narrowest = 50;

const wide = (text: string) => textWidth(text, nameSize, true);

function cut(text: string): string {
  if (wide(text) <= widest) return text;
  let end = text.length - 1;
  while (end > 1 && wide(`${text.slice(0, end)}…`) > widest) end -= 1;
  return `${text.slice(0, end)}…`;
}

/** A name as it stands in the box of a piece: in one line, or in two of about the same width. */
export function linesOf(tag: string): string[] {
  const words = tag.split(' ');
  if (wide(tag) <= oneLine || words.length === 1) return [cut(tag)];
  const splits = words
    .slice(1)
    .map((_, i) => [words.slice(0, i + 1).join(' '), words.slice(i + 1).join(' ')] as const);
  const widthOf = ([first, second]: readonly [string, string]) => Math.max(wide(first), wide(second));
  const best = splits.reduce((least, one) => (widthOf(one) < widthOf(least) ? one : least));
  return best.map(cut);
}

/** Room for the name of a piece, and for its flow below. */
export function sizeOf({ kind, tag }: LoopGraph['nodes'][number]): { width: number; height: number } {
  if (kind === 'join') return { width: 9, height: 9 };
  const lines = linesOf(tag);
  return {
    width: Math.max(narrowest, ...lines.map(wide)) + beside,
    height: (kind === 'tank' ? 16 : 38) + 14 * lines.length,
  };
}

/** Lays a loop out from left to right, from its tank on: the same loop gives the same picture. */
export async function layOutLoop(graph: LoopGraph, elk: Elk): Promise<LaidLoop> {
  const laid = await elk.layout({
    id: 'loop',
    layoutOptions: options,
    children: graph.nodes.map((node): ElkNode => ({
      id: node.id,
      ...sizeOf(node),
      ...(node.kind === 'tank' && { layoutOptions: { 'elk.layered.layering.layerConstraint': 'FIRST' } }),
    })),
    edges: graph.edges
      .filter(({ from, to }) => from !== to)
      .map(({ id, from, to }): ElkExtendedEdge => ({ id, sources: [from], targets: [to] })),
  });
  const spot = ({ x = 0, y = 0, width = 0, height = 0 }: ElkNode): Spot => ({ x, y, width, height });
  return {
    width: laid.width ?? 0,
    height: laid.height ?? 0,
    nodes: new Map((laid.children ?? []).map((node) => [node.id, spot(node)])),
    edges: new Map(
      (laid.edges ?? []).map((edge) => [
        edge.id,
        (edge.sections ?? []).flatMap(({ startPoint, bendPoints = [], endPoint }) =>
          [startPoint, ...bendPoints, endPoint].map(({ x, y }): [number, number] => [x, y]),
        ),
      ]),
    ),
  };
}

/** The middle of the longest stretch of a line, and which way it goes there, in degrees. */
export function middleOf(
  points: readonly (readonly [number, number])[],
): { x: number; y: number; turn: number; long: number } | null {
  let best: { x: number; y: number; turn: number; long: number } | null = null;
  for (let i = 1; i < points.length; i += 1) {
    const [[ax, ay], [bx, by]] = [points[i - 1]!, points[i]!];
    const long = Math.hypot(bx - ax, by - ay);
    if (best === null || long > best.long)
      best = {
        x: (ax + bx) / 2,
        y: (ay + by) / 2,
        turn: (Math.atan2(by - ay, bx - ax) * 180) / Math.PI,
        long,
      };
  }
  return best;
}
