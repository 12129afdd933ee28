import type { Id, StringItem } from '../../model/document';
import { leadsOf, oneLeadOhm } from '../pack';
import { formatNumber } from '../../ground/quantity';
import type { NetworkSlices, Places } from './feeding';
import { type Cursor, type NetworkBuilder, type Piece } from './network-builder';
import { cablePieces, endsText } from './pieces';
import { contactorRating, disconnectOhm, disconnectRating, fuseRating, polesText, reachOf } from './ratings';

import { packBus, packBusSymbol } from './pack-bus';

export class StringPath {
  private readonly boxOfModule: (module: Id) => Id | null;
  private readonly jointOhm: number | undefined;

  constructor(
    private readonly builder: NetworkBuilder,
    private readonly design: NetworkSlices,
    private readonly places: Places,
    private readonly id: Id,
    private readonly string: StringItem,
  ) {
    this.boxOfModule = (module) => design.modules[module]?.box ?? null;
    const joints = string.modules.length - 1;
    const { linkResistanceOhm } = design.pack;
    this.jointOhm = linkResistanceOhm === undefined || joints === 0 ? undefined : linkResistanceOhm / joints;
  }

  derive(): void {
    const { first, last } = this.series();
    this.ends(first, last);
  }

  /** From the first module's negative post to the last one's positive. */
  private series(): { first: Cursor; last: Cursor } {
    const { builder, string } = this;
    let group: { symbol: string; from: number; box: Id | null } | null = null;
    let cursor: Cursor | null = null;
    let first: Cursor | null = null;
    const closeGroup = (to: number) => group !== null && this.describeGroup(group.symbol, group.from, to);
    string.modules.forEach((module, i) => {
      const box = this.boxOfModule(module);
      const minus = `${module}:-`;
      if (cursor !== null) {
        const before = string.modules[i - 1]!;
        const from = `${before}:+`;
        const { pieces, symbols } = this.joint(i, this.boxOfModule(before), box);
        const plain = symbols.length === 0 && group !== null;
        if (plain) {
          const link = this.piece(
            `${this.id}/link-${i}`,
            'link',
            `link ${i} of ${string.tag}`,
            group!.symbol,
            box,
          );
          builder.path(from, minus, [{ ...link, joint: i, resistanceOhm: this.jointOhm }]);
        } else {
          closeGroup(i - 1);
          group = null;
          const terminals = builder.path(from, minus, pieces);
          cursor = this.through(cursor, symbols, terminals);
        }
      }
      if (group === null) {
        const symbol = builder.symbol({
          id: `${this.id}/group-${i + 1}`,
          kind: 'modules',
          tag: '',
          words: '',
          rating: '',
          box,
          path: `strings.${this.id}.modules`,
        });
        group = { symbol, from: i, box };
        if (cursor !== null) builder.line(cursor.symbol, symbol, 1, [minus]);
      }
      const part = this.design.parts[this.design.modules[module]?.part ?? ''];
      const data = part?.kind === 'module' ? part.data : null;
      builder.element(
        {
          ...this.piece(module, 'module', this.design.modules[module]?.tag ?? module, group.symbol, box),
          voltageV: data === null ? 0 : data.cell.maxV * data.cellsInSeries,
          resistanceOhm:
            data === null ? undefined : (data.cell.resistanceOhm * data.cellsInSeries) / data.cellsInParallel,
        },
        minus,
        `${module}:+`,
      );
      cursor = { symbol: group.symbol, terminals: [`${module}:+`] };
      first ??= { symbol: group.symbol, terminals: [minus] };
    });
    closeGroup(string.modules.length - 1);
    return { first: first!, last: cursor! };
  }

  private describeGroup(symbol: string, from: number, to: number): void {
    const one = this.builder.symbols.get(symbol)!;
    const modules = this.string.modules.slice(from, to + 1);
    const tag = (module: Id | undefined) => this.design.modules[module ?? '']?.tag ?? '';
    const volts = modules.reduce((sum, module) => {
      const part = this.design.parts[this.design.modules[module]?.part ?? ''];
      return sum + (part?.kind === 'module' ? part.data.cell.maxV * part.data.cellsInSeries : 0);
    }, 0);
    one.tag =
      modules.length === 1 ? tag(modules[0]) : `${tag(modules[0])} to ${shortTag(tag(modules.at(-1)))}`;
    one.words = modules.length === 1 ? 'module' : `${modules.length} modules`;
    one.rating = volts > 0 ? `${formatNumber(volts, 4)} V` : '';
  }

  private piece(id: string, kind: Piece['kind'], tag: string, symbol: string, box: Id | null): Piece {
    return { id, kind, tag, symbol, reach: reachOf(box), owner: this.id };
  }

