import type { Network, NetworkLine, NetworkSymbol } from '@torvek/core/network';
import type { ElkExtendedEdge, ElkNode, ElkPort, LayoutOptions } from 'elkjs/lib/elk-api';
import type { Elk } from '../../parts/elk';
import { textWidth, wrapText } from '../../parts/text-size';

export type { Elk };

/** The one-line diagram with a place for everything, px. */
export interface Diagram {
  width: number;
  height: number;
  frames: DrawnFrame[];
  symbols: DrawnSymbol[];
  lines: DrawnLine[];
}

export interface Rect {
  x: number;
  y: number;
  width: number;
  height: number;
}

export interface DrawnText extends Rect {
  text: string;
  sizePx: number;
  bold: boolean;
}

export interface DrawnFrame extends Rect {
  id: string;
  title: DrawnText;
}

export interface DrawnSymbol extends Rect {
  symbol: NetworkSymbol;
  /** Where its line passes, over its left edge. */
  axisX: number;
  glyph: Rect;
  texts: DrawnText[];
  /** Room for what state it is in. */
  state: DrawnText;
}

export interface DrawnLine {
  line: NetworkLine;
  points: [x: number, y: number][];
}

const tagPx = 12.5;
const wordPx = 12;
const lineHeight = 14;
const glyphSize = 26;
const axis = 14;
const textX = 32;
/** Branches stand side by side: their texts are narrow. Strings have room. */
const narrowPx = 86;
const widePx = 150;
const statePx = 76;
const titleHeight = 18;
const framePad = 10;

const options: LayoutOptions = {
  'elk.algorithm': 'layered',
  'elk.direction': 'DOWN',
  'elk.hierarchyHandling': 'INCLUDE_CHILDREN',
  'elk.edgeRouting': 'ORTHOGONAL',
  'elk.randomSeed': '7',
  'elk.layered.spacing.nodeNodeBetweenLayers': '16',
  'elk.layered.spacing.edgeNodeBetweenLayers': '9',
  'elk.layered.spacing.edgeEdgeBetweenLayers': '8',
  'elk.spacing.nodeNode': '8',
  'elk.spacing.edgeNode': '8',
  'elk.spacing.edgeEdge': '8',
  'elk.layered.nodePlacement.strategy': 'NETWORK_SIMPLEX',
  'elk.layered.nodePlacement.favorStraightEdges': 'true',
  'elk.padding': '[top=4,left=2,bottom=4,right=2]',
};

interface Card {
  width: number;
  height: number;
  tag: string[];
  words: string[];
}

function cardOf({ kind, tag, words, rating, path }: NetworkSymbol): Card {
  const wrapPx =
    /^(circuits\.(?!circuit-main\.)|devices\.)/.test(path) || kind === 'cable' ? narrowPx : widePx;
  const tags = wrapText(tag, tagPx, wrapPx, 2, true);
  const lines = wrapText(
    [words, rating.replace(/(\d) (?=\S)/g, '$1\u00a0')].filter((one) => one !== '').join(', '),
    wordPx,
    wrapPx,
    3,
  );
  const widest = Math.max(
    statePx,
    ...tags.map((line) => textWidth(line, tagPx, true)),
    ...lines.map((line) => textWidth(line, wordPx)),
  );
  if (kind === 'bus') {
    const one = Math.max(textWidth(`${tag}, ${words}`, tagPx, true), statePx);
    return { width: 2 * (one + 14), height: 2 * lineHeight + 10, tag: [`${tag}`], words: [words] };
  }
  return {
    width: textX + widest + 2,
    height: Math.max((tags.length + lines.length + 1) * lineHeight + 2, glyphSize + 4),
    tag: tags,
    words: lines,
  };
}

const isBus = ({ kind }: NetworkSymbol) => kind === 'bus';

/** Lays a network out: the same network gives the same picture. */
export async function layOut(network: Network, elk: Elk): Promise<Diagram> {
  const cards = new Map(network.symbols.map((symbol) => [symbol.id, cardOf(symbol)]));
  // A frame is as wide as what is in it: somewhere in it there must be room for its name beside a line.
  for (const { id, tag } of network.boxes) {
    const inside = network.symbols.filter(({ box }) => box === id).map((symbol) => cards.get(symbol.id)!);
    const wanted = textX + textWidth(tag, tagPx, true) + 8;
    if (inside.every(({ width }) => width < wanted)) inside[0]!.width = wanted;
  }
  const laid = await elk.layout(graphOf(network, cards));
  return read(network, cards, laid);
}

