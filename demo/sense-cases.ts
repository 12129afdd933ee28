import type { Design } from '@torvek/core/document';
import { pin } from '@torvek/core/pack';
import { catalogueOf } from '@torvek/core/parts';

const unit = (draft: Design, id: string) =>
  pin(
    draft,
    catalogueOf('unit').find((part) => part.id === id)!,
  );

const connector = (draft: Design, id: string) =>
  pin(
    draft,
    catalogueOf('connector').find((part) => part.id === id)!,
  );

/** The bus watched by a board of twelve beside each module, with a sensor in each. */
export function watched(draft: Design): void {
  const key = unit(draft, 'harrowmere-b12');
  const plug = connector(draft, 'lintwell-s16');
  draft.sensing = { school: 'per-module' };
  draft.boards = {};
  draft.sensors = {};
  let count = 0;
  for (const [string, { modules }] of Object.entries(draft.strings))
    modules.forEach((module, i) => {
      count += 1;
      draft.boards![`board-${count}`] = {
        tag: `Watch ${count}`,
        unit: key,
        plug,
        string,
        order: i + 1,
        address: count,
        ...(draft.modules[module]!.box !== undefined && { box: draft.modules[module]!.box }),
      };
      draft.sensors![`sensor-${count}`] = { tag: `T${count}`, module, board: `board-${count}` };
    });
}

const and = (change: (draft: Design) => void) => (draft: Design) => {
  watched(draft);
  change(draft);
};
/** A current sensor in each string. */
function sees(draft: Design): void {
  draft.currentSensors = {};
  Object.keys(draft.strings).forEach((string, i) => {
    draft.currentSensors![`current-${i + 1}`] = {
      tag: `Current ${i + 1}`,
      string,
      rangeA: 300,
      sign: 'positive in drive',
    };
  });
}
const sensed = (change: (draft: Design) => void) => (draft: Design) => {
  sees(draft);
  change(draft);
};
const board = (draft: Design, i: number) => draft.boards![`board-${i}`]!;
const all = (draft: Design, id: string) => {
  const key = unit(draft, id);
  for (const one of Object.values(draft.boards!)) one.unit = key;
};

/** For each rule of monitoring that the evaluation can raise: what is wrong about the bus when it is raised. */
export const wrongSense: Record<string, (draft: Design) => void> = {
  'monitoring.unwatched': and((draft) => {
    for (const [id, one] of Object.entries(draft.boards!))
      if (one.string === 'string-2') delete draft.boards![id];
    draft.sensors = {};
  }),
  'monitoring.order-twice': and((draft) => void (board(draft, 2).order = 1)),
  'monitoring.takes-more': and((draft) => void (board(draft, 1).takes = 14)),
  'monitoring.sensor-far': and((draft) => void (draft.sensors!['sensor-1']!.board = 'board-3')),
  'monitoring.current-coarse': sensed((draft) => void (draft.currentSensors!['current-1']!.rangeA = 1500)),
  'monitoring.over-break': and((draft) => {
    draft.sensing!.mayStraddle = true;
    board(draft, 1).takes = 6;
  }),
  'monitoring.bleed-lead': and((draft) => {
    delete draft.pack.balance!.bleedCurrentA;
    const part = draft.parts['harrowmere-b12@1'];
    if (part?.kind === 'unit') part.data.bleedA = 0.8;
  }),
  'monitoring.address-twice': and((draft) => void (board(draft, 2).address = 1)),
  'monitoring.plug-short': and((draft) => void (board(draft, 1).plug = connector(draft, 'lintwell-j12'))),
  'monitoring.reading-old': and((draft) => {
    const part = draft.parts['harrowmere-b12@1'];
    if (part?.kind === 'unit') part.data.passMs = 700;
  }),
  'monitoring.sensor-mean': and((draft) => void (draft.sensors!['sensor-2']!.meanOf = 4)),
  'monitoring.plugs-alike': and((draft) => all(draft, 'harrowmere-b12u')),
  'monitoring.through-wall': and((draft) => void (board(draft, 1).box = 'box-collector')),
  'monitoring.chain-apart': and((draft) => all(draft, 'harrowmere-c48')),
  'monitoring.sensor-nowhere': and((draft) => void delete draft.sensors!['sensor-3']!.module),
  'monitoring.no-sensor': and((draft) => void delete draft.sensors!['sensor-3']),
  'monitoring.too-many-sensors': and((draft) => {
    for (const one of Object.values(draft.sensors!)) one.board = 'board-1';
  }),
  'monitoring.bleeds-full': and((draft) => void (draft.pack.balance!.school = 'bottom')),
  'monitoring.end-at-link': and((draft) => {
    draft.sensing!.strategy = 'fill';
    all(draft, 'harrowmere-b24');
  }),
  'monitoring.no-spin': (draft) => {
    draft.sensing!.spinCellV = 3.2;
    draft.devices['device-inverter']!.minV = 310;
  },
  'monitoring.spin-too-high': (draft) => {
    draft.sensing!.spinCellV = 2.9;
    draft.devices['device-inverter']!.maxV = 340;
  },
  'monitoring.spin-fuse': (draft) => void (draft.sensing!.spinA = 900),
  'monitoring.current-unseen': sensed((draft) => void delete draft.currentSensors!['current-2']),
  'monitoring.current-range': sensed((draft) => void (draft.currentSensors!['current-2']!.rangeA = 150)),
  'monitoring.current-signs': sensed(
    (draft) => void (draft.currentSensors!['current-2']!.sign = 'positive in charge'),
  ),
  'monitoring.donor-misreports': (draft) => void (draft.sensing!.donorAh = 117),
  'bms-map.below-minimum': and((draft) => {
    board(draft, 1).takes = 3;
  }),
  'bms-map.cells-left': and((draft) => void delete draft.boards!['board-8']),
  'bms-map.straddle': and((draft) => all(draft, 'harrowmere-b24')),
};

/** Where the donor’s boards are kept there is no map: watched, every rule is clear. */
export const rightSense: Record<string, (draft: Design) => void> = Object.fromEntries(
  Object.keys(wrongSense)
    .filter((rule) => !/^monitoring\.(donor|no-spin|spin-)/.test(rule))
    .map((rule) => [rule, rule.startsWith('monitoring.current-') ? sees : watched]),
);
