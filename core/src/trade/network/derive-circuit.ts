import { mainCircuit, type CircuitItem, type Id } from '../../model/document';
import { formatQuantity } from '../../ground/quantity';
import { leadsOf, oneLeadOhm } from '../pack';
import { feed, type Ends } from './derive-feed';
import { mainDevice, switches, type NetworkSlices, type Places } from './feeding';
import { packBus, packBusSymbol } from './pack-bus';
import { cablePieces, endsText } from './pieces';
import { type ContactorDuty, type NetworkBuilder, type Piece } from './network-builder';
import { contactorRating, fuseRating, polesText, reachOf } from './ratings';

/** A fuse in the positive pole needs no word. */
const fuseWords = (pole: CircuitItem['fusePole'] = 'plus') =>
  pole === 'plus' ? 'fuse' : pole === 'minus' ? 'fuse, −' : 'fuses, + and −';

/** Terminals of the bus behind the mains. */
export const hvBus = { plus: 'bus:+', minus: 'bus:-' };
export const hvBusSymbol = 'hv-bus';

/** The mains, the bus behind them, and every circuit with its device. */
export function deriveCircuits(builder: NetworkBuilder, design: NetworkSlices, places: Places): void {
  const main = design.circuits[mainCircuit];
  const packSide = toMains(builder, design, places);
  const before = mains(builder, design, places, packSide);
  const device = mainDevice(design);
  if (main !== undefined && device !== null)
    feed(builder, design, mainCircuit, main, device, {
      ends: hvBus,
      symbol: hvBusSymbol,
      box: places.mainsBox,
      pieces: { plus: [], minus: [] },
    });
  for (const [id, circuit] of Object.entries(design.circuits)) {
    if (circuit.role !== 'branch' || circuit.device === undefined || circuit.device === device) continue;
    branch(builder, design, places, id, circuit, circuit.device, before);
  }
}

interface Tap {
  ends: Ends;
  symbol: string;
}

/** From where the strings meet to the box of the mains, when that is another. */
function toMains(builder: NetworkBuilder, design: NetworkSlices, { combinerBox, mainsBox }: Places): Tap {
  if (combinerBox === mainsBox) return { ends: packBus, symbol: packBusSymbol };
  const ends = design.circuits[mainCircuit]?.ends;
  const symbol = builder.symbol({
    id: 'pack-leads',
    kind: 'cable',
    tag: 'Pack leads',
    words: endsText(ends),
    rating: 'both poles',
    box: null,
    path: 'pack.mainsBox',
  });
  builder.line(packBusSymbol, symbol, 2, [packBus.plus, packBus.minus]);
  const ohms = leadsOf(design.pack.leads, null).flatMap(([, lead]) => oneLeadOhm(lead, design.parts) ?? []);
  const packOhm = ohms.length === 0 ? undefined : ohms.reduce((sum, ohm) => sum + ohm, 0);
  const pole = (name: '+' | '-') =>
    cablePieces(
      {
        id: `pack-leads${name}`,
        tag: `pack lead ${name === '+' ? '+' : '−'}`,
        symbol,
        owner: mainCircuit,
        ends,
      },
      combinerBox,
      mainsBox,
      packOhm,
    );
  const inner = { plus: 'mains-in:+', minus: 'mains-in:-' };
  builder.path(packBus.plus, inner.plus, pole('+'));
  builder.path(packBus.minus, inner.minus, pole('-'));
  return { ends: inner, symbol };
}

