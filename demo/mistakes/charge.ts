import { mend, note, stop, unchecked, type Mistake } from '../../core/src/whole/design/mistakes/mistake';
import type { Design } from '@torvek/core/document';

type Kept<K extends 'supplies' | 'inlets' | 'cuts'> = NonNullable<Design[K]>[string];
const supply = (d: Design, id: string): Kept<'supplies'> => d.supplies![id]!;
const depot = (d: Design) => supply(d, 'supply-depot');
const hall = (d: Design) => supply(d, 'supply-hall');
const yard = (d: Design) => supply(d, 'supply-yard');
const store = (d: Design) => supply(d, 'supply-store');
const side = (d: Design): Kept<'inlets'> => d.inlets!['inlet-side']!;
const relay = (d: Design): Kept<'cuts'> => d.cuts!['cut-mains']!;
const charger = (d: Design) => d.devices['device-charger']!;
const inverter = (d: Design) => d.devices['device-inverter']!;
const limits = (d: Design) => d.limits!;

/** From the socket to the cells. */
export const busCharge: Mistake[] = [
  stop('an inlet that is rated for less than the pack has', 'inlet-side', (d) => {
    const part = d.parts[side(d).inlet!]!;
    if (part.kind === 'inlet') part.data.maxDcV = 50;
  }),
  mend('a window of the charger typed wider than it is made', 'device-charger', (d) => {
    charger(d).maxV = 480;
  }),
  mend('more amperes typed than the charger gives', 'device-charger', (d) => (charger(d).maxOutputA = 90)),
  mend('a load judged in the frost', 'load-coils', (d) => (d.loads!['load-coils']!.ambientC = 3)),
  mend('a charge controller that talks by another link', 'inlet-side', (d) => (side(d).stationLink = 'CAN')),
  mend('more devices to wake than the controller wakes', 'inlet-side', (d) => (side(d).wakes = 9)),
  mend('a controller of the pilot alone at an inlet for stations', 'inlet-side', (d) => {
    const part = d.parts[side(d).controller!]!;
    if (part.kind === 'controller') part.data.station = 'none';
  }),
  mend('a controller for 12 V in a vehicle of 24', 'inlet-side', (d) => {
    const part = d.parts[side(d).controller!]!;
    if (part.kind === 'controller') part.data.supplyMaxV = 16;
  }),

  note('a pilot of 63 A on a breaker of 20 A', 'supply-depot', (d) => (depot(d).offersA = 63)),
  mend('a breaker of 10 A on a wall box of 16 A', 'supply-depot', (d) => {
    delete depot(d).breaker;
    Object.assign(depot(d), { breakerA: 10, residual: 'B' });
  }),
  mend('other loads that fill the breaker of a socket', 'supply-hall', (d) => (hall(d).otherA = 14)),
  mend('a continuous share of a tenth', 'supply-depot', (d) => (depot(d).continuousFraction = 0.1)),
  mend('400 V typed as the phase voltage', 'supply-depot', (d) => (depot(d).phaseVoltageV = 400)),
  mend('a residual device of type AC before a charger', 'supply-depot', (d) => (depot(d).residual = 'AC')),
  mend('a coding in kilo-ohms', 'supply-depot', (d) => (depot(d).cableOhm = 0.22)),
  mend('a breaker that the inrush opens', 'supply-hall', (d) => {
    Object.assign(hall(d), { breakerA: 10, trip: 'B', otherA: 0 });
    const part = d.parts[charger(d).charger!]!;
    if (part.kind === 'charger') part.data.inrushA = 70;
  }),
  stop('a short circuit beyond what the breaker breaks', 'supply-workshop', (d) => {
    supply(d, 'supply-workshop').faultA = 12_000;
  }),
  note('a breaker before it that opens first', 'supply-depot', (d) => {
    Object.assign(depot(d), { upstreamA: 25, upstreamTrip: 'C' });
  }),
  mend('a breaker of two poles on three phases', 'supply-depot', (d) => {
    const part = d.parts[depot(d).breaker!]!;
    if (part.kind === 'breaker') part.data.poles = 2;
  }),
  unchecked(
    'a short circuit that nobody measured',
    'supplies.supply-hall.faultA',
    (d) => delete hall(d).faultA,
  ),
  unchecked(
    'a breaker before it of an unknown curve',
    'supplies.supply-depot.upstreamTrip',
    (d) => delete depot(d).upstreamTrip,
  ),
  unchecked(
    'a wall box whose pilot nobody read',
    'supplies.supply-depot.offersA',
    (d) => delete depot(d).offersA,
  ),
  mend('a station that begins above the pack', 'supply-yard', (d) => (yard(d).minV = 420)),
  mend('a station that ends below the pack', 'supply-yard', (d) => (yard(d).maxV = 200)),
  note('a station that ends before the pack is charged', 'supply-yard', (d) => (yard(d).maxV = 370)),
  mend('a station plugged into an inlet for the mains', 'supply-yard', (d) => (side(d).current = 'mains')),
  mend('mains through an inlet for stations alone', 'supply-depot', (d) => (side(d).current = 'station')),
  unchecked(
    'a station that nobody knows the current of',
    'supplies.supply-yard.maxA',
    (d) => delete yard(d).maxA,
  ),
  mend('charged to less than from where it begins', 'supply-yard', (d) =>
    Object.assign(yard(d), { fromFraction: 0.8, toFraction: 0.2 }),
  ),
  mend('charged beyond the window of the pack', 'supply-depot', (d) => (depot(d).toFraction = 1)),
  mend('kilowatts of a station in watts', 'supply-yard', (d) => (yard(d).maxW = 38)),
  mend('no lock at an inlet for a station', 'inlet-side', (d) => (side(d).lock = 'none')),
  mend('no release of the lock', 'inlet-side', (d) => (side(d).release = 'none')),
  note('a lock that nobody reads', 'inlet-side', (d) => (side(d).lockReadBack = false)),
  mend('drives off with the plug in', 'inlet-side', (d) => (side(d).driveInhibit = false)),
  mend('no weld check at the inlet', 'inlet-side', (d) => (side(d).weldCheck = false)),
  mend('two active insulation monitors', 'inlet-side', (d) => (side(d).monitorPauses = false)),
  mend('an inlet for stations without a sensor', 'inlet-side', (d) => (side(d).sensors = 0)),
  mend('one sensor for two contacts', 'inlet-side', (d) => (side(d).sensors = 1)),
  mend('thin wires behind the inlet', 'inlet-side', (d) => (side(d).wireA = 10)),
  mend('a thin neutral behind the inlet', 'inlet-side', (d) => (side(d).neutralA = 6)),
  unchecked(
    'an inlet without a figure for its wires',
    'inlets.inlet-side.wireA',
    (d) => delete side(d).wireA,
  ),
  mend('no independent cut at all', 'device-charger', (d) => delete d.cuts),
  mend('a cut that stays closed without power', 'cut-mains', (d) => (relay(d).opensUnpowered = false)),
  mend('a cut of one phase of three', 'cut-mains', (d) => (relay(d).everyPhase = false)),
  note('a cut that closes again by itself', 'cut-mains', (d) => (relay(d).latches = false)),
  note('a cut that latches, nobody knows where it is armed', 'cut-mains', (d) => delete relay(d).armedAt),
  mend('a cut below where the charger ends', 'cut-mains', (d) => (relay(d).voltageV = 4.05)),
  mend('a cut above what cells stand', 'cut-mains', (d) => (relay(d).voltageV = 4.3)),
  mend('a cut by the pack, at the sum of the highest cells', 'cut-mains', (d) =>
    Object.assign(relay(d), { level: 'pack', voltageV: 4.19 * 96 }),
  ),
  mend('a cut of the pack typed as one of cells', 'cut-mains', (d) => (relay(d).voltageV = 402)),
  note('a cut without a voltage', 'cut-mains', (d) => delete relay(d).voltageV),
  mend('a monitor that cuts above what cells stand', 'limits', (d) => (limits(d).cutHighV = 4.3)),
  mend('a warning above the cut', 'limits', (d) => (limits(d).warnHighV = 4.19)),
  mend('balancing that begins above the end of charge', 'limits', (d) => (limits(d).balanceFromV = 4.17)),
  mend('a warning below the lowest cut', 'limits', (d) => (limits(d).warnLowV = 2.9)),
  mend('a cut below what cells stand', 'limits', (d) => (limits(d).cutLowV = 2.5)),
  mend('cell limits of another chemistry', 'limits', (d) =>
    Object.assign(limits(d), {
      cutHighV: 3.65,
      warnHighV: 3.6,
      balanceFromV: 3.4,
      warnLowV: 2.8,
      cutLowV: 2.5,
    }),
  ),
  mend('a spread of half a volt allowed', 'limits', (d) => (limits(d).spreadMv = 500)),
  note('a monitor without an upper cut', 'vehicle', (d) => delete limits(d).cutHighV),
  mend('cold cells charged as warm ones', 'limits', (d) => (limits(d).chargeByTemperature = false)),
  mend('a charger that ends above full', 'device-charger', (d) => (charger(d).endV = 408)),
  note('a charger that ends far below full', 'device-charger', (d) => (charger(d).endV = 350)),
  mend('a charger that ends at the voltage of a cell', 'device-charger', (d) => (charger(d).endV = 4.1)),
  mend('a charger that gives more than cells take', 'device-charger', (d) => (charger(d).maxOutputA = 400)),
  note('a charger that does not start on an empty pack', 'device-charger', (d) => (charger(d).minV = 345)),
  stop('a charger whose output ends below the full pack', 'device-charger', (d) => (charger(d).maxV = 380)),
  mend(
    'a charger that is not parted from the mains',
    'device-charger',
    (d) => (charger(d).isolation = 'none'),
  ),
  mend('a charger without an end of its own', 'device-charger', (d) => (charger(d).ownCutOff = false)),
  note(
    'a three-phase charger hung on the second phase alone',
    'device-charger',
    (d) => (charger(d).phase = 2),
  ),
  mend('an efficiency of 40 %', 'device-charger', (d) => (charger(d).efficiencyFraction = 0.4)),
  mend('a charger’s input of 80 A on each phase', 'device-charger', (d) => (charger(d).maxInputA = 800)),
  mend('a pack said to be charged with 5 A', 'pack', (d) => (d.pack.chargeA = 5)),
  mend('a pack charged with five times its limit', 'pack', (d) => (d.pack.chargeA = 900)),
  mend('brakes into more than the cells stand', 'device-inverter', (d) => (inverter(d).regenMaxV = 420)),
  mend(
    'an inverter that stops above where it gives less',
    'device-inverter',
    (d) => (inverter(d).cutBelowV = 330),
  ),
  mend(
    'an inverter that stops below what cells stand',
    'device-inverter',
    (d) => (inverter(d).cutBelowV = 252),
  ),
  mend('an absolute maximum in the middle of the ladder', 'threshold-x', (d) => {
    d.thresholds = {
      ...d.thresholds,
      'threshold-x': { tag: 'X', role: 'absolute-max', level: 'cell', voltageV: 4.1 },
    };
  }),
  mend('a threshold of millivolts', 'threshold-x', (d) => {
    d.thresholds = {
      ...d.thresholds,
      'threshold-x': { tag: 'X', role: 'bms-warn-low', level: 'cell', voltageV: 3120 },
    };
  }),
  note('a threshold without its voltage', 'threshold-x', (d) => {
    d.thresholds = { ...d.thresholds, 'threshold-x': { tag: 'X', role: 'regen-limit', level: 'cell' } };
  }),
  mend(
    'steps of the ladder asked a third of a volt apart',
    'charging',
    (d) => (d.charging = { marginMv: 300 }),
  ),
  mend('the branch of the charger for a third of its current', 'circuit-charger', (d) => {
    d.circuits['circuit-charger']!.loadProfile = [[3600, 10]];
  }),
  mend('the branch of the inlet for a tenth of the station', 'circuit-inlet', (d) => {
    d.circuits['circuit-inlet']!.loadProfile = [[2400, 12]];
  }),
  mend(
    'one pole switched at the inlet',
    'circuit-inlet',
    (d) => (d.circuits['circuit-inlet']!.poles = 'plus'),
  ),
  mend('an inlet without contactors', 'circuit-inlet', (d) => {
    delete d.circuits['circuit-inlet']!.contactor;
    delete d.circuits['circuit-inlet']!.poles;
  }),
  unchecked(
    'a wall box of nobody knows how many phases',
    'supplies.supply-depot.phases',
    (d) => delete depot(d).phases,
  ),
  unchecked(
    'an insulation monitor, active or not',
    'devices.device-monitor.insulationMonitor',
    (d) => delete d.devices['device-monitor']!.insulationMonitor,
  ),
  note('how high the inverter brakes, left open', 'vehicle', (d) => delete inverter(d).regenMaxV),
  mend(
    'a heater of 50 kW on a cable for 5',
    'circuit-heater',
    (d) => (d.devices['device-heater']!.ratedPowerW = 50_000),
  ),
  mend(
    'a heater of a tenth of its load',
    'circuit-heater',
    (d) => (d.devices['device-heater']!.ratedPowerW = 500),
  ),
  note('a window with a digit too few', 'device-heater', (d) => (d.devices['device-heater']!.minV = 24)),
];