  /** What stands in joint i, between module i and i + 1, when it is more than a link. */
  private joint(i: number, boxA: Id | null, boxB: Id | null): { pieces: Piece[]; symbols: string[] } {
    const { builder, string, id } = this;
    const pieces: Piece[] = [];
    const symbols: string[] = [];
    if (string.fuseAt === i && string.fuse !== undefined) {
      const symbol = this.fuseSymbol(boxA);
      symbols.push(symbol);
      pieces.push({ ...this.piece(`${id}/fuse`, 'fuse', `fuse of ${string.tag}`, symbol, boxA), joint: i });
    }
    if (string.disconnectAt === i) {
      const symbol = builder.symbol({
        id: `${id}/disconnect`,
        kind: 'disconnect',
        tag: `${string.tag} disconnect`,
        words: 'service disconnect',
        rating: disconnectRating(this.design, string.disconnect),
        box: boxA,
        path: `strings.${id}.disconnectAt`,
      });
      symbols.push(symbol);
      pieces.push({
        ...this.piece(
          `${id}/disconnect`,
          'service-disconnect',
          `service disconnect of ${string.tag}`,
          symbol,
          boxA,
        ),
        joint: i,
        resistanceOhm: plus(this.jointOhm, disconnectOhm(this.design, string)),
      });
    }
    if (boxA !== boxB) {
      const symbol = this.cableSymbol(`${id}/cable-${i}`, `${string.tag} cable ${i}–${i + 1}`, 'one pole');
      symbols.push(symbol);
      const cable = this.cable(
        `${id}/cable-${i}`,
        `cable ${i}–${i + 1} of ${string.tag}`,
        symbol,
        boxA,
        boxB,
      );
      const own = cable[cable.length > 1 ? 1 : 0]!;
      // The link’s share of the joint once, where a disconnect sits in it as well.
      own.resistanceOhm = plus(string.disconnectAt === i ? undefined : this.jointOhm, this.leadOhm(i));
      pieces.push(...cable.map((piece) => ({ ...piece, joint: i })));
    }
    return { pieces, symbols };
  }

  /** Of the cable that is described at a joint; at the ends also of one that is described for both. */
  private leadOhm(joint: number): number | undefined {
    const last = this.string.modules.length;
    const found = leadsOf(this.design.pack.leads, this.id).filter(
      ([, lead]) => (lead.joint ?? (joint === 0 || joint === last ? joint : -1)) === joint,
    );
    const ohms = found.flatMap(([, lead]) => oneLeadOhm(lead, this.design.parts) ?? []);
    return ohms.length === 0 ? undefined : ohms.reduce((sum, ohm) => sum + ohm, 0);
  }

  private cableSymbol(id: string, tag: string, poles: string): string {
    const { ends } = this.string;
    return this.builder.symbol({
      id,
      kind: 'cable',
      tag,
      words: endsText(ends),
      rating: poles,
      box: null,
      path: `strings.${this.id}.ends`,
    });
  }

  private cable(id: string, tag: string, symbol: string, boxA: Id | null, boxB: Id | null): Piece[] {
    return cablePieces({ id, tag, symbol, owner: this.id, ends: this.string.ends }, boxA, boxB);
  }

  private fuseSymbol(box: Id | null): string {
    const { string, id } = this;
    return this.builder.symbol({
      id: `${id}/fuse`,
      kind: 'fuse',
      tag: `${string.tag} fuse`,
      words: 'fuse',
      rating: fuseRating(this.design, string.fuse),
      box,
      path: `strings.${id}.fuse`,
    });
  }

  /** Lines through the symbols of one joint. */
  private through(cursor: Cursor, symbols: string[], terminals: string[]): Cursor {
    let at = cursor.symbol;
    symbols.forEach((symbol, i) => {
      this.builder.line(at, symbol, 1, [
        i === 0 ? terminals[0]! : terminals[Math.min(i, terminals.length - 2)]!,
      ]);
      at = symbol;
    });
    return { symbol: at, terminals: [terminals.at(-1)!] };
  }