/** Main fuse, main contactors with their pre-charge, and the bus. Returns where a branch before the mains taps. */
function mains(builder: NetworkBuilder, design: NetworkSlices, { mainsBox }: Places, tap: Tap): Tap {
  const main = design.circuits[mainCircuit];
  const poles = main?.poles ?? 'both';
  const box = mainsBox;
  const piece = (id: string, kind: Piece['kind'], tag: string, symbol: string): Piece => ({
    id: `${mainCircuit}/${id}`,
    kind,
    tag,
    symbol,
    reach: reachOf(box),
    owner: mainCircuit,
  });
  let at = tap.symbol;
  let inner = tap.ends;
  if (main?.fuse !== undefined) {
    const symbol = builder.symbol({
      id: `${mainCircuit}/fuse`,
      kind: 'fuse',
      tag: 'Main fuse',
      words: fuseWords(main.fusePole),
      rating: fuseRating(design, main.fuse),
      box,
      path: `circuits.${mainCircuit}.fuse`,
    });
    const pole = main.fusePole ?? 'plus';
    if (pole !== 'minus') {
      inner = { ...inner, plus: `${mainCircuit}/fuse:out` };
      builder.path(tap.ends.plus, inner.plus, [piece('fuse', 'fuse', 'main fuse', symbol)]);
    }
    if (pole !== 'plus') {
      const id = pole === 'minus' ? 'fuse' : 'fuse-';
      inner = { ...inner, minus: `${mainCircuit}/${id}:out` };
      builder.path(tap.ends.minus, inner.minus, [piece(id, 'fuse', 'main fuse −', symbol)]);
    }
    builder.line(at, symbol, 2, [tap.ends.plus, tap.ends.minus]);
    at = symbol;
  }
  builder.symbol({
    id: hvBusSymbol,
    kind: 'bus',
    tag: 'HV bus',
    words: poles === 'none' ? 'no mains' : 'behind the mains',
    rating: '',
    box,
    terminals: [hvBus.plus, hvBus.minus],
    path: 'pack.mainsBox',
  });
  const through = (symbol: string) => {
    builder.line(at, symbol, 2, [inner.plus, inner.minus]);
    builder.line(symbol, hvBusSymbol, 2, [hvBus.plus, hvBus.minus]);
  };
  if (poles === 'none') {
    builder.line(at, hvBusSymbol, 2, [hvBus.plus, hvBus.minus]);
    builder.path(inner.plus, hvBus.plus, [piece('lead+', 'link', 'bus lead +', hvBusSymbol)]);
    builder.path(inner.minus, hvBus.minus, [piece('lead-', 'link', 'bus lead −', hvBusSymbol)]);
    return tap;
  }
  const symbol = builder.symbol({
    id: `${mainCircuit}/contactor`,
    kind: 'contactor',
    tag: 'Mains',
    words: `contactor, ${polesText(poles)}`,
    rating: contactorRating(design, main?.contactor),
    box,
    path: `circuits.${mainCircuit}.contactor`,
  });
  const contactor = (pole: '+' | '-'): Piece => ({
    ...piece(`contactor${pole}`, 'contactor', `main contactor ${pole === '+' ? '+' : '−'}`, symbol),
    duty: 'main',
    resistanceOhm: main?.contactOhm === undefined ? undefined : main.contactOhm / (poles === 'both' ? 2 : 1),
  });
  const plain = (pole: '+' | '-') =>
    piece(`lead${pole}`, 'link', `bus lead ${pole === '+' ? '+' : '−'}`, hvBusSymbol);
  builder.path(inner.plus, hvBus.plus, [poles === 'minus' ? plain('+') : contactor('+')]);
  builder.path(inner.minus, hvBus.minus, [poles === 'plus' ? plain('-') : contactor('-')]);
  through(symbol);
  if (main?.resistor !== undefined) {
    const from = poles === 'minus' ? inner.minus : inner.plus;
    const to = poles === 'minus' ? hvBus.minus : hvBus.plus;
    through(precharge(builder, design, mainCircuit, main, box, from, to));
  }
  return tap;
}

/** A resistor with its contactor around a main contactor. */
function precharge(
  builder: NetworkBuilder,
  design: NetworkSlices,
  id: Id,
  circuit: CircuitItem,
  box: Id | null,
  from: string,
  to: string,
): string {
  const part = design.parts[circuit.resistor ?? ''];
  const ohm = part?.kind === 'resistor' ? part.data.resistanceOhm : undefined;
  const name = id === mainCircuit ? 'Pre-charge' : `${circuit.tag} pre-charge`;
  const symbol = builder.symbol({
    id: `${id}/precharge`,
    kind: 'precharge',
    tag: name,
    words: 'contactor, resistor',
    rating: ohm === undefined ? '' : formatQuantity(ohm, 'Ω'),
    box,
    path: `circuits.${id}.resistor`,
  });
  const common = { symbol, reach: reachOf(box), owner: id };
  builder.path(from, to, [
    { ...common, id: `${id}/precharge`, kind: 'contactor', tag: 'pre-charge contactor', duty: 'precharge' },
    {
      ...common,
      id: `${id}/resistor`,
      kind: 'resistor',
      tag: 'pre-charge resistor',
      resistanceOhm: ohm ?? 0,
    },
  ]);
  return symbol;
}

