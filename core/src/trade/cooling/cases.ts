import { figureId, type Gap } from '../../ground/figure';
import {
  coolingDefaults,
  plumbingDefaults,
  type Design,
  type Id,
  type PlumbingItem,
} from '../../model/document';
import type { Part } from '../../model/parts';
import { gapsBehind, type Reader } from '../../model/step';
import type { Piece } from './pieces';
import type { Exchanger } from './temperatures';

/** The worst that is asked of cooling: a long hill on the hottest day, a fast charge, a charge at home. */
export const coolingCases = ['hill', 'fast', 'home'] as const;
export type CoolingCase = (typeof coolingCases)[number];

export const caseNames: Record<CoolingCase, string> = {
  hill: 'hill on the hottest day',
  fast: 'fast charge on the hottest day',
  home: 'charge at home on the hottest day',
};

/** What a case asks, W; null with its gaps: not known. */
export interface Demand {
  packHeatW: number | null;
  /** Through inverter and motor, or through the chargers. */
  powerW: number | null;
  gaps: Gap[];
}

/** Supplies that a case can be taken from, where its power is not typed. */
const suppliesOf = (read: Reader, at: 'fast' | 'home'): Id[] => {
  const supplies = read.at('supplies') ?? {};
  return Object.keys(supplies).filter((id) => (supplies[id]!.kind === 'station') === (at === 'fast'));
};

/** The power of a charge: typed for cooling, else of the supply of Charge that gives the most. */
export interface ChargePower {
  /** Typed. */
  typedW: number | null;
  /** The supply it follows. */
  supply: Id | null;
  gaps: Gap[];
}

export function chargePower(read: Reader, at: 'fast' | 'home'): ChargePower {
  const typedW = read.at('cooling')?.[at === 'fast' ? 'fastChargeW' : 'chargeW'];
  if (typedW !== undefined) return { typedW, supply: null, gaps: [] };
  let best: { id: Id; heatW: number } | null = null;
  const gaps: Gap[] = [];
  for (const id of suppliesOf(read, at)) {
    const heat = read.figure(
      at === 'fast' ? figureId('charge.station', id, 'heatW') : figureId('charge.supply', id, 'heatW'),
    );
    if (heat.value === null) gaps.push(...gapsBehind(heat));
    else if (best === null || heat.value > best.heatW) best = { id, heatW: heat.value };
  }
  return { typedW: null, supply: best?.id ?? null, gaps: best === null ? gaps : [] };
}

export const readsCase = (read: Reader, at: CoolingCase): boolean => {
  if (at === 'hill') return true;
  const typed = read.at('cooling')?.[at === 'fast' ? 'fastChargeW' : 'chargeW'];
  return typed !== undefined || suppliesOf(read, at).length > 0;
};

/** What a case asks of the loops, from the figures of hill and charge. */
export function demandOf(read: Reader, at: CoolingCase): Demand {
  const heat = read.figure(
    at === 'hill'
      ? figureId('cooling.hill', 'vehicle', 'packHeatW')
      : figureId('cooling.charge', at, 'packHeatW'),
  );
  const power = at === 'hill' ? read.figure(figureId('cooling.hill', 'vehicle', 'powerW')) : null;
  const charge = at === 'hill' ? null : chargePower(read, at);
  const fed =
    charge === null || charge.supply === null
      ? null
      : read.figure(
          at === 'fast'
            ? figureId('charge.station', charge.supply, 'maxPowerKW')
            : figureId('charge.supply', charge.supply, 'outputW'),
        ).value;
  // By volts and amperes alone it would be more than the station has.
  const stationW = read.at('supplies')?.[charge?.supply ?? '']?.maxW ?? Infinity;
  return {
    packHeatW: heat.value,
    powerW:
      power !== null
        ? power.value
        : (charge!.typedW ?? (fed === null ? null : at === 'fast' ? Math.min(fed * 1000, stationW) : fed)),
    gaps: [
      ...(heat.value === null ? gapsBehind(heat) : []),
      ...(power?.value === null ? gapsBehind(power) : []),
    ],
  };
}

/** Whether a pump or fan that is switched so runs in a case. */
export const runsIn = (switched: PlumbingItem['switched'], at: CoolingCase): boolean =>
  switched !== 'driving' || at === 'hill';

type Slices = Pick<Design, 'devices' | 'parts'>;

/** When a jacket’s device is busy: as said, else by what it cools. */
const busyOf = ({ busy, device }: PlumbingItem, { devices }: Slices) => {
  if (busy !== undefined) return busy;
  const kind = devices[device ?? '']?.kind;
  return kind === 'charger' || kind === 'dc-inlet' ? 'charging' : kind === 'dc-dc' ? 'both' : 'driving';
};

