import type { Design } from '@torvek/core/document';
import { catalogueOf } from '@torvek/core/parts';
import { pin } from '@torvek/core/pack';

const supply = (draft: Design, id = 'depot') => draft.supplies![`supply-${id}`]!;
const inlet = (draft: Design) => draft.inlets!['inlet-side']!;
const cut = (draft: Design) => draft.cuts!['cut-mains']!;
const load = (draft: Design, id: string) => draft.loads![`load-${id}`]!;
/** A mat for the low voltage in the nose, fed as the pumps are. */
const heaterOn12V = (draft: Design) => {
  const part = catalogueOf('heater').find(({ id }) => id === 'emberley-m250-12')!;
  Object.assign(draft.boxes['box-nose']!, {
    heater: pin(draft, part),
    heaterVoltage: '12 V',
    heaterLoads: ['load-pumps'],
  });
};
const wire = (draft: Design, id: string) => draft.wires![`wire-${id}`]!;
const end = (draft: Design, id: string) => draft.ends![`end-${id}`]!;
const service = (draft: Design, id: string) => draft.services![`service-${id}`]!;
const adapter = (draft: Design) => draft.adapters!['adapter-instruments']!;
const relay = (draft: Design, id: string) =>
  pin(
    draft,
    catalogueOf('relay').find((part) => part.id === id)!,
  );
const controller = (draft: Design, id: string) => {
  inlet(draft).controller = pin(
    draft,
    catalogueOf('controller').find((part) => part.id === id)!,
  );
};
const charger = (draft: Design) => draft.devices['device-charger']!;

