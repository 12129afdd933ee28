import { plumbing } from './library-bus-cooling';
import { flowMeter, leakBench, probes, rule, scope, technician, witness } from './shop';
import type { StoryLine } from './story';

/** The coolant side of the bus's record: leak tests in three stages, filling, flow, and a throttle left nearly shut. */

const at = (day: string, hour: number, minute: number) =>
  `2026-${day}T${String(hour).padStart(2, '0')}:${String(minute).padStart(2, '0')}:00Z`;

const hold = (
  when: string,
  step: string,
  from: [kPa: number, c: number],
  to: [kPa: number, c: number],
  remark?: string,
): StoryLine => ({
  at: when,
  by: technician,
  entry: {
    kind: 'hold',
    step,
    from,
    to,
    minutes: 30,
    instrument: leakBench,
    ...(remark !== undefined && { remark }),
  },
});

/** How far each hose moved on a pull, mm: held, but for one that was pushed home and clamped anew. */
const clamps = (when: string, step: string, values: number[], remark?: string): StoryLine => ({
  at: when,
  by: technician,
  entry: {
    kind: 'list',
    step,
    values,
    unit: 'mm',
    instrument: rule,
    ...(remark !== undefined && { remark }),
  },
});

const plates = Object.keys(plumbing).filter((id) => id.startsWith('piece-plate-'));

/** Each plate on the bench, before its modules lie on it: the shop cools down in the evening, and the gauge falls with it. */
export const platesTested: StoryLine[] = plates.map((id, i) =>
  hold(
    at('10-30', 14 + Math.floor(i / 2), 5 + 30 * (i % 2)),
    `leak-plate:${id}`,
    [120.2, 20.4 - 0.2 * i],
    i === 5 ? [118, 17.3] : [119.6 - 0.1 * (i % 3), 20 - 0.25 * i],
    i === 5 ? 'Door stood open: 2.2 kPa down on the gauge.' : undefined,
  ),
);

/** Nose and floor box once they are closed. */
export const boxesTested: StoryLine[] = [
  clamps(at('11-04', 14, 40), 'clamps-box:box-nose', [0]),
  clamps(at('11-04', 14, 44), 'clamps-box:box-left', [0.2]),
  hold(at('11-04', 15, 10), 'leak-box:box-nose', [120.5, 18.2], [120.3, 18]),
  hold(at('11-04', 15, 50), 'leak-box:box-left', [120.1, 18.1], [119.6, 17.7]),
];
/** The tail box after it was dried and closed again. */
export const tailTested: StoryLine[] = [
  clamps(at('11-10', 10, 5), 'clamps-box:box-tail', [0]),
  hold(at('11-10', 10, 20), 'leak-box:box-tail', [120.3, 17.4], [120, 17.2]),
];

/** Both loops in the vehicle. */
export const filled: StoryLine[] = [
  clamps(
    at('11-12', 8, 20),
    'clamps-loop:loop-pack',
    [0, 0, 0.3, 0, 0, 0.2, 0, 0, 0, 0.4, 0, 0, 0],
    'Clamp behind the tee to the floor set anew before it was pulled.',
  ),
  clamps(at('11-12', 8, 45), 'clamps-loop:loop-drive', [0, 0]),
  hold(at('11-12', 9, 5), 'leak-loop:loop-pack', [120.4, 16.2], [121.6, 18.9]),
  hold(at('11-12', 9, 50), 'leak-loop:loop-drive', [100.6, 17], [100.4, 16.9]),
  ...(
    [
      ['fill-loop:loop-pack', 14.4],
      ['fill-loop:loop-drive', 3.2],
      ['flow-loop:loop-pack', 24.6],
      ['flow-loop:loop-drive', 10.8],
    ] as const
  ).map(([step, value], i): StoryLine => ({
    at: at('11-12', 11, 10 + 12 * i),
    by: technician,
    entry: { kind: 'result', step, value, instrument: flowMeter },
  })),
];

/** The rest of first high voltage, and the drive on blocks that finds the starved box. */
export const startedAndStopped: StoryLine[] = (
  [
    ['precharge-time:circuit-main', 0.447],
    ['stop-discharge:circuit-main', 3.1],
  ] as const
).map(([step, value], i): StoryLine => ({
  at: at('11-16', 10, 16 + 5 * i),
  by: technician,
  entry: { kind: 'result', step, value, instrument: scope },
}));

const warm = (minute: number, box: string, value: number): StoryLine => ({
  at: at('11-17', minute < 60 ? 10 : 11, minute % 60),
  by: technician,
  entry: { kind: 'result', step: `warm-box:${box}`, value, instrument: probes },
});

export const underLoad: StoryLine[] = [
  { at: at('11-17', 9, 40), by: technician, entry: { kind: 'gate', gate: 'under-load', witness } },
  {
    at: at('11-17', 9, 55),
    by: technician,
    entry: { kind: 'position', stage: 'driving', remark: 'On blocks, brake dynamometer at the rear axle.' },
  },
  warm(30, 'box-nose', 0.5),
  warm(32, 'box-left', 0.4),
  warm(34, 'box-tail', 6.8),
  {
    at: at('11-17', 10, 50),
    by: technician,
    entry: {
      kind: 'deviation',
      ofStep: 'warm-box:box-tail',
      tried: 'Throttle of the tail box opened from a tenth of a turn to its mark.',
      cause: 'Throttle, tail nearly shut',
      cured: true,
      subjects: ['piece-throttle-tail'],
    },
  },
  {
    at: at('11-17', 10, 56),
    by: technician,
    entry: { kind: 'result', step: 'flow-loop:loop-pack', value: 27, instrument: flowMeter },
  },
  // One throttle moves the flow of all.
  warm(81, 'box-nose', 0.6),
  warm(83, 'box-left', 0.5),
  warm(85, 'box-tail', 0.6),
  { at: at('11-17', 11, 40), by: technician, entry: { kind: 'position', stage: 'locked-off' } },
];

/** Entries of this file before the reels arrive. */
export const coolantEntries = [
  platesTested,
  boxesTested,
  tailTested,
  filled,
  startedAndStopped,
  underLoad,
].reduce((sum, lines) => sum + lines.length, 0);
