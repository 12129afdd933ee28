import { mend, note, stop, unchecked, type Mistake } from '../../core/src/whole/design/mistakes/mistake';
import type { Design } from '@torvek/core/document';
import { pin } from '@torvek/core/pack';
import { catalogueOf } from '@torvek/core/parts';

const piece = (d: Design, id: string) => d.plumbing![`piece-${id}`]!;
const join = (d: Design, id: string) => d.joins![`join-${id}`]!;
const loop = (d: Design, id: string) => d.loops![`loop-${id}`]!;
const coolant = (d: Design) => d.parts['brinmere-g50@1']!.data as unknown as Record<string, unknown>;

/** Two loops of the bus. */
export const busCool: Mistake[] = [
  mend('glass all around and no more heat', 'cabin', (d) => (d.cabin!.glassM2 = 25)),
  mend('a full bus and one vent', 'cabin', (d) => Object.assign(d.cabin!, { people: 20, freshM3PerH: 30 })),
  mend('a heater that is too weak when it is cold', 'cabin', (d) => {
    d.devices['device-heater']!.ratedPowerW = 1500;
  }),
  note('cabin heat left out of the winter', 'cabin', (d) => (d.vehicle.cabinHeatW = 0)),
  unchecked('fresh air that nobody knows', 'cabin.freshM3PerH', (d) => delete d.cabin!.freshM3PerH),
  unchecked('a cabin that nothing heats', 'cabin.heater', (d) => delete d.cabin!.heater),
  note('a stub where the radiator will be', 'loop-pack', (d) => {
    d.standIns = { 'standin-1': { tag: 'Stub', loop: 'loop-pack', instead: ['piece-radiator'] } };
  }),
  mend('modules on foam for parcels', 'box-nose', (d) => {
    Object.assign(d.boxes['box-nose']!, { floorM2: 0.3, floorKPa: 5 });
  }),
  mend('a plate that nothing lies on', 'piece-plate-tail-1', (d) => (piece(d, 'plate-tail-1').modules = [])),
  mend('no pump in the pack’s loop', 'loop-pack', (d) => delete d.plumbing!['piece-pump']),
  mend('a pump the wrong way round', 'piece-pump', (d) => {
    const pump = piece(d, 'pump');
    [pump.from, pump.to] = [pump.to, pump.from];
  }),
  mend(
    'a pump that is off while it charges',
    'piece-charger',
    (d) => (piece(d, 'drive-pump').switched = 'driving'),
  ),
  mend('a throttle shut', 'piece-plate-tail-1', (d) => (piece(d, 'throttle-tail').openFraction = 0)),
  mend(
    'a throttle a tenth open',
    'piece-plate-tail-1',
    (d) => (piece(d, 'throttle-tail').openFraction = 0.05),
  ),
  mend('one box fed beside its throttle', 'piece-plate-floor-1', (d) => {
    d.plumbing!['piece-x'] = {
      ...piece(d, 'hose-1'),
      tag: 'Stub',
      from: 'join-pack-floor-in',
      to: 'join-pack-floor-out',
    };
  }),
  mend('the headers joined', 'loop-pack', (d) => {
    d.plumbing!['piece-x'] = {
      ...piece(d, 'hose-1'),
      tag: 'Stub',
      from: 'join-pack-tee-nose',
      to: 'join-pack-back-nose',
      lengthM: 0.2,
    };
  }),
  mend('a hose in millimetres', 'piece-hose-3', (d) => (piece(d, 'hose-3').lengthM = 4100)),
  mend('a hose of 5 mm', 'piece-inverter', (d) => {
    const old = d.parts['wendover-h19@1']!;
    d.parts['wendover-hx@1'] = { ...old, id: 'wendover-hx', data: { ...old.data, innerMm: 5 } } as typeof old;
    piece(d, 'drive-hose').hose = 'wendover-hx@1';
  }),
  mend('no radiator in the drive’s loop', 'loop-drive', (d) => {
    const radiator = piece(d, 'drive-radiator');
    Object.assign(radiator, { kind: 'hose', hose: 'wendover-h19@1', lengthM: 0.5 });
    for (const key of ['radiator', 'fan', 'airKgPerS', 'switched'] as const) delete radiator[key];
  }),
  mend('a radiator without air', 'piece-motor', (d) => {
    delete piece(d, 'drive-radiator').fan;
    piece(d, 'drive-radiator').airKgPerS = 0.01;
  }),
  mend('the inverter in the pack’s loop', 'piece-inverter', (d) => {
    Object.assign(piece(d, 'inverter'), { loop: 'loop-pack' });
  }),
  mend('an inverter that loses a third', 'piece-inverter', (d) => (piece(d, 'inverter').lossFraction = 0.4)),
  mend('losses in percent', 'piece-inverter', (d) => (piece(d, 'inverter').lossFraction = 3)),
  mend(
    'a least flow that the pump does not give',
    'piece-inverter',
    (d) => (piece(d, 'inverter').leastLPerMin = 60),
  ),
  mend('a jacket that boils', 'piece-motor', (d) => (piece(d, 'motor').coolantMaxC = 20)),
  mend('two modules on no plate', 'module-108', (d) => (piece(d, 'plate-tail-3').modules = ['module-208'])),
  mend('a module on two plates', 'module-108', (d) => piece(d, 'plate-nose-1').modules!.push('module-108')),
  mend('modules on the plate of another box', 'piece-plate-tail-1', (d) => {
    const [a, b] = [piece(d, 'plate-nose-1'), piece(d, 'plate-tail-1')];
    [a.modules, b.modules] = [b.modules, a.modules];
  }),
  mend('a filler of ten millimetres', 'loop-pack', (d) =>
    Object.assign(piece(d, 'plate-nose-1'), { fillerMm: 10, fillerWPerMK: 0.1 }),
  ),
  mend('water in a frosty county', 'loop-pack', (d) => {
    coolant(d).freezesC = 0;
  }),
  mend('a loop without a tank', 'loop-pack', (d) => delete loop(d, 'pack').tank),
  mend('a tank of a cup', 'loop-pack', (d) => (loop(d, 'pack').tankL = 0.05)),
  mend('a tank below its loop', 'loop-pack', (d) => (join(d, 'pack-tank').zM = 0.4)),
  mend('a high point that nobody can bleed', 'join-pack-nose-out', (d) =>
    Object.assign(join(d, 'pack-nose-out'), { zM: 1.1, bleed: false }),
  ),
  mend('a join six metres to the side', 'join-pack-nose-in', (d) => (join(d, 'pack-nose-in').yM = 6)),
  mend('a join in millimetres', 'join-pack-nose-in', (d) => (join(d, 'pack-nose-in').zM = 700)),
  mend('a join above the collector of high voltage', 'join-pack-tee-floor', (d) =>
    Object.assign(join(d, 'pack-tee-floor'), { xM: -2.8, yM: -0.6, zM: 0.9 }),
  ),
  mend('a test at ten bar', 'loop-pack', (d) => (loop(d, 'pack').testKPa = 1000)),
  mend('a test that may fall by half', 'loop-pack', (d) => (loop(d, 'pack').testDropKPa = 60)),
  mend('a test of a minute', 'loop-pack', (d) => (loop(d, 'pack').testMinutes = 0.5)),
  stop('gas into the cabin', 'box-nose', (d) => (d.boxes['box-nose']!.ventTo = 'cabin')),
  note('sealed without a vent', 'box-nose', (d) => (d.boxes['box-nose']!.vent = 'none')),
  unchecked(
    'nobody knows where gas goes',
    'boxes.box-nose.ventTo',
    (d) => delete d.boxes['box-nose']!.ventTo,
  ),
  mend('cells that may be 90 °C', 'cooling', (d) => (d.cooling!.cellMaxC = 90)),
  mend('cells charged from -20 °C', 'cooling', (d) => (d.cooling!.cellChargeMinC = -25)),
  mend('a hottest day of 60 °C', 'pack', (d) => (d.cooling!.hotC = 52)),
  mend('cooling that is on below where it goes off', 'cooling', (d) => (d.cooling!.offBelowC = 40)),
  mend('cooling that begins above what cells may be', 'cooling', (d) =>
    Object.assign(d.cooling!, { onAboveC: 50, offBelowC: 45 }),
  ),
  mend('a colder night than the coolant stands', 'loop-pack', (d) => (d.cooling!.coldC = -45)),
  mend('a hill of 30 % for long', 'loop-pack', (d) =>
    Object.assign(d.cooling!, { hillGradeFraction: 0.28, hillSpeedKmH: 60 }),
  ),
  mend('a fast charge of 300 kW', 'pack', (d) => (d.cooling!.fastChargeW = 300_000)),
  mend('no liquid, with two loops', 'cooling', (d) => (d.cooling!.school = 'no liquid')),
  mend('one loop, where there are two', 'cooling', (d) => (d.cooling!.school = 'one loop')),
  mend('a heater at a voltage it does not take', 'box-nose', (d) => {
    const old = d.parts['emberley-e3@1']!;
    d.parts['emberley-x@1'] = {
      ...old,
      id: 'emberley-x',
      data: { ...old.data, ratedMinV: 380, ratedMaxV: 420, stopsBelow: true },
    } as typeof old;
    piece(d, 'heater').heater = 'emberley-x@1';
  }),
  mend('no heater in a cold county', 'box-nose', (d) =>
    Object.assign(piece(d, 'heater'), { kind: 'hose', hose: 'wendover-h25@1', lengthM: 0.4 }),
  ),
  mend(
    'a hose to another loop',
    'piece-drive-hose',
    (d) => (piece(d, 'drive-hose').to = 'join-pack-radiator'),
  ),
  mend('a dead end', 'piece-x', (d) => {
    d.joins!['join-x'] = { tag: 'End', loop: 'loop-pack', xM: 0, yM: 0, zM: 0.5 };
    d.plumbing!['piece-x'] = { ...piece(d, 'hose-1'), tag: 'Stub', from: 'join-pack-tee-nose', to: 'join-x' };
  }),
  unchecked('a pump without a part', 'plumbing.piece-pump.pump', (d) => delete piece(d, 'pump').pump),
  unchecked(
    'a plate without a part',
    'plumbing.piece-plate-nose-1.plate',
    (d) => delete piece(d, 'plate-nose-1').plate,
  ),
  unchecked(
    'a hose without a length',
    'plumbing.piece-hose-3.lengthM',
    (d) => delete piece(d, 'hose-3').lengthM,
  ),
  unchecked(
    'a join without a height',
    'joins.join-pack-nose-out.zM',
    (d) => delete join(d, 'pack-nose-out').zM,
  ),
  note(
    'readings that lie on no curve',
    'piece-plate-nose-1',
    (d) =>
      (piece(d, 'plate-nose-1').readings = [
        [2, 1],
        [4, 9],
        [6, 2],
      ]),
  ),
  unchecked(
    'a pump that is switched by nobody knows what',
    'plumbing.piece-drive-pump.switched',
    (d) => delete piece(d, 'drive-pump').switched,
  ),
  mend('a radiator that has air only while it drives', 'loop-drive', (d) => {
    delete piece(d, 'drive-radiator').fan;
    delete piece(d, 'drive-radiator').switched;
  }),
  mend('a join that drags on the road', 'join-pack-tee-floor', (d) => (join(d, 'pack-tee-floor').zM = 0.05)),
  mend('a join in front of the vehicle', 'join-pack-tee-floor', (d) => (join(d, 'pack-tee-floor').xM = 5)),
  mend('coolant that nobody misses', 'loop-pack', (d) => (loop(d, 'pack').lostCoolant = 'nobody')),
  mend('a pump that stands and tells nobody', 'loop-pack', (d) => (loop(d, 'pack').lostFlow = 'nobody')),
  unchecked(
    'nobody knows who notices lost flow',
    'loops.loop-pack.lostFlow',
    (d) => delete loop(d, 'pack').lostFlow,
  ),
];

