import { absent, without, firstBox, lastBox, mend, note, unchecked, type Mistake } from './mistake';

/** Brief: masses, axles, speed and range, boxes in the vehicle, what the job needs at all. */
export const briefMistakes: Mistake[] = [
  mend(
    'a gross limit below what the vehicle comes to',
    'vehicle',
    ({ vehicle }) => (vehicle.grossLimitKg! *= 0.5),
  ),
  mend('a front axle made for half its load', 'vehicle', ({ vehicle }) => (vehicle.frontLimitKg! *= 0.4)),
  mend('a rear axle made for half its load', 'vehicle', ({ vehicle }) => (vehicle.rearLimitKg! *= 0.3)),
  mend('a heavy thing put behind the rear axle', 'vehicle', ({ masses, vehicle }) => {
    masses['mass-x'] = {
      tag: 'Ballast',
      change: 'in',
      massKg: vehicle.grossLimitKg! * 0.6,
      xM: -vehicle.wheelbaseM!,
    };
  }),
  mend(
    'a range wanted that the pack never gives',
    'road-load',
    ({ vehicle }) => (vehicle.wantedRangeKm! *= 8),
  ),
  note(
    'a steady speed above the one driven at most',
    'vehicle',
    ({ vehicle }) => (vehicle.speedKmH = vehicle.topSpeedKmH! + 15),
  ),
  mend('a wheelbase typed in millimetres', 'vehicle', ({ vehicle }) => (vehicle.wheelbaseM! *= 1000)),
  mend(
    'a wheelbase longer than the vehicle',
    'vehicle',
    ({ vehicle }) => (vehicle.wheelbaseM = vehicle.lengthM! + 0.5),
  ),
  mend(
    'a front overhang that leaves no room for the wheelbase',
    'vehicle',
    ({ vehicle }) => (vehicle.frontOverhangM = vehicle.lengthM! - 0.5),
  ),
  note(
    'a gross limit above what both axles carry',
    'vehicle',
    ({ vehicle }) => (vehicle.grossLimitKg = vehicle.frontLimitKg! + vehicle.rearLimitKg! + 500),
  ),
  note(
    'an axle that was overloaded before the work',
    'vehicle',
    ({ vehicle }) => (vehicle.rearKg = vehicle.rearLimitKg! + 50),
  ),
  mend('masses that move the split far', 'vehicle', ({ masses, vehicle }) => {
    masses['mass-x'] = { tag: 'Crane', change: 'in', massKg: vehicle.frontKg! * 0.9, xM: 0 };
  }),
  mend(
    'a mass ahead of the front of the vehicle',
    'mass-motor',
    ({ masses }) => (masses['mass-motor']!.xM = 40),
  ),
  mend(
    'a mass behind the tail',
    'mass-motor',
    ({ masses, vehicle }) => (masses['mass-motor']!.xM = -vehicle.lengthM! - 1),
  ),
  mend(
    'more taken out than the vehicle weighs',
    'vehicle',
    ({ masses }) => (masses['mass-engine']!.massKg = 50_000),
  ),
  unchecked(
    'a gross limit nobody gave',
    'vehicle.grossLimitKg',
    ({ vehicle }) => delete vehicle.grossLimitKg,
  ),
  unchecked(
    'a front axle limit nobody gave',
    'vehicle.frontLimitKg',
    ({ vehicle }) => delete vehicle.frontLimitKg,
  ),
  unchecked('an axle never weighed', 'vehicle.frontKg', ({ vehicle }) => delete vehicle.frontKg),
  unchecked('a wheelbase not measured', 'vehicle.wheelbaseM', ({ vehicle }) => delete vehicle.wheelbaseM),
  unchecked(
    'a mass without a place',
    'masses.mass-motor.xM',
    ({ masses }) => delete (masses['mass-motor'] as { xM?: number }).xM,
  ),
  mend('a drive efficiency above one', 'vehicle', ({ vehicle }) => (vehicle.drivetrainEfficiency = 1.3)),
  mend('a rolling coefficient below 0', 'vehicle', ({ vehicle }) => (vehicle.rollingCoefficient = -0.01)),
  mend('a front axle that weighs nothing', 'vehicle', ({ vehicle }) => (vehicle.frontKg = -100)),
  mend('a box ahead of the vehicle', firstBox, (draft) => (draft.boxes[firstBox(draft)]!.xM = 12)),
  mend('a box behind the vehicle', lastBox, (draft) => (draft.boxes[lastBox(draft)]!.xM = -30)),
  mend('a box that hangs on the road', firstBox, (draft) => (draft.boxes[firstBox(draft)]!.zM = 0.08)),
  mend('a box lower than the ground clearance', firstBox, (draft) => {
    const box = draft.boxes[firstBox(draft)]!;
    box.zM = box.heightM! / 2 + 0.06;
  }),
  mend(
    'a box above the roof',
    firstBox,
    (draft) => (draft.boxes[firstBox(draft)]!.zM = draft.vehicle.heightM! + 1),
  ),
  mend('two boxes in one place', lastBox, (draft) => {
    if (firstBox(draft) === lastBox(draft)) return absent;
    const [a, b] = [draft.boxes[firstBox(draft)]!, draft.boxes[lastBox(draft)]!];
    return Object.assign(b, { xM: a.xM! - 0.3, yM: a.yM, zM: a.zM });
  }),
  mend('a job that nothing charges', 'pack', (draft) => {
    for (const id of Object.keys(draft.devices))
      if (['charger', 'dc-inlet'].includes(draft.devices[id]!.kind)) without(draft, id);
  }),
  note('a job without a supply for its low voltage', 'vehicle', (draft) => {
    const supplies = Object.keys(draft.devices).filter((id) => draft.devices[id]!.kind === 'dc-dc');
    for (const id of supplies) without(draft, id);
    return supplies.length > 0;
  }),
];
