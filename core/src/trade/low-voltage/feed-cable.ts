import type { Figure } from '../../ground/figure';
import { catalogueOf, type CableData } from '../../model/parts';
import { cable } from '../conductor';
import { wireAmpacityA, wireDropV, wireTable, type Wire12vInput } from './wire-12v';

/** What a feed is judged by as a cable. */
export type FeedAsked = Pick<
  Wire12vInput,
  'currentA' | 'lengthM' | 'returnLengthM' | 'systemV' | 'maxDropFraction' | 'ambientC'
>;

export interface FeedCable {
  label: string;
  areaMm2: number;
  carriesA: number;
  dropV: number;
  fits: boolean;
}

/** Largest wire of the table of the low voltage; feeds beyond it are computed as cables are. */
export const largestWireMm2 = wireTable.at(-1)![0];

/** Fuses that are bolted on, A: beyond the series that is plugged. */
export const boltedFusesA = [150, 175, 200, 225, 250, 300, 350, 400, 500] as const;

/**
 * A cable as the feed of a load: in free air, feed and return side by side, by the heat balance of a high-voltage cable.
 *
 * @returns null where its data cannot be
 */
export function feedAsCable(label: string, data: CableData, feed: FeedAsked): FeedCable | null {
  const { massKgPerM: _mass, ...own } = data;
  const parsed = cable.parse({
    ...own,
    ambientC: feed.ambientC,
    lengthM: (feed.lengthM + feed.returnLengthM) / 2,
    currentA: feed.currentA,
    install: 'free-air',
    grouped: 2,
    busVoltageV: feed.systemV,
  });
  if (!parsed.ok) return null;
  const { ampacityA, voltageDropV } = cable.calculate(parsed.input).result;
  // Without a balance it is far too thin; its drop is that of 60 °C, and says too little.
  const dropV = voltageDropV ?? wireDropV(data.areaMm2, feed.currentA, feed.lengthM + feed.returnLengthM);
  return {
    label,
    areaMm2: data.areaMm2,
    carriesA: ampacityA,
    dropV,
    fits:
      ampacityA >= feed.currentA * (1 - 1e-9) && dropV <= feed.maxDropFraction * feed.systemV * (1 + 1e-9),
  };
}

/**
 * What a conductor of the low voltage carries whose area alone is known, A: by the table, beyond it as the cable of that area, or the next
 * thinner one, with this insulation.
 */
export function carriesByAreaA(areaMm2: number, ambientC: number, conductorMaxC: number): number {
  const byTable = wireAmpacityA(areaMm2, ambientC, conductorMaxC);
  const thick = catalogueOf('cable')
    .filter(({ data }) => data.areaMm2 > largestWireMm2 && data.areaMm2 <= areaMm2 * (1 + 1e-9))
    .sort((a, b) => b.data.areaMm2 - a.data.areaMm2 || a.data.outerDiameterMm - b.data.outerDiameterMm)[0];
  if (thick === undefined) return byTable;
  const asked = { currentA: 0, lengthM: 1, returnLengthM: 1, systemV: 12, maxDropFraction: 1, ambientC };
  return feedAsCable(thick.label, { ...thick.data, conductorMaxC }, asked)?.carriesA ?? byTable;
}

/** The thinnest cable beyond the table of wires that holds; null: none does. */
export function thinnestFeedCable(feed: FeedAsked): FeedCable | null {
  return (
    catalogueOf('cable')
      .filter(({ data }) => data.areaMm2 > largestWireMm2)
      .sort((a, b) => a.data.areaMm2 - b.data.areaMm2)
      .flatMap(({ label, data }) => feedAsCable(label, data, feed) ?? [])
      .find(({ fits }) => fits) ?? null
  );
}

/** The area that a feed needs where no wire of the table does: that of a cable. */
export const areaAsCable = (
  none: Figure,
  { label, areaMm2, carriesA, dropV }: FeedCable,
  amps: number,
): Figure => ({
  ...none,
  value: areaMm2,
  gaps: [],
  working: [
    {
      symbol: 'A',
      label: none.label,
      formula: 'I ≤ I_z, ΔU ≤ ΔU_max',
      inputs: [
        { symbol: 'I', value: amps, unit: 'A' },
        { symbol: 'I_z', label: `carried by ${label}`, value: carriesA, unit: 'A' },
        { symbol: 'ΔU', value: dropV, unit: 'V' },
      ],
      value: areaMm2,
      unit: 'mm²',
      source:
        'Beyond the table of wires: thinnest cable of the catalogue by its heat balance, two side by side',
    },
  ],
});