/** For each rule of charging and of the low voltage that the evaluation can raise: what is wrong about the bus when it is raised. */
export const wrongCharge: Record<string, (draft: Design) => void> = {
  'charge.above-said': (draft) => void (draft.pack.chargeA = 25),
  'looms.wire-short': (draft) => void (wire(draft, '201').lengthM = 0.05),
  'charge.over-part': (draft) => void (charger(draft).maxOutputA = 60),
  'charge.inlet-voltage': (draft) => {
    const part = draft.parts[inlet(draft).inlet!]!;
    (part.data as { maxDcV: number }).maxDcV = 300;
  },
  'charge.warm-supply': (draft) => void (supply(draft, 'hall').offersA = 1.3),
  'charge.cold-rate': (draft) => {
    draft.cooling!.cellChargeMinC = 0;
    delete draft.limits!.chargeByTemperature;
  },
  'charge.controller-mute': (draft) => void (inlet(draft).stationLink = 'CAN'),
  'low-voltage.controller-supply': (draft) => controller(draft, 'larkhythe-s4'),
  'charge.controller-wakes': (draft) => void (inlet(draft).wakes = 5),
  'charge.controller-sensors': (draft) => void (inlet(draft).sensors = 5),
  'charge.controller-lock': (draft) => controller(draft, 'larkhythe-k2'),
  'charge.breaker-trips': (draft) => void (supply(draft).continuousFraction = 0.7),
  'charge.inrush-trips': (draft) => void Object.assign(supply(draft), { breakerA: 6, trip: 'B' }),
  'charge.breaking': (draft) => void (supply(draft).faultA = 9000),
  'charge.not-selective': (draft) => void (supply(draft).upstreamA = 25),
  'charge.breaker-poles': (draft) => {
    const part = draft.parts['dunmarsh-c20-4b@1']!;
    if (part.kind === 'breaker') part.data.poles = 2;
  },
  'charge.inlet-wire': (draft) => void (inlet(draft).wireA = 12),
  'charge.neutral': (draft) => {
    charger(draft).phase = 1;
    inlet(draft).neutralA = 10;
  },
  'charge.no-one-phase': (draft) => void (charger(draft).phase = 2),
  'charge.residual': (draft) => void (supply(draft).residual = 'AC'),
  'charge.no-independent-stop': (draft) => void (draft.cuts = {}),
  'charge.cut-needs-power': (draft) => void (cut(draft).opensUnpowered = false),
  'charge.cut-one-phase': (draft) => void (cut(draft).everyPhase = false),
  'charge.cut-rearms': (draft) => void delete cut(draft).armedAt,
  'charge.no-release': (draft) => void (inlet(draft).release = 'none'),
  'charge.lock-unread': (draft) => void (inlet(draft).lockReadBack = false),
  'charge.no-lock': (draft) => void (inlet(draft).lock = 'none'),
  'charge.no-drive-inhibit': (draft) => void (inlet(draft).driveInhibit = false),
  'charge.no-weld-check': (draft) => void (inlet(draft).weldCheck = false),
  'charge.hot-inlet': (draft) => void (inlet(draft).sensors = 1),
  'charge.two-monitors': (draft) => void (inlet(draft).monitorPauses = false),
  'charge.pilot-breaker': (draft) => void (supply(draft).offersA = 32),
  'charge.no-such-inlet': (draft) => void (inlet(draft).current = 'mains'),
  'charge.beyond-window': (draft) => void (supply(draft).toFraction = 1),
  'charge.no-supply': (draft) => {
    charger(draft).phase = 3;
    for (const one of Object.values(draft.supplies!)) one.phases = 1;
  },
  'charge.branch-load': (draft) => void (draft.circuits['circuit-charger']!.loadProfile = [[3600, 20]]),
  'charge.ladder-open': (draft) => void delete charger(draft).endV,
  'charge.pack-hides-cell': (draft) => {
    charger(draft).endV = 402;
    delete draft.limits!.cutHighV;
    Object.assign(cut(draft), { level: 'pack', voltageV: 402.6 });
  },
  'threshold-ladder.order': (draft) => void (charger(draft).endV = 399),
  'threshold-ladder.outside-cell': (draft) => void (cut(draft).voltageV = 4.26),
  'dcfc-window.none': (draft) => void Object.assign(supply(draft, 'yard'), { minV: 500, maxV: 900 }),
  'dcfc-window.part': (draft) => void Object.assign(supply(draft, 'yard'), { minV: 360, maxV: 900 }),
  'charge-curve.not-full': (draft) => void (charger(draft).endV = 350),
  'ac-charge.outside-window': (draft) => void (charger(draft).minV = 345),

  'low-voltage.battery-short': (draft) => void (draft.lowVoltage!.school = 'mains charger'),
  'low-voltage.converter-fails': (draft) => void (draft.lowVoltage!.batteryAh = 20),
  'low-voltage.parked-flat': (draft) => void (draft.lowVoltage!.parkedDays = 40),
  'low-voltage.unfed': (draft) => void delete draft.lowVoltage!.converter,
  'low-voltage.source-ends': (draft) => void delete draft.lowVoltage!.sourceFuseA,
  'low-voltage.source-thin': (draft) => void (draft.lowVoltage!.sourceAreaMm2 = 10),
  'low-voltage.source-fuse': (draft) => void (draft.lowVoltage!.batteryFuseA = 100),
  'low-voltage.above-accessories': (draft) => void (draft.vehicle.accessoriesW = 400),
  'low-voltage.two-voltages': (draft) => void delete draft.lowVoltage!.dropper,
  'low-voltage.peak-sag': (draft) => void (load(draft, 'air').peakW = 25_000),
  'low-voltage.peak-battery': (draft) => void (load(draft, 'air').peakW = 6000),
  'low-voltage.wire-thin': (draft) => void (load(draft, 'tail').wire = 'marl-v0-75@1'),
  'low-voltage.fuse-wide': (draft) => void (load(draft, 'clock').fuseA = 20),
  'low-voltage.fuse-tight': (draft) => void (load(draft, 'headlamps').fuseA = 5.5),
  'low-voltage.fuse-small': (draft) => void (load(draft, 'steering').fuseA = 20),
  'low-voltage.peak-odd': (draft) => void (load(draft, 'wipers').peakW = 90),
  'low-voltage.two-ratings': (draft) => void (load(draft, 'plate').fuseA = 7.5),
  'low-voltage.fed-voltage': (draft) => void (draft.lowVoltage!.systemV = 20),
  'low-voltage.usable-above': (draft) => void (draft.lowVoltage!.usableFraction = 0.98),
  'low-voltage.refill': (draft) =>
    void Object.assign(draft.lowVoltage!, { school: 'mains charger', mainsChargerA: 4 }),
  'low-voltage.service-idle': (draft) => void (load(draft, 'air').when = 'charging'),
  'low-voltage.part-voltage': (draft) => {
    draft.plumbing!['piece-pump']!.pump = pin(
      draft,
      catalogueOf('pump').find((part) => part.id === 'tarnbeck-c45')!,
    );
  },
  'low-voltage.coils-less': (draft) => void (load(draft, 'coils').powerW = 8),
  'low-voltage.coils-when': (draft) => void (draft.lowVoltage!.coilLoads = ['load-coils']),
  'low-voltage.heater-fed': (draft) => {
    heaterOn12V(draft);
    load(draft, 'pumps').when = 'driving';
  },
  'low-voltage.fed-less': (draft) => void (load(draft, 'pumps').powerW = 120),
  'low-voltage.fed-when': (draft) => void (draft.plumbing!['piece-drive-pump']!.loads = ['load-pumps']),
  'low-voltage.before-fuse': (draft) => void (load(draft, 'tail').toFuseM = 0.6),
  'low-voltage.shared-fuse': (draft) => {
    load(draft, 'wipers').behind = 'F7';
    load(draft, 'blower').behind = 'F7';
  },
  'low-voltage.group-fuse': (draft) => {
    load(draft, 'wipers').behind = 'F3';
  },
  'low-voltage.relay-small': (draft) => void (load(draft, 'headlamps').peakW = 4000),
  'low-voltage.relay-coil': (draft) => void (load(draft, 'headlamps').relay = relay(draft, 'hollin-r30')),
  'low-voltage.relay-bare': (draft) => void (load(draft, 'headlamps').relay = relay(draft, 'hollin-r30n')),
  'low-voltage.no-successor': (draft) => void delete service(draft, 'brake').load,
  'low-voltage.no-warning': (draft) => void (service(draft, 'brake').warns = false),
  'low-voltage.service-shed': (draft) => void (load(draft, 'air').essential = false),
  'low-voltage.heat-unguarded': (draft) => void (service(draft, 'heat').cutOut = false),
  'low-voltage.brake-reserve': (draft) => void (service(draft, 'brake').reserveCount = 2),
  'twelve-volt.converter-small': (draft) => void (draft.lowVoltage!.converterA = 40),
  'twelve-volt.high-rate': (draft) =>
    void Object.assign(draft.lowVoltage!, { school: 'mains charger', mainsChargerA: 20 }),
  'wire-12v.none-fits': (draft) => void (load(draft, 'steering').lengthM = 900),
  'wire-12v.fuse-near': (draft) => {
    Object.assign(load(draft, 'tail'), { powerW: 260, lengthM: 0.4, returnLengthM: 0.4 });
    delete load(draft, 'tail').fuseA;
  },

  'looms.pin-twice': (draft) => void (wire(draft, '122').fromPin = 2),
  'looms.no-such-pin': (draft) => void (wire(draft, '102').toPin = 9),
  'looms.wire-unfit': (draft) => void (wire(draft, '131').wire = 'marl-v6@1'),
  'looms.pin-hot': (draft) => void (wire(draft, '121').currentA = 12),
  'looms.wire-hot': (draft) => void (wire(draft, '121').fuseA = 20),
  'looms.fuse-small': (draft) => void (wire(draft, '111').fuseA = 5),
  'looms.fuse-differs': (draft) => void (wire(draft, '131').fuseA = 10),
  'looms.no-way': (draft) => void delete draft.bundles!['bundle-inlet'],
  'looms.lone-splice': (draft) => {
    delete draft.wires!['wire-102'];
    delete draft.wires!['wire-103'];
  },
  'looms.bundle-nowhere': (draft) => void (draft.bundles!['bundle-left']!.to = 'end-nose'),
  'looms.no-fuse': (draft) => void delete wire(draft, '131').fuseA,
  'looms.sense-ground': (draft) => void (wire(draft, '132').to = 'end-sensors'),
  'looms.alike': (draft) => void (end(draft, 'right').place = 'nose, left'),
  'looms.adapter-twice': (draft) => void (adapter(draft).pins![2] = [3, 4]),
  'looms.adapter-pin': (draft) => void (adapter(draft).pins![2] = [3, 7]),
  'looms.adapter-open': (draft) => void adapter(draft).pins!.pop(),
  'looms.adapter-hot': (draft) => void Object.assign(wire(draft, '121'), { currentA: 30, fuseA: 30 }),
  'looms.colour-differs': (draft) => void (wire(draft, '104').colour = 'brown'),
  'looms.colour-twice': (draft) => void (draft.colours!['colour-sense']!.colour = 'Black'),
  'looms.open-end': (draft) => void delete wire(draft, '113').to,
  'looms.twist': (draft) => void (wire(draft, '202').to = 'end-dash'),
};

/** What the bus does not have, as it should be. */
export const rightCharge: Record<string, (draft: Design) => void> = {
  'low-voltage.heater-fed': (draft) => {
    heaterOn12V(draft);
    load(draft, 'pumps').when = 'always';
  },
};
