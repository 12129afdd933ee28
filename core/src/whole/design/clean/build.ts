import {
  mainCircuit,
  type CircuitItem,
  type Design,
  type DeviceItem,
  type Id,
  type JointItem,
  type LeadItem,
} from '../../../model/document';
import { catalogued, type Part, type PartKey } from '../../../model/parts';

/** A box: where it sits, how large it is, and what its fasteners hold. */
export interface Box {
  tag: string;
  at: [xM: number, yM: number, zM: number];
  size: [lengthM: number, widthM: number, heightM: number];
  emptyKg: number;
  anchors: number;
  anchorN: number;
}

type Profile = [durationS: number, currentA: number][];

/** A circuit by its parts. */
export interface Way {
  tag: string;
  device: Id;
  contactor?: PartKey;
  resistor?: PartKey;
  fuse: PartKey;
  cable: PartKey;
  lug: PartKey;
  gland: PartKey;
  studMm: number;
  lengthM: number;
  loadProfile: Profile;
  more?: Partial<CircuitItem>;
}

export interface Spec {
  vehicle: Design['vehicle'];
  pack: Design['pack'];
  settings?: Design['settings'];
  module: PartKey;
  /** Boxes of a string’s modules, from its negative end; every string lies alike. */
  placing: Id[];
  strings: number;
  stringParts?: Partial<Design['strings'][Id]>;
  boxes: Record<Id, Box>;
  clearanceMm: number;
  creepageMm: number;
  masses: Design['masses'];
  devices: Record<Id, DeviceItem>;
  main: Way;
  branches: Record<Id, Way>;
  /** Studs of the posts and their torque. */
  posts: Partial<JointItem>;
  /** What parts each string by hand, and what parts the pre-charge. */
  disconnect: PartKey;
  prechargeContactor: PartKey;
  /** Its cables from box to box; their resistance is beside that of the links. */
  leads?: Record<Id, LeadItem>;
  /** Of the boxes’ straps; 16 where it does not say. */
  strapMm2?: number;
}

const lugs = (studMm: number, torqueNm: number): JointItem => ({
  tag: `Lugs on M${studMm}`,
  on: 'lugs',
  studMm,
  boltClass: '8.8',
  torqueNm,
  engagementMm: studMm,
  threadIn: 'steel',
  face: 'tin',
  otherFace: 'tin',
  preparation: 'brushed',
  stack: ['bar', 'lug', 'washer', 'spring', 'nut'],
  crimp: 'crimp',
  retorqueDays: 90,
});
const lugTorqueNm: Record<number, number> = { 5: 5, 6: 9, 8: 20, 10: 38, 12: 65 };