function graphOf(network: Network, cards: Map<string, Card>): ElkNode {
  const edges: ElkExtendedEdge[] = [];
  const busPorts = new Map<string, ElkPort[]>();
  const symbols = new Map(network.symbols.map((symbol) => [symbol.id, symbol]));
  const port = (id: string, side: 'n' | 's', line: string) => {
    const symbol = symbols.get(id)!;
    if (!isBus(symbol) || side === 'n') return `${id}|${side}`;
    const own = `${id}|s|${line}`;
    busPorts.set(id, [
      ...(busPorts.get(id) ?? []),
      { id: own, width: 0, height: 0, layoutOptions: { 'elk.port.side': 'SOUTH' } },
    ]);
    return own;
  };
  for (const line of network.lines) {
    const from = symbols.get(line.from)!;
    const backwards = from.kind === 'modules' && line.terminals[0]?.endsWith(':-') === true;
    edges.push({
      id: line.id,
      sources: [port(line.from, backwards ? 'n' : 's', line.id)],
      targets: [port(line.to, 'n', line.id)],
    });
  }
  const nodeOf = (symbol: NetworkSymbol): ElkNode => {
    const card = cards.get(symbol.id)!;
    const outgoing = busPorts.get(symbol.id) ?? [];
    if (isBus(symbol))
      return {
        id: symbol.id,
        width: Math.max(card.width, outgoing.length * 46),
        height: card.height,
        layoutOptions: { 'elk.portConstraints': 'FIXED_SIDE' },
        ports: [
          { id: `${symbol.id}|n`, width: 0, height: 0, layoutOptions: { 'elk.port.side': 'NORTH' } },
          ...outgoing,
        ],
      };
    return {
      id: symbol.id,
      width: card.width,
      height: card.height,
      layoutOptions: { 'elk.portConstraints': 'FIXED_POS' },
      ports: [
        {
          id: `${symbol.id}|n`,
          x: axis,
          y: 0,
          width: 0,
          height: 0,
          layoutOptions: { 'elk.port.side': 'NORTH' },
        },
        {
          id: `${symbol.id}|s`,
          x: axis,
          y: card.height,
          width: 0,
          height: 0,
          layoutOptions: { 'elk.port.side': 'SOUTH' },
        },
      ],
    };
  };
  const framed = network.boxes.map(({ id }): ElkNode => ({
    id: `frame|${id}`,
    layoutOptions: {
      ...options,
      'elk.padding': `[top=${titleHeight + 8},left=${framePad},bottom=${framePad},right=${framePad}]`,
    },
    children: network.symbols.filter(({ box }) => box === id).map(nodeOf),
  }));
  const known = new Set(network.boxes.map(({ id }) => id));
  return {
    id: 'root',
    layoutOptions: options,
    children: [
      ...framed,
      ...network.symbols.filter(({ box }) => box === null || !known.has(box)).map(nodeOf),
    ],
    edges,
  };
}

function read(network: Network, cards: Map<string, Card>, laid: ElkNode): Diagram {
  const places = new Map<string, Rect>();
  const walk = (node: ElkNode, x: number, y: number) => {
    for (const child of node.children ?? []) {
      const at = {
        x: x + (child.x ?? 0),
        y: y + (child.y ?? 0),
        width: child.width ?? 0,
        height: child.height ?? 0,
      };
      places.set(child.id, at);
      walk(child, at.x, at.y);
    }
  };
  walk(laid, 0, 0);
  const lines = drawnLines(network, laid, places);
  return {
    width: laid.width ?? 0,
    height: laid.height ?? 0,
    symbols: network.symbols.map((symbol) =>
      drawnSymbol(symbol, cards.get(symbol.id)!, places.get(symbol.id)!),
    ),
    frames: network.boxes.map(({ id, tag }) => {
      const at = places.get(`frame|${id}`)!;
      const inside = network.symbols.filter(({ box }) => box === id).map((one) => places.get(one.id)!);
      return { id, ...at, title: titleOf(tag, at, lines, inside) };
    }),
    lines,
  };
}

