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
import { airPower, coreBandWPerK } from './core-band';
import { airJPerKgK } from './exchanger';
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

/** Under how many plates each module that lies on any stands. */
export function platesUnder(plumbing: Design['plumbing']): Map<Id, number> {
  const under = new Map<Id, number>();
  for (const { kind, modules = [] } of Object.values(plumbing ?? {}))
    if (kind === 'plate') for (const module of modules) under.set(module, (under.get(module) ?? 0) + 1);
  return under;
}

/** Share of the pack’s heat that each plate takes, over all loops: a module on two plates gives half to each. */
export function plateShares(plumbing: Design['plumbing'], modules: Design['modules']): Map<Id, number> {
  const all = Object.keys(modules).length;
  const plates = Object.entries(plumbing ?? {}).filter(([, { kind }]) => kind === 'plate');
  const under = platesUnder(plumbing);
  return new Map(
    plates.map(([id, item]) => [
      id,
      all === 0 ? 0 : (item.modules ?? []).reduce((sum, module) => sum + 1 / under.get(module)!, 0) / all,
    ]),
  );
}

/** Of a radiator without a sheet only a band is known: what it is judged by is the lower end. */
export type BandEnd = 'least' | 'most';

type DoingSlices = Slices & Pick<Design, 'cooling' | 'vehicle' | 'plumbing'>;

/** What pieces of loops do to their coolant in a case, with what is missing to say so. */
class Doing {
  readonly gaps: Gap[] = [];
  private readonly airC: number;

  constructor(
    private readonly at: CoolingCase,
    private readonly demand: Demand,
    private readonly shares: ReadonlyMap<Id, number>,
    private readonly slices: DoingSlices,
    private readonly end: BandEnd,
  ) {
    this.airC = slices.cooling?.hotC ?? coolingDefaults.hotC;
  }

  private need(id: Id, { tag }: PlumbingItem, field: string, label: string): null {
    this.gaps.push({ kind: 'not-given', path: `plumbing.${id}.${field}`, label: `${label} of ${tag}` });
    return null;
  }

  private isWrong(
    id: Id,
    item: PlumbingItem,
    field:
      'heatW' | 'lossFraction' | 'airKgPerS' | 'uaWPerK' | 'coreWidthMm' | 'coreHeightMm' | 'coreDepthMm',
    label: string,
    most = Infinity,
  ): boolean {
    const value = item[field];
    if (value === undefined || (value >= 0 && value <= most)) return false;
    const message = most === 1 ? 'must lie between 0 and 100 %' : 'must be 0 or more';
    this.gaps.push({
      kind: 'invalid',
      path: `plumbing.${id}.${field}`,
      label: `${label} of ${item.tag}`,
      message,
    });
    return true;
  }

  /** Heat into the coolant, W; null: none now, or not known. */
  heatOf(id: Id, item: PlumbingItem): number | null {
    const { at, demand, shares, slices } = this;
    if (item.kind === 'plate') {
      const share = shares.get(id) ?? 0;
      if (share > 0 && demand.packHeatW === null) {
        this.gaps.push(...demand.gaps);
        return null;
      }
      return share * (demand.packHeatW ?? 0);
    }
    if (item.kind !== 'jacket') return null;
    const device = slices.devices[item.device ?? ''];
    const busy = busyOf(item, slices);
    const isBusy =
      at === 'hill'
        ? busy !== 'charging'
        : busy !== 'driving' && !(at === 'fast' && device?.kind === 'charger');
    if (!isBusy) return null;
    if (this.isWrong(id, item, 'heatW', 'heat') || this.isWrong(id, item, 'lossFraction', 'heat', 1))
      return null;
    if (item.heatW !== undefined) return item.heatW;
    if (item.lossFraction === undefined) return this.need(id, item, 'lossFraction', 'heat');
    const powerW = device?.kind === 'dc-dc' ? (slices.vehicle.accessoriesW ?? null) : demand.powerW;
    if (powerW !== null) return item.lossFraction * powerW;
    if (device?.kind === 'dc-dc')
      this.gaps.push({ kind: 'not-given', path: 'vehicle.accessoriesW', label: 'accessory power' });
    else this.gaps.push(...demand.gaps);
    return null;
  }

