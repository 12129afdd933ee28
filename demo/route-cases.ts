import type { Design } from '@torvek/core/document';
import { catalogueOf } from '@torvek/core/parts';
import { pin } from '@torvek/core/pack';

/** Motor cables of the inverter on one more run, 1 m along the right rail. */
export const withPhases = (
  draft: Design,
  id: string,
  more: Partial<NonNullable<Design['runs']>[string]> = {},
) => {
  draft.devices['device-inverter']!.phaseCable = pin(
    draft,
    catalogueOf('cable').find(({ data }) => data.areaMm2 === 70)!,
  );
  draft.runs![id] = {
    tag: `Motor cables ${id}`,
    phasesOf: 'device-inverter',
    bendRadiusMm: 200,
    points: [
      { xM: 0, yM: -0.7, zM: 0.7 },
      { xM: -1, yM: -0.7, zM: 0.7 },
    ],
    ...more,
  };
  return draft.runs![id];
};
const apart = (draft: Design, lengthsM: Record<'U' | 'V' | 'W', number>) => {
  for (const phase of ['U', 'V', 'W'] as const)
    withPhases(draft, `run-${phase}`, {
      phase,
      points: [
        { xM: 0, yM: -0.7, zM: 0.7 },
        { xM: -lengthsM[phase], yM: -0.7, zM: 0.7 },
      ],
    });
};
/** A pair of data beside the motor cables. */
const signalAt = (draft: Design, yM: number, lengthM = 1) => {
  withPhases(draft, 'run-phases');
  draft.runs!['run-data'] = {
    tag: 'Pair of data',
    signals: true,
    bendRadiusMm: 30,
    points: [
      { xM: 0, yM, zM: 0.7 },
      { xM: -lengthM, yM, zM: 0.7 },
    ],
  };
};
/** The run to the DC-DC through the front of the collector box, by the gland of its circuit. */
const opening = (draft: Design, more: Partial<NonNullable<Design['openings']>[string]> = {}) => {
  const run = draft.runs!['run-dcdc']!;
  const thread = draft.parts[draft.circuits['circuit-dcdc']!.gland!];
  draft.openings = {
    'opening-x': {
      tag: 'DC-DC',
      box: 'box-collector',
      face: 'front',
      passes: 'cables',
      run: 'run-dcdc',
      by: 'gland',
      holeMm: (thread?.kind === 'gland' ? thread.data.threadMm : 0) + 0.3,
      insideMm: 40 + run.bendRadiusMm!,
      outsideMm: 40 + run.bendRadiusMm!,
      ...more,
    },
  };
};
const tube = (draft: Design) => draft.runs!['run-inlet']!;