/** A design from a spec: everything said, nothing left to a default that a finding would ask about. */
export function build(spec: Spec): Design {
  const keys = new Set<PartKey>();
  const use = <K extends PartKey | undefined>(key: K): K => {
    if (key !== undefined) keys.add(key);
    return key;
  };
  use(spec.module);
  const rows = Array.from({ length: spec.strings }, (_, s) =>
    spec.placing.map((box, i) => ({
      id: `module-${s + 1}-${i + 1}`,
      tag: `S${s + 1}-M${i + 1}`,
      string: `string-${s + 1}`,
      box,
    })),
  ).flat();
  use(spec.stringParts?.fuse);
  use(spec.stringParts?.contactor);
  use(spec.disconnect);
  use(spec.prechargeContactor);
  for (const { cable, lug, gland } of Object.values(spec.leads ?? {})) [cable, lug, gland].forEach(use);
  const circuit = (way: Way, role: CircuitItem['role']): CircuitItem => {
    for (const key of [way.contactor, way.resistor, way.fuse, way.cable, way.lug, way.gland]) use(key);
    const { more, ...own } = way;
    return {
      role,
      // A plug for the area of the cable.
      plug: use(way.cable.replace('marl-x', 'tarrowby-t')),
      ...(way.resistor !== undefined && { prechargeContactor: spec.prechargeContactor }),
      ends: 'interlocked',
      install: 'free-air',
      ambientC: 35,
      fuseAmbientC: 35,
      screened: true,
      screenFrom: 'clamp',
      screenTo: 'clamp',
      sheath: 'orange',
      ...(way.contactor !== undefined && { poles: 'both', suppression: 'diode-zener' }),
      ...own,
      ...more,
    };
  };
  const circuits = {
    [mainCircuit]: circuit(spec.main, 'main'),
    ...Object.fromEntries(
      Object.entries(spec.branches).map(([id, way]): [Id, CircuitItem] => [id, circuit(way, 'branch')]),
    ),
  };
  const amps = (ids: Id[]) => ids.flatMap((id) => circuits[id]!.loadProfile!.map(([, a]) => a));
  const chargers = Object.keys(spec.branches).filter(
    (id) => spec.devices[spec.branches[id]!.device]?.kind === 'charger',
  );
  const studs = [...new Set(Object.values(circuits).map(({ studMm }) => studMm!))];
  return {
    schema: 1,
    vehicle: spec.vehicle,
    pack: {
      ...spec.pack,
      ...(spec.leads !== undefined && { leads: spec.leads }),
      chargeA: Math.max(...amps(chargers)),
      regenPeakA: Math.max(30, ...amps([mainCircuit]).map((a) => -a)),
      sense: { 'sense-all': { tag: 'Sense leads', fused: 'tap', fuseA: 0.2, fuseV: 1000 } },
    },
    settings: { anchorG: 20, supplyV: 12, zone: 'Europe/London', ...spec.settings },
    masses: spec.masses,
    parts: Object.fromEntries([...keys].map((key): [PartKey, Part] => [key, pinnedPart(key)])),
    modules: Object.fromEntries(
      rows.map(({ id, tag, box }, i): [Id, Design['modules'][Id]] => [
        id,
        { tag, box, part: spec.module, plusSide: i % 2 === 0 ? 'left' : 'right' },
      ]),
    ),
    boxes: Object.fromEntries(
      Object.entries(spec.boxes).map(([id, { tag, at, size, emptyKg, anchors, anchorN }]) => [
        id,
        {
          tag,
          xM: at[0],
          yM: at[1],
          zM: at[2],
          lengthM: size[0],
          widthM: size[1],
          heightM: size[2],
          emptyKg,
          liftPoints: 4,
          liftKg: 1000,
          anchors,
          anchorN,
          accessFrom: 'above',
          vent: 'filtered',
          clearanceMm: spec.clearanceMm,
          creepageMm: spec.creepageMm,
          lowVoltageGapMm: 20,
          lowVoltageCreepMm: 20,
          pollution: 2,
          material: 'IIIa',
        },
      ]),
    ),
    strings: Object.fromEntries(
      Array.from({ length: spec.strings }, (_, s) => [
        `string-${s + 1}`,
        {
          tag: `S${s + 1}`,
          modules: rows.filter(({ string }) => string === `string-${s + 1}`).map(({ id }) => id),
          ends: 'interlocked' as const,
          disconnect: spec.disconnect,
          ...spec.stringParts,
        },
      ]),
    ),
    devices: spec.devices,
    circuits,
    joints: {
      'joint-posts': {
        tag: 'Posts of the modules',
        on: 'modules',
        boltClass: 'A2-70',
        threadIn: 'brass',
        face: 'nickel',
        otherFace: 'nickel',
        preparation: 'brushed',
        stack: ['post', 'bar', 'washer', 'spring', 'bolt'],
        retorqueDays: 90,
        ...spec.posts,
      },
      ...Object.fromEntries(studs.map((mm) => [`joint-m${mm}`, lugs(mm, lugTorqueNm[mm]!)])),
    },
    bonds: Object.fromEntries([
      ...Object.keys(spec.boxes).map(
        (id) => [id, { by: 'strap', areaMm2: spec.strapMm2 ?? 16, lengthM: 0.3 }] as const,
      ),
      ...Object.keys(spec.devices).map((id) => [id, { by: 'bolted' }] as const),
    ]),
  };
}

function pinnedPart(key: PartKey): Part {
  const found = catalogued(key);
  if (found === undefined) throw new Error(`${key} is none of the catalogue`);
  return JSON.parse(JSON.stringify(found)) as Part;
}