  /** Fuse, contactors and cables between the ends of the string and the pack bus. */
  private ends(first: Cursor, last: Cursor): void {
    const { builder, string, id, places } = this;
    const switched =
      string.contactorPoles === undefined ? string.contactor !== undefined : string.contactorPoles !== 'none';
    const poles = string.contactorPoles ?? 'both';
    const lastBox = this.boxOfModule(string.modules.at(-1)!);
    const firstBox = this.boxOfModule(string.modules[0]!);
    const meet = places.combinerBox;
    const switchBox = switched && string.contactorsIn !== 'combiner' ? lastBox : meet;
    const plusPieces: Piece[] = [];
    const minusPieces: Piece[] = [];
    let plusAt = last.symbol;
    let minusAt = first.symbol;
    const step = (symbol: string, terminal: string) => {
      builder.line(plusAt, symbol, 1, [terminal]);
      plusAt = symbol;
    };
    const after = () => (plusPieces.length === 0 ? last.terminals[0]! : `${plusPieces.at(-1)!.id}:out`);
    const afterMinus = () =>
      minusPieces.length === 0 ? first.terminals[0]! : `${minusPieces.at(-1)!.id}:out`;
    if (string.fuse !== undefined && (string.fuseAt ?? 0) === 0) {
      const symbol = this.fuseSymbol(lastBox);
      step(symbol, after());
      plusPieces.push(this.piece(`${id}/fuse`, 'fuse', `fuse of ${string.tag}`, symbol, lastBox));
    }
    const bothTo = (to: Id | null, name: string, twoPoles: boolean) => {
      if (twoPoles) {
        const symbol = this.cableSymbol(`${id}/${name}`, `${string.tag} leads`, 'both poles');
        const terminals = [after(), afterMinus()];
        builder.line(plusAt, symbol, 2, terminals);
        plusAt = minusAt = symbol;
        plusPieces.push(
          ...this.cable(`${id}/${name}+`, `positive lead of ${string.tag}`, symbol, lastBox, to),
        );
        minusPieces.push(
          ...this.cable(`${id}/${name}-`, `negative lead of ${string.tag}`, symbol, firstBox, to),
        );
        return;
      }
      if (lastBox !== to) {
        const symbol = this.cableSymbol(`${id}/${name}+`, `${string.tag} + lead`, 'one pole');
        step(symbol, after());
        plusPieces.push(
          ...this.cable(`${id}/${name}+`, `positive lead of ${string.tag}`, symbol, lastBox, to),
        );
      }
      if (firstBox !== to) {
        const symbol = this.cableSymbol(`${id}/${name}-`, `${string.tag} − lead`, 'one pole');
        builder.line(minusAt, symbol, 1, [afterMinus()]);
        minusAt = symbol;
        minusPieces.push(
          ...this.cable(`${id}/${name}-`, `negative lead of ${string.tag}`, symbol, firstBox, to),
        );
      }
    };
    if (switched) {
      bothTo(switchBox, 'lead', false);
      const symbol = builder.symbol({
        id: `${id}/contactor`,
        kind: 'contactor',
        tag: `${string.tag} contactors`,
        words: `contactor, ${polesText(poles)}`,
        rating: contactorRating(this.design, string.contactor),
        box: switchBox,
        path: `strings.${id}.contactor`,
      });
      builder.line(plusAt, symbol, 1, [after()]);
      builder.line(minusAt, symbol, 1, [afterMinus()]);
      plusAt = minusAt = symbol;
      const contactor = (pole: '+' | '-'): Piece => ({
        ...this.piece(
          `${id}/contactor${pole}`,
          'contactor',
          `${string.tag} contactor ${pole === '+' ? '+' : '−'}`,
          symbol,
          switchBox,
        ),
        duty: 'string',
      });
      if (poles !== 'minus') plusPieces.push(contactor('+'));
      if (poles !== 'plus') minusPieces.push(contactor('-'));
      if (switchBox !== meet) {
        const cable = this.cableSymbol(`${id}/out`, `${string.tag} leads`, 'both poles');
        builder.line(symbol, cable, 2, [after(), afterMinus()]);
        plusAt = minusAt = cable;
        plusPieces.push(
          ...this.cable(`${id}/out+`, `positive lead of ${string.tag}`, cable, switchBox, meet),
        );
        minusPieces.push(
          ...this.cable(`${id}/out-`, `negative lead of ${string.tag}`, cable, switchBox, meet),
        );
      }
    } else if (lastBox === firstBox && lastBox !== meet) bothTo(meet, 'out', true);
    else bothTo(meet, 'lead', false);
    if (plusPieces.length === 0)
      plusPieces.push(this.piece(`${id}/lead+`, 'link', `positive lead of ${string.tag}`, plusAt, lastBox));
    if (minusPieces.length === 0)
      minusPieces.push(
        this.piece(`${id}/lead-`, 'link', `negative lead of ${string.tag}`, minusAt, firstBox),
      );
    // The first cable of either pole carries what is described for that end.
    for (const [pieces, joint] of [
      [plusPieces, string.modules.length],
      [minusPieces, 0],
    ] as const) {
      const cable = pieces.find(({ kind }) => kind === 'cable') ?? pieces[0]!;
      const ohm = this.leadOhm(joint);
      if (ohm !== undefined) cable.resistanceOhm = ohm;
    }
    builder.path(last.terminals[0]!, packBus.plus, plusPieces);
    builder.path(first.terminals[0]!, packBus.minus, minusPieces);
    if (plusAt === minusAt) builder.line(plusAt, packBusSymbol, 2, [packBus.plus, packBus.minus]);
    else {
      builder.line(plusAt, packBusSymbol, 1, [packBus.plus]);
      builder.lines.push({
        id: `${minusAt}>${packBusSymbol}/-`,
        from: minusAt,
        to: packBusSymbol,
        poles: 1,
        terminals: [packBus.minus],
      });
    }
  }
}

const plus = (a: number | undefined, b: number | undefined) =>
  a === undefined ? b : b === undefined ? a : a + b;

const shortTag = (tag: string) => tag.replace(/^.*-/, '');
