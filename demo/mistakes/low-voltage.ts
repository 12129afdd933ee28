import { mend, note, unchecked, type Mistake } from '../../core/src/whole/design/mistakes/mistake';
import type { Design } from '@torvek/core/document';

const load = (d: Design, id: string) => d.loads![`load-${id}`]!;
const service = (d: Design, id: string) => d.services![`service-${id}`]!;
const side = (d: Design) => d.lowVoltage!;
const wire = (d: Design, id: number) => d.wires![`wire-${id}`]!;
const bundle = (d: Design, id: string) => d.bundles![`bundle-${id}`]!;

/** 24 V, and the looms of its cab. */
export const busLowVoltage: Mistake[] = [
  mend('two pins of the dashboard on one of the instruments', 'adapter-instruments', (d) => {
    d.adapters!['adapter-instruments']!.pins![0] = [1, 1];
  }),
  mend('a wire that the adapter leaves out', 'wire-122', (d) =>
    d.adapters!['adapter-instruments']!.pins!.pop(),
  ),
  mend('an adapter counted from the wrong side', 'adapter-instruments', (d) => {
    d.adapters!['adapter-instruments']!.pins!.push([4, 12]);
  }),
  unchecked('an adapter that goes on to nothing', 'adapters.adapter-instruments.to', (d) => {
    delete d.adapters!['adapter-instruments']!.to;
  }),
  note(
    'a return in another colour than the code says',
    'wire-112',
    (d) => (d.wires!['wire-112']!.colour = 'red'),
  ),
  mend('a wire cut to a tenth of its way', 'wire-201', (d) => (d.wires!['wire-201']!.lengthM = 0.3)),
  mend('a window typed for a converter that it is not made for', 'circuit-dcdc', (d) => {
    const part = d.parts[d.lowVoltage!.converter!]!;
    if (part.kind === 'converter') part.data.maxV = 300;
  }),
  mend('a fuse larger than its wire carries', 'load-tail', (d) => (load(d, 'tail').fuseA = 50)),
  mend('a fuse smaller than its load', 'load-steering', (d) => (load(d, 'steering').fuseA = 10)),
  mend('a wire too thin for its pump', 'load-steering', (d) => (load(d, 'steering').wire = 'marl-v1@1')),
  mend('a feed of 40 m', 'load-tail', (d) => (load(d, 'tail').lengthM = 40)),
  mend('a fuse three metres from the battery', 'load-air', (d) => (load(d, 'air').toFuseM = 3)),
  mend('a relay for half of what it switches', 'load-air', (d) => (load(d, 'air').relay = 'hollin-r30-24@1')),
  mend('a wiper that must go behind the fuse of a radio', 'load-wipers', (d) => {
    load(d, 'wipers').behind = 'F9';
    load(d, 'dash').behind = 'F9';
  }),
  mend(
    'loads behind one fuse that carries half of them',
    'load-tail',
    (d) => (load(d, 'plate').powerW = 200),
  ),
  mend('one fuse with two ratings', 'load-tail', (d) => (load(d, 'plate').fuseA = 15)),
  mend('a peak below what it draws', 'load-wipers', (d) => (load(d, 'wipers').peakW = 50)),
  mend('kilowatts in a field of watts', 'load-steering', (d) => (load(d, 'steering').powerW = 0.95)),
  mend('a lamp of 140 kW', 'load-headlamps', (d) => (load(d, 'headlamps').powerW = 140_000)),
  mend('a cabin light that is always on', 'vehicle', (d) =>
    Object.assign(load(d, 'room'), { when: 'always', dutyFraction: 1 }),
  ),
  unchecked('a load without a fuse', 'loads.load-blower.fuseA', (d) => delete load(d, 'blower').fuseA),
  unchecked('a load without a wire', 'loads.load-blower.wire', (d) => delete load(d, 'blower').wire),
  unchecked('a load without a length', 'loads.load-blower.lengthM', (d) => delete load(d, 'blower').lengthM),
  unchecked('a load without a power', 'loads.load-blower.powerW', (d) => delete load(d, 'blower').powerW),
  mend('looms at 100 °C', 'load-steering', (d) => (load(d, 'steering').ambientC = 100)),
  mend(
    'the pump of the steering counted as spare',
    'service-steering',
    (d) => (load(d, 'steering').essential = false),
  ),
  mend('the brakes’ compressor counted as spare', 'service-brake', (d) => (load(d, 'air').essential = false)),
  mend(
    'brakes whose compressor runs while charging alone',
    'service-brake',
    (d) => (load(d, 'air').when = 'charging'),
  ),
  mend(
    'one application left in the reservoir',
    'service-brake',
    (d) => (service(d, 'brake').reserveCount = 1),
  ),
  mend('brakes that fail unannounced', 'service-brake', (d) => (service(d, 'brake').warns = false)),
  mend('steering that nothing does', 'service-steering', (d) => {
    delete service(d, 'steering').successor;
    delete service(d, 'steering').load;
  }),
  mend(
    'steering whose feed is not in the list',
    'service-steering',
    (d) => delete service(d, 'steering').load,
  ),
  mend('coils that nothing feeds while it charges', 'vehicle', (d) => (side(d).coilLoads = ['load-coils'])),
  mend('coils counted with a twentieth', 'vehicle', (d) => (load(d, 'coils').powerW = 3)),
  mend('heat without its blower', 'service-heat', (d) => (service(d, 'heat').withBlower = false)),
  mend('heat without a cut-out', 'service-heat', (d) => (service(d, 'heat').cutOut = false)),
  mend(
    'a heater’s cut-out that the network does not have',
    'device-heater',
    (d) => (d.devices['device-heater']!.thermalCut = 'none'),
  ),
  mend('a converter that gives a tenth', 'vehicle', (d) => (side(d).converterA = 7)),
  mend('a battery of 12 V in a vehicle of 24 V', 'vehicle', (d) => {
    const old = d.parts['fernhough-p110-24@1']!;
    d.parts['fernhough-x@1'] = {
      ...old,
      id: 'fernhough-x',
      data: { ...old.data, nominalV: 12.8 },
    } as typeof old;
    side(d).battery = 'fernhough-x@1';
  }),
  mend('24 V typed as 12', 'vehicle', (d) => (side(d).systemV = 13.8)),
  mend('coils of 12 V without a dropper', 'vehicle', (d) => (side(d).dropper = false)),
  mend('a school of a converter without one', 'vehicle', (d) => {
    delete side(d).converter;
    delete side(d).converterA;
  }),
  mend('a battery of four ampere-hours', 'vehicle', (d) => (side(d).batteryAh = 4)),
  mend('half a year untouched', 'vehicle', (d) => (side(d).parkedDays = 180)),
  note('a mains charger for ten hours of rain', 'vehicle', (d) =>
    Object.assign(side(d), { school: 'mains charger', mainsChargerA: 10, journeyH: 10 }),
  ),
  unchecked('a low voltage without a battery', 'lowVoltage.battery', (d) => delete side(d).battery),
  mend(
    'a converter’s window above the empty pack',
    'device-dcdc',
    (d) => (d.devices['device-dcdc']!.minV = 345),
  ),
  mend('the branch of the converter for a tenth of it', 'circuit-dcdc', (d) => {
    d.circuits['circuit-dcdc']!.loadProfile = [[60, 0.2]];
  }),
  mend('relays of 12 V at 24 V', 'load-headlamps', (d) => {
    const old = d.parts['hollin-r30-24@1']!;
    d.parts['hollin-r30-x@1'] = {
      ...old,
      id: 'hollin-r30-x',
      data: { ...old.data, coilV: 12 },
    } as typeof old;
    load(d, 'headlamps').relay = 'hollin-r30-x@1';
  }),
  note('a drop of 15 % allowed', 'lowVoltage', (d) => (side(d).maxDropFraction = 0.15)),
  note('a lead battery used to its last drop', 'vehicle', (d) => (side(d).usableFraction = 1)),
  mend('a fan of 12 V in a vehicle of 24', 'piece-radiator', (d) => {
    const old = d.parts['galewood-f305-24@1']!;
    d.parts['galewood-x@1'] = { ...old, id: 'galewood-x', data: { ...old.data, supplyV: 12 } } as typeof old;
    d.plumbing!['piece-radiator']!.fan = 'galewood-x@1';
  }),
  mend('pumps counted with the power of one', 'load-pumps', (d) => (load(d, 'pumps').powerW = 42)),
  mend(
    'a pump that is off while the charger is cooled by it',
    'piece-drive-pump',
    (d) => (load(d, 'pump-charge').when = 'driving'),
  ),
  mend(
    'a fan that nothing feeds while charging',
    'piece-drive-radiator',
    (d) => (d.plumbing!['piece-drive-radiator']!.loads = ['load-fans']),
  ),
  unchecked(
    'a pump of which nobody says what feeds it',
    'plumbing.piece-pump.loads',
    (d) => delete d.plumbing!['piece-pump']!.loads,
  ),
  // Looms.
  mend('two wires in one cavity', 'end-dash', (d) => (wire(d, 122).fromPin = 2)),
  mend('a cavity that is not there', 'end-left', (d) => (wire(d, 102).toPin = 9)),
  unchecked('a wire without a pin at a connector', 'wires.wire-102.toPin', (d) => delete wire(d, 102).toPin),
  mend('a wire that its pins cannot take', 'end-left', (d) => (wire(d, 102).wire = 'marl-v16@1')),
  mend('30 A through a pin', 'end-left', (d) =>
    Object.assign(wire(d, 102), { currentA: 30, wire: 'marl-v4@1', fuseA: 40 }),
  ),
  mend('a fuse far above its wire', 'wire-101', (d) => (wire(d, 101).fuseA = 60)),
  mend('a feed without a fuse', 'wire-111', (d) => delete wire(d, 111).fuseA),
  mend(
    'a wire back into its own connector, into a cavity that is taken',
    'end-wiper',
    (d) => (wire(d, 113).to = 'end-wiper'),
  ),
  mend('a sensor’s return at the ground of the lamps', 'end-ground', (d) => (wire(d, 206).to = 'end-ground')),
  mend(
    'a lamp’s return at the ground of the sensors',
    'end-sensors',
    (d) => (wire(d, 104).to = 'end-sensors'),
  ),
  unchecked('no way through the bundles', 'wires.wire-113.lengthM', (d) => delete d.bundles!['bundle-dash']),
  mend('a trunk in millimetres', 'bundle-trunk', (d) => (bundle(d, 'trunk').lengthM = 700)),
  note('a pilot twisted with a lamp', 'wire-201', (d) => (wire(d, 201).twistedWith = 'wire-102')),
  unchecked(
    'a connector of no part',
    'ends.end-left.connector',
    (d) => delete d.ends!['end-left']!.connector,
  ),
  unchecked('a wire of no part', 'wires.wire-102.wire', (d) => delete wire(d, 102).wire),
  mend('a splice with one wire', 'end-lamps', (d) => {
    delete d.wires!['wire-102'];
    delete d.wires!['wire-103'];
  }),
  mend(
    'the loads of a wire together above its fuse',
    'wire-131',
    (d) => (wire(d, 131).carries = ['load-pumps', 'load-wipers']),
  ),
  mend('a wire frozen with no length', 'wire-121', (d) => delete d.bundles!['bundle-trunk']),
  mend('a bundle from a fork to itself', 'bundle-left', (d) => (bundle(d, 'left').to = 'end-nose')),
  mend('a fuse at a wire unlike the one at its load', 'wire-131', (d) => (wire(d, 131).fuseA = 15)),
  unchecked(
    'a relay for a peak that nobody knows',
    'loads.load-air.peakW',
    (d) => delete load(d, 'air').peakW,
  ),
];

