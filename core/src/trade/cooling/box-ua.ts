import { defineCalculator } from '../../ground/calculator';
import { list, number, record } from '../../ground/shape';

export interface BoxUaInput {
  areaM2: number;
  /** From inside to outside. */
  layers: { thicknessM: number; conductivityWPerMK: number }[];
  insideWPerM2K: number;
  outsideWPerM2K: number;
  /** Of the area what has no layers, only the films; beyond the contract, absent: none. */
  bareM2?: number;
  /** What bolts, feet and ports pass beside the walls; beyond the contract, absent: nothing. */
  bridgeWPerK?: number;
}

export interface BoxUaResult {
  uaWPerK: number;
  uValueWPerM2K: number;
}

export const airFilms = { insideWPerM2K: 5, outsideWPerM2K: 15 };

/** U of a wall of layers between two air films, W/m²K. */
export const uValueOf = ({
  layers,
  insideWPerM2K,
  outsideWPerM2K,
}: Omit<BoxUaInput, 'areaM2' | 'bareM2' | 'bridgeWPerK'>): number =>
  1 /
  (1 / insideWPerM2K +
    layers.reduce((sum, { thicknessM, conductivityWPerMK }) => sum + thicknessM / conductivityWPerMK, 0) +
    1 / outsideWPerM2K);

/**
 * What a box loses per kelvin, by its walls.
 *
 * Source: resistances of layers in series between two air films.
 */
export const boxUa = defineCalculator<BoxUaInput, BoxUaResult>({
  name: 'box-ua',
  version: 1,
  title: 'Heat through the walls of a box',
  door: {
    schema: record({
      areaM2: number({ above: 0 }),
      layers: list(record({ thicknessM: number({ min: 0 }), conductivityWPerMK: number({ above: 0 }) }), {
        maxRows: 50,
      }),
      insideWPerM2K: number.optional({ above: 0 }),
      outsideWPerM2K: number.optional({ above: 0 }),
      bareM2: number.optional({ min: 0 }),
      bridgeWPerK: number.optional({ min: 0 }),
    }),
    defaults: airFilms,
    cross({ areaM2, bareM2 = 0 }: BoxUaInput, issue) {
      if (bareM2 > areaM2) issue('bareM2', 'is more than the box has outside');
    },
  },
  compute(input, { sheet }) {
    const layers = input.layers.reduce(
      (sum, { thicknessM, conductivityWPerMK }) => sum + thicknessM / conductivityWPerMK,
      0,
    );
    const source = 'Resistances of layers in series between two air films';
    const uValueWPerM2K = sheet.add({
      symbol: 'U',
      label: 'Heat through a square metre',
      formula: '1/(1/h_i + R + 1/h_o)',
      inputs: [
        { symbol: 'h_i', value: input.insideWPerM2K, unit: 'W/m²K', from: 'insideWPerM2K' },
        { symbol: 'R', label: 'of the layers', value: layers, unit: 'm²K/W' },
        { symbol: 'h_o', value: input.outsideWPerM2K, unit: 'W/m²K', from: 'outsideWPerM2K' },
      ],
      value: uValueOf(input),
      unit: 'W/m²K',
      source,
    });
    const { bareM2 = 0, bridgeWPerK = 0 } = input;
    const bareWPerM2K = uValueOf({ ...input, layers: [] });
    const uaWPerK = sheet.add({
      symbol: 'UA',
      label: 'Heat through the walls',
      formula: bareM2 > 0 || bridgeWPerK > 0 ? 'U·(A − A_b) + U_b·A_b + B' : 'U·A',
      inputs: [
        { symbol: 'U', value: uValueWPerM2K, unit: 'W/m²K' },
        { symbol: 'A', value: input.areaM2, unit: 'm²', from: 'areaM2' },
        ...(bareM2 > 0
          ? [
              { symbol: 'U_b', label: 'of air films alone', value: bareWPerM2K, unit: 'W/m²K' },
              { symbol: 'A_b', value: bareM2, unit: 'm²', from: 'bareM2' },
            ]
          : []),
        ...(bridgeWPerK > 0 ? [{ symbol: 'B', value: bridgeWPerK, unit: 'W/K', from: 'bridgeWPerK' }] : []),
      ],
      value: uValueWPerM2K * (input.areaM2 - bareM2) + bareWPerM2K * bareM2 + bridgeWPerK,
      unit: 'W/K',
      source,
    });
    return { uaWPerK, uValueWPerM2K };
  },
});
