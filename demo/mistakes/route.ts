import { mend, note, stop, unchecked, type Mistake } from '../../core/src/whole/design/mistakes/mistake';
import type { Design } from '@torvek/core/document';

const run = (d: Design, id: string) => d.runs![`run-${id}`]!;
const at = (d: Design, id: string, i: number) => run(d, id).points![i]!;
const hazard = (d: Design, id: string) => d.hazards![`hazard-${id}`]!;
const zone = (d: Design, id: string) => d.zones![`zone-${id}`]!;

/** Where the cables of the bus run. */
export const busRoutes: Mistake[] = [
  mend('a shell that is not drilled, and nothing to hold the cables by', 'run-inlet', (d) => {
    d.vehicle.noNewHoles = true;
  }),
  mend('a bend tighter than its cable bends', 'run-dcdc', (d) => (run(d, 'dcdc').bendRadiusMm = 10)),
  mend('a leg too short for its bends', 'run-inlet', (d) => (run(d, 'inlet').bendRadiusMm = 900)),
  mend('a point beside the vehicle', 'run-dcdc', (d) => (at(d, 'dcdc', 1).yM = 2.2)),
  mend('a point in millimetres', 'run-dcdc', (d) => (at(d, 'dcdc', 1).zM = 720)),
  mend('a hose that ends beside its join', 'run-hose-tail', (d) => (at(d, 'hose-tail', 4).xM = -0.9)),
  mend('a hose bent until it folds', 'run-hose-tail', (d) => (run(d, 'hose-tail').bendRadiusMm = 60)),
  mend('a hose beside the cable in one run', 'run-dcdc', (d) => (run(d, 'dcdc').hoses = ['piece-hose-5'])),
  mend('a cable on the coolant hose', 'run-dcdc', (d) => {
    run(d, 'hose-tail').points = [
      { xM: -4.2, yM: -0.45, zM: 0.62 },
      { xM: -2.5, yM: 0, zM: 0.72 },
      { xM: -0.5, yM: -0.9, zM: 0.5 },
    ];
  }),
  mend('a hose cut shorter than its way', 'run-hose-tail', (d) => (run(d, 'hose-tail').cutLengthM = 3.5)),
  mend('a way through the propeller shaft', 'run-dcdc', (d) => {
    for (const i of [0, 1]) at(d, 'dcdc', i).zM = 0.48;
  }),
  mend('beside the brake line', 'run-compressor', (d) => {
    at(d, 'compressor', 2).yM = -0.39;
    at(d, 'compressor', 3).yM = -0.39;
  }),
  mend('below what clears the road', 'run-compressor', (d) => (at(d, 'compressor', 2).zM = 0.12)),
  mend('ends in the air', 'run-dcdc', (d) => (at(d, 'dcdc', 2).xM = -2.7)),
  mend('a device that was moved', 'run-compressor', (d) => (d.devices['device-compressor']!.xM = 0.9)),
  mend('through the floor box', 'run-compressor', (d) => {
    const box = d.boxes['box-nose']!;
    Object.assign(at(d, 'compressor', 3), { xM: box.xM, yM: box.yM, zM: box.zM });
  }),
  mend('one pole alone', 'circuit-dcdc', (d) => (run(d, 'dcdc').poles = 'plus')),
  note('a circuit on two runs', 'circuit-dcdc', (d) => run(d, 'compressor').circuits!.push('circuit-dcdc')),
  mend('a conduit too full', 'run-inlet', (d) => (run(d, 'inlet').conduitInnerMm = 28)),
  mend('a conduit of less outside than inside', 'run-inlet', (d) => (run(d, 'inlet').conduitOuterMm = 30)),
  mend('more than a full turn between pull points', 'run-inlet', (d) => {
    run(d, 'inlet').points = [
      { xM: -2.8, yM: -0.6, zM: 0.72, after: 'conduit' },
      { xM: -3.6, yM: -0.6, zM: 0.72 },
      { xM: -3.6, yM: -0.6, zM: 1.5 },
      { xM: -4.4, yM: -0.6, zM: 1.5 },
      { xM: -4.4, yM: -0.6, zM: 0.8 },
      { xM: -5.1, yM: -0.6, zM: 0.8 },
      { xM: -5.1, yM: -0.98, zM: 1.6 },
      { xM: -5.65, yM: -0.98, zM: 1.05 },
    ];
  }),
  mend('a pull harder than the cable stands', 'run-inlet', (d) => (run(d, 'inlet').maxTensionN = 5)),
  mend('friction of sand', 'run-inlet', (d) =>
    Object.assign(run(d, 'inlet'), { friction: 1.2, maxSidewallNPerM: 5 }),
  ),
  mend('a spare wheel carrier that goes back onto the conduit', 'run-inlet', (d) => {
    Object.assign(zone(d, 'carrier'), { xM: -4.4, yM: -0.6, zM: 1 });
  }),
  mend('a cable that rises from its gland alone', 'run-dcdc', (d) => {
    at(d, 'dcdc', 1).zM = 1.3;
  }),
  mend('a conduit of which the points are known to a hand’s breadth', 'run-inlet', (d) => {
    for (const point of run(d, 'inlet').points!) point.tolMm = 60;
  }),
  mend('a point moved after it was taped', 'run-dcdc', (d) => (at(d, 'dcdc', 2).zM! += 0.05)),
  mend('a mark of the body typed elsewhere', 'run-dcdc', (d) => (d.datums!['datum-floor']!.yM = 0.58)),
  mend('clips a metre and a half apart', 'run-dcdc', (d) => (run(d, 'dcdc').clipSpacingMm = 1500)),
  mend('cut shorter than its way', 'run-dcdc', (d) => (run(d, 'dcdc').cutLengthM = 1.1)),
  mend('a cut length in millimetres', 'run-dcdc', (d) => (run(d, 'dcdc').cutLengthM = 1900)),
  mend('bare behind the bumper', 'run-inlet', (d) => {
    for (const point of run(d, 'inlet').points!) point.after = 'clipped';
    Object.assign(at(d, 'inlet', 5), { xM: -5.93, zM: 0.7 });
  }),
  stop('through a place it must not', 'run-dcdc', (d) =>
    Object.assign(zone(d, 'hatch'), { kind: 'forbidden', xM: -2.5, yM: 0.2, zM: 0.7 }),
  ),
  mend('in the swing of a hatch', 'run-dcdc', (d) =>
    Object.assign(zone(d, 'hatch'), { xM: -2.5, yM: 0.2, zM: 0.7 }),
  ),
  mend('a hazard that asks nothing', 'hazard-shaft', (d) => (hazard(d, 'shaft').minSeparationMm = 0)),
  unchecked(
    'a hazard of one point',
    'hazards.hazard-shaft.points',
    (d) => (hazard(d, 'shaft').points = [{ xM: 0, yM: 0, zM: 0.5 }]),
  ),
  unchecked(
    'a run of one point',
    'runs.run-dcdc.points',
    (d) => (run(d, 'dcdc').points = [{ xM: 0, yM: 0, zM: 0.5 }]),
  ),
  unchecked(
    'a run without its radius',
    'runs.run-dcdc.bendRadiusMm',
    (d) => delete run(d, 'dcdc').bendRadiusMm,
  ),
  unchecked(
    'a conduit of no size',
    'runs.run-inlet.conduitInnerMm',
    (d) => delete run(d, 'inlet').conduitInnerMm,
  ),
  mend('slack of a third', 'run-dcdc', (d) => (run(d, 'dcdc').slackFraction = 0.9)),
  mend('bends to one diameter', 'run-dcdc', (d) => (run(d, 'dcdc').minBendFactor = 0.5)),
  unchecked('a run of no cable', 'runs.run-dcdc.circuits', (d) => (run(d, 'dcdc').circuits = [])),
  mend('out of the vehicle at the rear', 'run-inlet', (d) => (at(d, 'inlet', 4).xM = -9)),
  mend('two devices in one place', 'device-compressor', (d) => {
    const [a, b] = [d.devices['device-dcdc']!, d.devices['device-compressor']!];
    Object.assign(a, { xM: b.xM, yM: b.yM, zM: b.zM });
  }),
  mend('a device half inside a box', 'device-dcdc', (d) => {
    const box = d.boxes['box-tail']!;
    Object.assign(d.devices['device-dcdc']!, { xM: box.xM, yM: box.yM! + box.widthM! / 2, zM: box.zM });
  }),
  mend('a device below the road', 'device-dcdc', (d) => (d.devices['device-dcdc']!.zM = -0.4)),
  mend('crushed in a flexible tube', 'run-compressor', (d) =>
    Object.assign(zone(d, 'bumper'), { xM: 1.02, yM: -0.45, zM: 0.65 }),
  ),
  mend('a converter taller than its place', 'device-dcdc', (d) => (d.devices['device-dcdc']!.heightM = 1.2)),
];