/** 12 V that is fed from a socket. */
export const truckLowVoltage: Mistake[] = [
  mend('a journey of a day on one battery', 'vehicle', (d) => (side(d).journeyH = 14)),
  mend('no charger for the battery', 'vehicle', (d) => delete side(d).mainsChargerA),
  mend('a battery of 24 V in a vehicle of 12 V', 'vehicle', (d) => {
    d.parts['fernhough-px@1'] = JSON.parse(JSON.stringify(d.parts['fernhough-p70@1']));
    Object.assign(d.parts['fernhough-px@1']!, { id: 'fernhough-px' });
    Object.assign(d.parts['fernhough-px@1']!.data, { nominalV: 25.6 });
    side(d).battery = 'fernhough-px@1';
  }),
  mend('coils of 24 V', 'vehicle', (d) => (d.settings.supplyV = 24)),
  mend('a horn with a thin, long wire', 'load-horn', (d) =>
    Object.assign(load(d, 'horn'), { wire: 'marl-v0-75@1', lengthM: 12 }),
  ),
  mend('working lamps left on for weeks', 'vehicle', (d) => (load(d, 'lamps').when = 'always')),
  mend(
    'a vacuum pump that starts with 500 A on a fuse of 15 A',
    'load-vacuum',
    (d) => (load(d, 'vacuum').peakW = 7000),
  ),
  mend('a servo without a successor', 'service-brake', (d) => {
    delete service(d, 'brake').successor;
    delete service(d, 'brake').load;
  }),
  note('a charger of one ampere for the battery', 'vehicle', (d) =>
    Object.assign(side(d), { mainsChargerA: 1, journeyH: 4 }),
  ),
];