  /** The cores that stand before a radiator, the nearest first; null: what is said of them cannot be. */
  private frontsOf(id: Id, item: PlumbingItem): PlumbingItem[] | null {
    const seen = new Set([id]);
    const fronts: PlumbingItem[] = [];
    for (let front = item.behind; front !== undefined; front = fronts.at(-1)!.behind) {
      const one = this.slices.plumbing?.[front];
      const message =
        one?.kind !== 'radiator'
          ? 'must be a radiator'
          : seen.has(front)
            ? 'must not stand behind it itself'
            : one.loop === item.loop
              ? 'must be of another loop: cores of one loop are given as one'
              : null;
      if (message !== null) {
        this.gaps.push({
          kind: 'invalid',
          path: `plumbing.${id}.behind`,
          label: `what ${item.tag} stands behind`,
          message,
        });
        return null;
      }
      seen.add(front);
      fronts.push(one!);
    }
    return fronts;
  }

  /** Air through a radiator, kg/s, that has its own or that of the core before it; undefined: nobody said. */
  private airThrough(item: PlumbingItem, fronts: readonly PlumbingItem[]): number | undefined {
    const [front, ...others] = fronts;
    if (item.airKgPerS === undefined && item.fan === undefined && front !== undefined)
      return this.airThrough(front, others);
    const fan = this.slices.parts[item.fan ?? ''];
    // Without a fan there is air through it only while the vehicle drives.
    const blown = this.at === 'hill' || item.fan !== undefined || item.switched !== undefined;
    if (!blown || !runsIn(item.switched, this.at)) return 0;
    return item.airKgPerS ?? (fan?.kind === 'fan' ? fan.data.airKgPerS : undefined);
  }

  /** By how much the cores before it have warmed the air, K; all that the loop of each takes up goes into that air, once. */
  private warmedK(fronts: readonly PlumbingItem[], airKgPerS: number): number {
    if (fronts.length === 0 || !(airKgPerS > 0)) return 0;
    const loops = new Set(fronts.map(({ loop }) => loop));
    const heatW = Object.entries(this.slices.plumbing ?? {}).reduce(
      (sum, [id, piece]) => (loops.has(piece.loop) ? sum + (this.heatOf(id, piece) ?? 0) : sum),
      0,
    );
    return heatW / (airKgPerS * airJPerKgK);
  }

  radiatorOf(id: Id, item: PlumbingItem): NonNullable<Exchanger['radiator']> | null {
    const { slices, end } = this;
    const wrong = (['airKgPerS', 'uaWPerK', 'coreWidthMm', 'coreHeightMm', 'coreDepthMm'] as const).filter(
      (field) =>
        this.isWrong(
          id,
          item,
          field,
          field === 'airKgPerS' ? 'air' : field === 'uaWPerK' ? 'heat exchanged' : 'core',
        ),
    );
    if (wrong.length > 0) return null;
    const fronts = this.frontsOf(id, item);
    if (fronts === null) return null;
    const airKgPerS = this.airThrough(item, fronts);
    if (airKgPerS === undefined) return this.need(id, item, 'airKgPerS', 'air');
    const part = slices.parts[item.radiator ?? ''];
    const own = part?.kind === 'radiator' ? part.data : null;
    const band = coreBandWPerK(item, airKgPerS);
    const uaWPerK =
      item.uaWPerK !== undefined
        ? item.uaWPerK
        : own !== null && own.uaAirKgPerS > 0 && own.uaWPerK >= 0
          ? own.uaWPerK * (airKgPerS / own.uaAirKgPerS) ** airPower
          : band !== null
            ? band[end === 'least' ? 0 : 1]
            : null;
    if (uaWPerK === null) return this.need(id, item, 'radiator', 'kind');
    return { uaWPerK, airKgPerS, airC: this.airC + this.warmedK(fronts, airKgPerS) };
  }
}

/**
 * What each piece of a loop does to its coolant in a case, with what is missing to say so.
 *
 * @param end which end of its band a radiator without a sheet is taken at
 */
export function doingIn(
  at: CoolingCase,
  pieces: readonly Piece[],
  demand: Demand,
  shares: ReadonlyMap<Id, number>,
  slices: DoingSlices,
  end: BandEnd = 'least',
): { doing: Map<string, Exchanger>; gaps: Gap[] } {
  const all = new Doing(at, demand, shares, slices, end);
  const doing = new Map<string, Exchanger>();
  for (const { id, item } of pieces) {
    if (item.kind === 'radiator') {
      const radiator = all.radiatorOf(id, item);
      if (radiator !== null) doing.set(id, { radiator });
      continue;
    }
    const heatW = all.heatOf(id, item);
    if (heatW !== null) doing.set(id, { heatW });
  }
  return { doing, gaps: all.gaps };
}