const opening = (d: Design, id: string) => d.openings![`opening-${id}`]!;

/** Where the cables of the truck run, and through which walls. */
export const truckRoutes: Mistake[] = [
  mend('a sill that sags between its ends', 'run-main/1', (d) => {
    run(d, 'main').points!.splice(3, 0, { xM: -0.2, yM: 0.54, zM: 0.4 });
  }),
  mend('couplings of plastic in a tube of metal', 'run-main/1', (d) => (run(d, 'main').fittings = 'plastic')),
  mend('a hole drilled a size too small', 'opening-main', (d) => (opening(d, 'main').holeMm = 20.3)),
  mend('a hole in centimetres', 'opening-charger', (d) => (opening(d, 'charger').holeMm = 1.63)),
  mend(
    'a wall of the cab close behind the gland',
    'opening-main',
    (d) => (opening(d, 'main').outsideMm = 60),
  ),
  mend('a spare hole without its blank', 'opening-spare', (d) => (opening(d, 'spare').by = 'open')),
  mend('a cable through a bare edge', 'opening-charger', (d) => (opening(d, 'charger').by = 'open')),
  mend('more glands than the wall holds', 'box-seat/right', (d) => (opening(d, 'charger').count = 30)),
  note('an opening that was written down for another run', 'run-charger/from', (d) => {
    opening(d, 'charger').run = 'run-main';
  }),
  mend('two of three motor phases laid', 'device-inverter', (d) => {
    for (const phase of ['U', 'V'] as const)
      d.runs![`run-${phase}`] = {
        tag: `Motor ${phase}`,
        phasesOf: 'device-inverter',
        phase,
        bendRadiusMm: 90,
        points: [
          { xM: -0.1, yM: 0.2, zM: 0.72 },
          { xM: -0.1, yM: 0.2, zM: 0.52 },
        ],
      };
  }),
  mend('the loom of the monitor tied to the motor cables', 'run-data', (d) => {
    for (const [id, yM] of [
      ['run-phases', 0.1],
      ['run-data', 0.12],
    ] as const)
      d.runs![id] = {
        tag: id,
        ...(id === 'run-data' ? { signals: true } : { phasesOf: 'device-inverter' }),
        bendRadiusMm: 90,
        points: [
          { xM: -1.1, yM, zM: 0.7 },
          { xM: -1.6, yM, zM: 0.7 },
        ],
      };
  }),
];