function drawnLines(network: Network, laid: ElkNode, places: Map<string, Rect>): DrawnLine[] {
  const byId = new Map(network.lines.map((line) => [line.id, line]));
  const drawn: DrawnLine[] = [];
  const collect = (node: ElkNode) => {
    for (const edge of node.edges ?? []) {
      const container = (edge as { container?: string }).container;
      const origin = container === undefined || container === 'root' ? null : places.get(container);
      const dx = origin?.x ?? 0;
      const dy = origin?.y ?? 0;
      const section = edge.sections?.[0];
      const line = byId.get(edge.id);
      if (section === undefined || line === undefined) continue;
      const points = [section.startPoint, ...(section.bendPoints ?? []), section.endPoint].map(
        ({ x, y }): [number, number] => [x + dx, y + dy],
      );
      drawn.push({ line, points });
    }
    for (const child of node.children ?? []) collect(child);
  };
  collect(laid);
  return drawn;
}

function drawnSymbol(symbol: NetworkSymbol, card: Card, at: Rect): DrawnSymbol {
  const bus = isBus(symbol);
  const axisX = bus ? at.width / 2 : axis;
  const left = at.x + (bus ? axisX + 10 : textX);
  const texts: DrawnText[] = [];
  let y = at.y + 1;
  const put = (text: string, sizePx: number, bold: boolean) => {
    texts.push({ text, sizePx, bold, x: left, y, width: textWidth(text, sizePx, bold), height: lineHeight });
    y += lineHeight;
  };
  if (bus) put(`${card.tag[0]}, ${card.words[0]}`, tagPx, true);
  else {
    for (const line of card.tag) put(line, tagPx, true);
    for (const line of card.words) put(line, wordPx, false);
  }
  const state = { text: '', sizePx: wordPx, bold: false, x: left, y, width: statePx, height: lineHeight };
  const glyph = bus
    ? { x: at.x, y: at.y + at.height - 6, width: at.width, height: 6 }
    : {
        x: at.x + axis - glyphSize / 2,
        y: at.y + (at.height - glyphSize) / 2,
        width: glyphSize,
        height: glyphSize,
      };
  return { symbol, ...at, axisX, glyph, texts, state };
}

/** The name of a frame where no line and no symbol is: along its upper edge, its lower one, or anywhere in it. */
function titleOf(tag: string, frame: Rect, lines: readonly DrawnLine[], inside: readonly Rect[]): DrawnText {
  const width = textWidth(tag, tagPx, true);
  const place = (x: number, y: number): DrawnText => ({
    text: tag,
    sizePx: tagPx,
    bold: true,
    x,
    y,
    width,
    height: lineHeight,
  });
  const tops = [frame.y + 5, frame.y + frame.height - lineHeight - 3];
  for (let y = frame.y + 12; y + lineHeight < frame.y + frame.height; y += 4) tops.push(y);
  for (const y of tops)
    for (let x = frame.x + 7; x + width <= frame.x + frame.width - 6; x += 4) {
      const title = place(x, y);
      const around = { x: x - 7, y: y - 1, width: width + 14, height: lineHeight + 2 };
      if (lines.every(({ points }) => !crosses(points, around)) && inside.every((one) => !meets(one, around)))
        return title;
    }
  return place(frame.x + 8, tops[0]!);
}

/** Whether a way of horizontal and vertical pieces passes through a rectangle. */
export function crosses(points: readonly [number, number][], rect: Rect): boolean {
  for (let i = 1; i < points.length; i += 1) {
    const [x1, y1] = points[i - 1]!;
    const [x2, y2] = points[i]!;
    const piece = {
      x: Math.min(x1, x2),
      y: Math.min(y1, y2),
      width: Math.abs(x2 - x1),
      height: Math.abs(y2 - y1),
    };
    if (meets(piece, rect)) return true;
  }
  return false;
}

/** Whether two rectangles share more than an edge. */
export const meets = (a: Rect, b: Rect) =>
  a.x < b.x + b.width - 0.01 &&
  b.x < a.x + a.width - 0.01 &&
  a.y < b.y + b.height - 0.01 &&
  b.y < a.y + a.height - 0.01;