/** Resistance from the modules on a plate to the mean of its coolant, K/W; null: not known. */
export function contactKPerW(item: PlumbingItem, part: Part | undefined): number | null {
  if (part?.kind !== 'plate') return null;
  const { contactM2, uaWPerK } = part.data;
  const fillerMm = item.fillerMm ?? plumbingDefaults.fillerMm;
  const conductivity = item.fillerWPerMK ?? plumbingDefaults.fillerWPerMK;
  if (!(contactM2 > 0 && uaWPerK > 0 && fillerMm >= 0 && conductivity > 0)) return null;
  return fillerMm / 1000 / (conductivity * contactM2) + 1 / uaWPerK;
}

/** Share of the pack’s heat that each plate takes, over all loops: a module on two plates gives half to each. */
export function plateShares(plumbing: Design['plumbing'], modules: Design['modules']): Map<Id, number> {
  const all = Object.keys(modules).length;
  const plates = Object.entries(plumbing ?? {}).filter(([, { kind }]) => kind === 'plate');
  const under = new Map<Id, number>();
  for (const [, item] of plates)
    for (const module of item.modules ?? []) under.set(module, (under.get(module) ?? 0) + 1);
  return new Map(
    plates.map(([id, item]) => [
      id,
      all === 0 ? 0 : (item.modules ?? []).reduce((sum, module) => sum + 1 / under.get(module)!, 0) / all,
    ]),
  );
}

/** Air through radiators of other flow than their sheet’s: UA goes with this power of it. */
const airPower = 0.6;

/** What each piece of a loop does to its coolant in a case, with what is missing to say so. */
export function doingIn(
  at: CoolingCase,
  pieces: readonly Piece[],
  demand: Demand,
  shares: ReadonlyMap<Id, number>,
  slices: Slices & Pick<Design, 'cooling' | 'vehicle'>,
): { doing: Map<string, Exchanger>; gaps: Gap[] } {
  const gaps: Gap[] = [];
  const doing = new Map<string, Exchanger>();
  const airC = slices.cooling?.hotC ?? coolingDefaults.hotC;
  for (const { id, item } of pieces) {
    const path = (field: string) => `plumbing.${id}.${field}`;
    const need = (field: string, label: string) =>
      gaps.push({ kind: 'not-given', path: path(field), label: `${label} of ${item.tag}` });
    const wrong = (
      field: 'heatW' | 'lossFraction' | 'airKgPerS' | 'uaWPerK',
      label: string,
      most = Infinity,
    ) => {
      const value = item[field];
      if (value === undefined || (value >= 0 && value <= most)) return false;
      const message = most === 1 ? 'must lie between 0 and 100 %' : 'must be 0 or more';
      gaps.push({ kind: 'invalid', path: path(field), label: `${label} of ${item.tag}`, message });
      return true;
    };
    if (item.kind === 'plate') {
      const share = shares.get(id) ?? 0;
      if (share > 0 && demand.packHeatW === null) gaps.push(...demand.gaps);
      else doing.set(id, { heatW: share * (demand.packHeatW ?? 0) });
    } else if (item.kind === 'jacket') {
      const device = slices.devices[item.device ?? ''];
      const busy = busyOf(item, slices);
      const isBusy =
        at === 'hill'
          ? busy !== 'charging'
          : busy !== 'driving' && !(at === 'fast' && device?.kind === 'charger');
      if (!isBusy) continue;
      if (wrong('heatW', 'heat') || wrong('lossFraction', 'heat', 1)) continue;
      if (item.heatW !== undefined) doing.set(id, { heatW: item.heatW });
      else if (item.lossFraction === undefined) need('lossFraction', 'heat');
      else {
        const powerW = device?.kind === 'dc-dc' ? (slices.vehicle.accessoriesW ?? null) : demand.powerW;
        if (powerW !== null) doing.set(id, { heatW: item.lossFraction * powerW });
        else if (device?.kind === 'dc-dc')
          gaps.push({ kind: 'not-given', path: 'vehicle.accessoriesW', label: 'accessory power' });
        else gaps.push(...demand.gaps);
      }
    } else if (item.kind === 'radiator') {
      if (wrong('airKgPerS', 'air') || wrong('uaWPerK', 'heat exchanged')) continue;
      const part = slices.parts[item.radiator ?? ''];
      const fan = slices.parts[item.fan ?? ''];
      // Without a fan there is air through it only while the vehicle drives.
      const blown = at === 'hill' || item.fan !== undefined || item.switched !== undefined;
      const airKgPerS =
        blown && runsIn(item.switched, at)
          ? (item.airKgPerS ?? (fan?.kind === 'fan' ? fan.data.airKgPerS : undefined))
          : 0;
      const own = part?.kind === 'radiator' ? part.data : null;
      if (airKgPerS === undefined) need('airKgPerS', 'air');
      else if (item.uaWPerK !== undefined)
        doing.set(id, { radiator: { uaWPerK: item.uaWPerK, airKgPerS, airC } });
      else if (own === null || !(own.uaAirKgPerS > 0 && own.uaWPerK >= 0)) need('radiator', 'kind');
      else
        doing.set(id, {
          radiator: { uaWPerK: own.uaWPerK * (airKgPerS / own.uaAirKgPerS) ** airPower, airKgPerS, airC },
        });
    }
  }
  return { doing, gaps };
}
