import type { Id } from '../../model/document';
import type { ElementKind, NetworkElement } from './elements';

/** Everything that lies between boxes: cables and the devices they end at. */
export const outsideReach = 'outside';

/** What a contactor is there for; stages of the build open and close them by it. */
export type ContactorDuty = 'string' | 'main' | 'precharge' | 'branch' | 'inlet';

/** An element of the network as it follows from the design. */
export interface DerivedElement extends NetworkElement {
  /** What people call it. */
  tag: string;
  /** The symbol of the diagram that stands for it. */
  symbol: string;
  resistanceOhm: number;
  /** False: its resistance is not known and counts as nothing, so that a fault comes out too large, not too small. */
  resistanceGiven: boolean;
  duty?: ContactorDuty;
  /** Cables and plugs: how they pass the walls. */
  ends?: 'interlocked' | 'plain' | 'gland' | undefined;
  /** String or circuit it belongs to. */
  owner: Id;
  /** Joints of a string: which one, from 1. */
  joint?: number;
}

export type SymbolKind =
  'modules' | 'disconnect' | 'fuse' | 'contactor' | 'precharge' | 'bus' | 'cable' | 'load';

/** One symbol of the one-line diagram: one element, or several that are drawn as one. */
export interface NetworkSymbol {
  id: string;
  kind: SymbolKind;
  tag: string;
  /** Its kind in words. */
  words: string;
  rating: string;
  /** The frame it is drawn in; null: outside the boxes. */
  box: Id | null;
  elements: string[];
  /** A bus has no element of its own: its two terminals. */
  terminals?: string[];
  /** Where in the design it is decided. */
  path: string;
}

/** A line between two symbols: one pole (inside strings) or both. */
export interface NetworkLine {
  id: string;
  from: string;
  to: string;
  poles: 1 | 2;
  terminals: string[];
}

export interface Network {
  elements: DerivedElement[];
  symbols: NetworkSymbol[];
  lines: NetworkLine[];
  boxes: { id: Id; tag: string }[];
}

/** A piece of a path, before it has terminals. */
export interface Piece {
  id: string;
  kind: ElementKind;
  tag: string;
  symbol: string;
  reach: string;
  owner: Id;
  resistanceOhm?: number | undefined;
  voltageV?: number;
  capacitanceF?: number | undefined;
  duty?: ContactorDuty;
  ends?: DerivedElement['ends'];
  joint?: number;
}

/** Where a path has come to: a symbol and the terminals that lead on from it. */
export interface Cursor {
  symbol: string;
  terminals: string[];
}

/** Gathers elements, symbols and lines; terminals between the pieces of a path are named after what they follow. */
export class NetworkBuilder {
  readonly elements: DerivedElement[] = [];
  readonly symbols = new Map<string, NetworkSymbol>();
  readonly lines: NetworkLine[] = [];

  symbol(symbol: Omit<NetworkSymbol, 'elements'>): string {
    if (!this.symbols.has(symbol.id)) this.symbols.set(symbol.id, { ...symbol, elements: [] });
    return symbol.id;
  }

  element(piece: Piece, a: string, b: string): void {
    const { id, kind, tag, symbol, reach, owner, resistanceOhm = -1 } = piece;
    // Written out: a design has hundreds of these, and each edit makes them anew.
    const element: DerivedElement = {
      id,
      kind,
      a,
      b,
      closed: true,
      reach,
      tag,
      symbol,
      owner,
      resistanceOhm: Math.max(resistanceOhm, 0),
      resistanceGiven: resistanceOhm >= 0,
    };
    if (piece.voltageV !== undefined) element.voltageV = piece.voltageV;
    if (piece.capacitanceF !== undefined) element.capacitanceF = piece.capacitanceF;
    if (piece.duty !== undefined) element.duty = piece.duty;
    if (piece.ends !== undefined) element.ends = piece.ends;
    if (piece.joint !== undefined) element.joint = piece.joint;
    this.elements.push(element);
    this.symbols.get(symbol)?.elements.push(id);
  }

  /**
   * Strings pieces one after another between two terminals.
   *
   * @returns the terminals passed, both ends included
   */
  path(from: string, to: string, pieces: Piece[]): string[] {
    const terminals = [from];
    pieces.forEach((piece, i) => {
      const next = i === pieces.length - 1 ? to : `${piece.id}:out`;
      this.element(piece, terminals.at(-1)!, next);
      terminals.push(next);
    });
    return terminals;
  }

  line(from: string, to: string, poles: 1 | 2, terminals: string[]): void {
    if (from === to) return;
    this.lines.push({ id: `${from}>${to}`, from, to, poles, terminals });
  }

  network(boxes: Network['boxes']): Network {
    return { elements: this.elements, symbols: [...this.symbols.values()], lines: this.lines, boxes };
  }
}