/** A fan that blows through the box of the truck. */
function fanned(d: Design, more: Partial<Design['boxes'][string]> = {}, supplyV = 12): void {
  const part = catalogueOf('fan').find(({ data }) => data.supplyV === supplyV)!;
  const fan = pin(d, part);
  Object.assign(d.boxes['box-seat']!, { fan, airAreaM2: 0.9, ...more });
  if ('airAreaM2' in more && more.airAreaM2 === undefined) delete d.boxes['box-seat']!.airAreaM2;
}

/** The box of the truck, that no liquid cools. */
export const truckCool: Mistake[] = [
  mend('a fan past hardly any face of its cells', 'box-seat', (d) => fanned(d, { airAreaM2: 0.03 })),
  mend('next to no air, as measured', 'box-seat', (d) => fanned(d, { airKgPerS: 0.001 })),
  mend('a fan in a box that is called sealed', 'box-seat', (d) => fanned(d, { vent: 'none' })),
  mend('a fan of 24 V in a vehicle of 12 V', 'box-seat', (d) => fanned(d, {}, 24)),
  unchecked('nobody knows what lies in the stream', 'boxes.box-seat.airAreaM2', (d) =>
    fanned(d, { airAreaM2: undefined }),
  ),
  unchecked('nobody says what feeds the fan', 'boxes.box-seat.fanLoads', (d) => fanned(d)),
  mend('no heater in a frosty orchard', 'box-seat', (d) => delete d.boxes['box-seat']!.heater),
  stop('gas under the seat', 'box-seat', (d) => (d.boxes['box-seat']!.ventTo = 'cabin')),
  mend('a heater on 12 V that is made for the pack', 'box-seat', (d) =>
    Object.assign(d.boxes['box-seat']!, { heaterVoltage: '12 V' }),
  ),
  mend('walls of two metres', 'box-seat', (d) => (d.boxes['box-seat']!.walls![0]!.thicknessMm = 2000)),
  mend(
    'walls that conduct as in watts per metre of air',
    'box-seat',
    (d) => (d.boxes['box-seat']!.walls![0]!.conductivityWPerMK = 9000),
  ),
  unchecked('own loops, and no loop', 'loops', (d) => (d.cooling!.school = 'own loops')),
  mend('twenty drives on a hot day', 'pack', (d) =>
    Object.assign(d.cooling!, { repeats: 40, hotC: 45, startC: 40 }),
  ),
];