/** The same from one phase, for the truck. */
export const truckCharge: Mistake[] = [
  note('a wall box of 32 A on a breaker of 20 A', 'supply-store', (d) => (store(d).offersA = 32)),
  mend('a residual device of type AC', 'supply-store', (d) => (store(d).residual = 'AC')),
  unchecked('no residual device known of', 'supplies.supply-store.residual', (d) => {
    delete store(d).residual;
    delete store(d).breaker;
    store(d).breakerA = 20;
  }),
  mend(
    'a cut of the enable that needs power',
    'cut-enable',
    (d) => (d.cuts!['cut-enable']!.opensUnpowered = false),
  ),
  mend('a cut of another chemistry', 'cut-enable', (d) => (d.cuts!['cut-enable']!.voltageV = 4.2)),
  mend('a charger set for another chemistry', 'device-charger', (d) => (charger(d).endV = 151.2)),
  note('a charger that ends with the pack half full', 'supply-store', (d) => (charger(d).endV = 100)),
  mend('wires of the inlet for less than the pilot', 'inlet-bed', (d) => (d.inlets!['inlet-bed']!.wireA = 8)),
  mend('an inlet for less than the pilot', 'inlet-bed', (d) => (d.inlets!['inlet-bed']!.ratedA = 6)),
  unchecked(
    'nobody knows whether it drives off with the plug in',
    'inlets.inlet-bed.driveInhibit',
    (d) => delete d.inlets!['inlet-bed']!.driveInhibit,
  ),
  unchecked('a charger without a supply', 'supplies', (d) => delete d.supplies),
  unchecked('a charger without an inlet', 'inlets', (d) => delete d.inlets),
  note('a monitor without limits', 'vehicle', (d) => delete d.limits),
  unchecked('an inlet of no part', 'inlets.inlet-bed.ratedA', (d) => delete d.inlets!['inlet-bed']!.inlet),
  note('a window with a digit too many', 'device-inverter', (d) => (inverter(d).maxV = 1500)),
];
