import type { CircuitItem, DeviceKind, Id } from '../../model/document';
import { resistancePerM } from '../../model/parts';
import { formatNumber, formatQuantity } from '../../ground/quantity';
import type { NetworkSlices } from './feeding';
import { outsideReach, type NetworkBuilder, type Piece } from './network-builder';
import { cablePieces, endsText } from './pieces';

const deviceWords: Record<DeviceKind, string> = {
  inverter: 'inverter',
  charger: 'charger',
  'dc-dc': 'DC-DC',
  heater: 'heater',
  compressor: 'compressor',
  'dc-inlet': 'DC inlet',
  'insulation-monitor': 'insulation monitor',
  other: 'device',
};

/** Where a path has come to, by pole. */
export interface Ends {
  plus: string;
  minus: string;
}

interface From {
  ends: Ends;
  symbol: string;
  box: Id | null;
  /** What lies between `ends` and the cable. */
  pieces: { plus: Piece[]; minus: Piece[] };
}

/** The cable to a device and the device itself. */
export function feed(
  builder: NetworkBuilder,
  design: NetworkSlices,
  id: Id,
  circuit: CircuitItem,
  device: Id,
  from: From,
): void {
  const item = design.devices[device]!;
  const part = design.parts[circuit.cable ?? ''];
  const areaMm2 = part?.kind === 'cable' ? part.data.areaMm2 : null;
  const parallel = circuit.parallel ?? 1;
  const oneWayOhm =
    areaMm2 === null || circuit.lengthM === undefined || circuit.lengthM < 0
      ? undefined
      : (resistancePerM(areaMm2, 20) * circuit.lengthM) / Math.max(parallel, 1);
  const size = [
    areaMm2 === null ? null : `${parallel > 1 ? `${parallel} × ` : ''}${formatNumber(areaMm2)} mm²`,
    circuit.lengthM === undefined ? null : `${formatNumber(circuit.lengthM)} m`,
  ].filter((text) => text !== null);
  const symbol = builder.symbol({
    id: `${id}/cable`,
    kind: 'cable',
    tag: `${circuit.tag} cable`,
    words: endsText(circuit.ends),
    rating: size.join(', '),
    box: null,
    path: `circuits.${id}.cable`,
  });
  const at = (pole: 'plus' | 'minus') => {
    const last = from.pieces[pole].at(-1);
    return last === undefined ? from.ends[pole] : `${last.id}:out`;
  };
  builder.line(from.symbol, symbol, 2, [at('plus'), at('minus')]);
  const load = builder.symbol({
    id: device,
    kind: 'load',
    tag: item.tag,
    words: deviceWords[item.kind],
    rating: item.busCapacitanceF === undefined ? '' : formatQuantity(item.busCapacitanceF, 'F'),
    box: null,
    path: `devices.${device}.tag`,
  });
  builder.line(symbol, load, 2, [`${device}:+`, `${device}:-`]);
  const cable = (pole: '+' | '-') =>
    cablePieces(
      {
        id: `${id}/cable${pole}`,
        tag: `${circuit.tag} cable ${pole === '+' ? '+' : '−'}`,
        symbol,
        owner: id,
        ends: circuit.ends,
      },
      from.box,
      null,
      Number.isFinite(oneWayOhm) ? oneWayOhm : undefined,
    );
  builder.path(from.ends.plus, `${device}:+`, [...from.pieces.plus, ...cable('+')]);
  builder.path(from.ends.minus, `${device}:-`, [...from.pieces.minus, ...cable('-')]);
  const common = { symbol: load, reach: outsideReach, owner: device };
  builder.element(
    { ...common, id: device, kind: 'load', tag: item.tag, capacitanceF: item.busCapacitanceF },
    `${device}:-`,
    `${device}:+`,
  );
  if (item.bleedOhm !== undefined && item.bleedOhm > 0)
    builder.element(
      {
        ...common,
        id: `${device}/bleed`,
        kind: 'resistor',
        tag: `bleed of ${item.tag}`,
        resistanceOhm: item.bleedOhm,
      },
      `${device}:-`,
      `${device}:+`,
    );
}