/** For each rule of runs: what is wrong about the bus when it is raised. */
export const wrongRoute: Record<string, (draft: Design) => void> = {
  'run.free-span': (draft) => void (draft.vehicle.noNewHoles = true),
  'run.forbidden': (draft) => void (draft.zones!['zone-rail']!.kind = 'forbidden'),
  'run.crush': (draft) => void (draft.zones!['zone-rail']!.kind = 'crush'),
  'run.obstacle': (draft) => void (draft.zones!['zone-rail']!.kind = 'obstacle'),
  'run.no-drip': (draft) => {
    const run = draft.runs!['run-dcdc']!;
    run.fromEntry = 'gland';
    run.points![0]!.zM = 0.6;
    run.points![1]!.zM = 0.9;
    run.points![1]!.yM = -0.2;
  },
  'run.loose-length': (draft) => {
    const run = draft.runs!['run-inlet']!;
    for (const point of run.points!) point.tolMm = 60;
  },
  'run.taped-off': (draft) => void (draft.datums!['datum-hanger']!.xM = -2.9),
  'run.low': (draft) => void (draft.runs!['run-dcdc']!.points![1]!.zM = -0.1),
  'run.end-off': (draft) => void (draft.devices['device-dcdc']!.xM = -3.5),
  'run.through': (draft) => void Object.assign(draft.devices['device-dcdc']!, { xM: 0, yM: -0.46, zM: 0.6 }),
  'run.cut-short': (draft) => void (draft.runs!['run-dcdc']!.cutLengthM = 1.2),
  'run.hose-beside-cable': (draft) => void (draft.runs!['run-dcdc']!.hoses = ['piece-hose-5']),
  'run.hose-off': (draft) => void (draft.joins!['join-pack-back-floor']!.xM = -0.8),
  'run.devices-overlap': (draft) =>
    void Object.assign(draft.devices['device-dcdc']!, { xM: -5.7, yM: -0.9, zM: 1 }),
  'run.device-outside': (draft) => void (draft.devices['device-inlet']!.xM = -7),
  'run.device-low': (draft) => void (draft.devices['device-dcdc']!.zM = 0.1),
  'run.one-pole': (draft) => void (draft.runs!['run-dcdc']!.poles = 'minus'),
  'run.twice': (draft) => void draft.runs!['run-dcdc']!.circuits!.push('circuit-compressor'),
  'run.phase-in-steel': (draft) => {
    const run = withPhases(draft, 'run-u', { phase: 'U', conduit: 'steel', fittings: 'metal' });
    run.points![0]!.after = 'conduit';
  },
  'run.phases-missing': (draft) => void withPhases(draft, 'run-u', { phase: 'U' }),
  'run.phases-unlike': (draft) => apart(draft, { U: 1, V: 1.2, W: 1 }),
  'run.signal-near-phases': (draft) => signalAt(draft, -0.52),
  'run.water-stands': (draft) => void (tube(draft).points![2]!.zM = 0.66),
  'run.plastic-fittings': (draft) => void (tube(draft).fittings = 'plastic'),
  'wall.hole-off': (draft) => {
    opening(draft);
    draft.openings!['opening-x']!.holeMm! -= 0.4;
  },
  'wall.room-short': (draft) => {
    opening(draft);
    draft.openings!['opening-x']!.insideMm! -= 1;
  },
  'wall.left-open': (draft) => opening(draft, { passes: 'nothing', by: 'gland' }),
  'wall.face-crowded': (draft) => opening(draft, { count: 40 }),
  'wall.no-opening': (draft) => opening(draft),
};

/** What is right though it looks alike. */
export const rightRoute: Record<string, (draft: Design) => void> = {
  'run.free-span': (draft) => {
    draft.vehicle.noNewHoles = true;
    for (const run of Object.values(draft.runs!)) run.freeSpanMm = 60_000;
  },
  'run.phase-in-steel': (draft) => {
    const run = withPhases(draft, 'run-u', { phase: 'U', conduit: 'aluminium', fittings: 'metal' });
    run.points![0]!.after = 'conduit';
  },
  'run.phases-missing': (draft) => apart(draft, { U: 1, V: 1, W: 1 }),
  'run.phases-unlike': (draft) => apart(draft, { U: 1, V: 1.1, W: 1 }),
  'run.signal-near-phases': (draft) => signalAt(draft, -0.49),
  'run.water-stands': (draft) => {
    tube(draft).points![2]!.zM = 0.66;
    tube(draft).drained = true;
  },
  'run.plastic-fittings': (draft) =>
    void Object.assign(tube(draft), { fittings: 'plastic', bondedAcross: true }),
  'wall.hole-off': (draft) => opening(draft),
  'wall.room-short': (draft) => opening(draft),
  'wall.left-open': (draft) => opening(draft, { passes: 'nothing', by: 'blank' }),
  'wall.face-crowded': (draft) => opening(draft, { count: 4 }),
  'wall.no-opening': (draft) => {
    opening(draft);
    for (const run of ['run-inlet', 'run-compressor'])
      draft.openings![`opening-${run}`] = {
        tag: run,
        box: 'box-collector',
        run,
        passes: 'cables',
        by: 'gland',
      };
  },
};
