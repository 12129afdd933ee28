import type { DisconnectData, PartOf, PlugData } from '../kinds';

/** number, rated V, continuous A, parts A, contacts mΩ, interlock. */
const disconnectRows: [string, number, number, number, number, boolean][] = [
  ['H120', 160, 120, 120, 0.25, false],
  ['H300', 160, 300, 250, 0.15, false],
  ['P200', 500, 200, 0, 0.2, true],
  ['P350', 500, 350, 0, 0.12, true],
  ['P250', 850, 250, 0, 0.18, true],
  ['S160', 600, 160, 160, 0.3, false],
];

/** Invented service disconnects: P is pulled, H and S are switches with a handle. */
export const disconnects: PartOf<'disconnect'>[] = disconnectRows.map(
  ([number, ratedVoltageV, continuousA, breakA, milliohm, interlock]) => {
    const data: DisconnectData = {
      ratedVoltageV,
      continuousA,
      breakA,
      contactOhm: milliohm / 1000,
      interlock,
      fingerproof: true,
    };
    return {
      id: `mosswick-${number.toLowerCase()}`,
      revision: 1,
      kind: 'disconnect',
      make: 'Mosswick',
      number,
      label: `Mosswick ${number}, ${ratedVoltageV} V, ${continuousA} A`,
      data,
    };
  },
);

/** area mm², rated V, continuous A. */
const plugRows: [number, number, number][] = [
  [2.5, 800, 25],
  [4, 800, 32],
  [6, 800, 44],
  [10, 800, 63],
  [16, 800, 88],
  [25, 800, 120],
  [35, 800, 155],
  [50, 1000, 200],
  [70, 1000, 250],
  [95, 1000, 320],
  [120, 1000, 380],
];

/** Invented plugs with their sockets: shells of metal with an interlock, and for low voltages ones of plastic without. */
export const plugs: PartOf<'plug'>[] = [
  ...plugRows.map(([areaMm2, ratedVoltageV, continuousA]) =>
    plug(`T${areaMm2}`, {
      ratedVoltageV,
      continuousA,
      areaMm2,
      screenContact: true,
      interlock: true,
      fingerproof: true,
      maxC: 140,
    }),
  ),
  ...[16, 35, 70].map((areaMm2, i) =>
    plug(`B${areaMm2}`, {
      ratedVoltageV: 150,
      continuousA: [75, 140, 220][i]!,
      areaMm2,
      screenContact: false,
      interlock: false,
      fingerproof: true,
      maxC: 105,
    }),
  ),
];

function plug(number: string, data: PlugData): PartOf<'plug'> {
  return {
    id: `tarrowby-${number.toLowerCase().replace('.', '-')}`,
    revision: 1,
    kind: 'plug',
    make: 'Tarrowby',
    number,
    label: `Tarrowby ${number}, ${data.areaMm2} mm², ${data.continuousA} A`,
    data,
  };
}