function branch(
  builder: NetworkBuilder,
  design: NetworkSlices,
  places: Places,
  id: Id,
  circuit: CircuitItem,
  device: Id,
  before: Tap,
): void {
  const box = circuit.box ?? places.mainsBox;
  const tap = circuit.tap === 'before' ? before : { ends: hvBus, symbol: hvBusSymbol };
  const kind = design.devices[device]?.kind;
  const plus: Piece[] = [];
  const minus: Piece[] = [];
  let at = tap.symbol;
  const ends = () => [
    plus.length === 0 ? tap.ends.plus : `${plus.at(-1)!.id}:out`,
    minus.length === 0 ? tap.ends.minus : `${minus.at(-1)!.id}:out`,
  ];
  const go = (symbol: string) => {
    builder.line(at, symbol, 2, ends());
    at = symbol;
  };
  if (box !== places.mainsBox) {
    const symbol = builder.symbol({
      id: `${id}/supply`,
      kind: 'cable',
      tag: `${circuit.tag} supply`,
      words: endsText(circuit.ends),
      rating: 'both poles',
      box: null,
      path: `circuits.${id}.box`,
    });
    go(symbol);
    const of = { symbol, owner: id, ends: circuit.ends };
    plus.push(
      ...cablePieces({ ...of, id: `${id}/supply+`, tag: `${circuit.tag} supply +` }, places.mainsBox, box),
    );
    minus.push(
      ...cablePieces({ ...of, id: `${id}/supply-`, tag: `${circuit.tag} supply −` }, places.mainsBox, box),
    );
  }
  if (circuit.fuse !== undefined) {
    const symbol = builder.symbol({
      id: `${id}/fuse`,
      kind: 'fuse',
      tag: `${circuit.tag} fuse`,
      words: fuseWords(circuit.fusePole),
      rating: fuseRating(design, circuit.fuse),
      box,
      path: `circuits.${id}.fuse`,
    });
    go(symbol);
    const pole = circuit.fusePole ?? 'plus';
    const fuse = (name: string, of: string): Piece => ({
      id: `${id}/${name}`,
      kind: 'fuse',
      tag: `${of} of ${circuit.tag}`,
      symbol,
      reach: reachOf(box),
      owner: id,
    });
    if (pole !== 'minus') plus.push(fuse('fuse', 'fuse'));
    if (pole !== 'plus') minus.push(fuse(pole === 'minus' ? 'fuse' : 'fuse-', 'fuse −'));
  }
  if (switches(circuit)) {
    const poles = circuit.poles ?? 'both';
    const duty: ContactorDuty = kind === 'dc-inlet' ? 'inlet' : 'branch';
    const symbol = builder.symbol({
      id: `${id}/contactor`,
      kind: 'contactor',
      tag: `${circuit.tag} contactors`,
      words: `contactor, ${polesText(poles)}`,
      rating: contactorRating(design, circuit.contactor),
      box,
      path: `circuits.${id}.contactor`,
    });
    const [from] = ends();
    const source = at;
    go(symbol);
    const contactor = (pole: '+' | '-'): Piece => ({
      id: `${id}/contactor${pole}`,
      kind: 'contactor',
      tag: `${circuit.tag} contactor ${pole === '+' ? '+' : '−'}`,
      symbol,
      reach: reachOf(box),
      owner: id,
      duty,
    });
    if (poles !== 'minus') plus.push(contactor('+'));
    if (poles !== 'plus') minus.push(contactor('-'));
    if (circuit.resistor !== undefined && poles !== 'minus') {
      const around = precharge(builder, design, id, circuit, box, from!, `${id}/contactor+:out`);
      builder.line(source, around, 2, [from!]);
      builder.line(around, `${id}/cable`, 2, [`${id}/contactor+:out`]);
    }
  }
  feed(builder, design, id, circuit, device, { ends: tap.ends, symbol: at, box, pieces: { plus, minus } });
}
