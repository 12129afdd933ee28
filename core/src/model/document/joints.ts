import { list, oneOf } from '../../ground/shape';
import { choice, chosen, defaultsOf, num, other, refer, tag, words, type ItemOf } from './field';
import { pollutionDegrees } from './pack';

/** Where joints of a kind are: on the modules’ posts, at the cables’ lugs, at the ends of bus bars. */
export const jointPlaces = ['modules', 'lugs', 'bars'] as const;
export type JointPlace = (typeof jointPlaces)[number];

/** What a face that carries current is made of, outermost. */
export const faces = ['copper', 'tin', 'nickel', 'silver', 'brass', 'aluminium'] as const;
export type Face = (typeof faces)[number];

export const preparations = ['none', 'brushed', 'brushed-paste'] as const;
export type Preparation = (typeof preparations)[number];

/** Property classes of bolts and studs. */
export const boltClasses = ['4.6', '4.8', '5.8', '8.8', '10.9', 'A2-70', 'A4-80'] as const;
export type BoltClass = (typeof boltClasses)[number];

/** What the thread goes into. */
export const threadMetals = ['steel', 'brass', 'copper', 'aluminium'] as const;
export type ThreadMetal = (typeof threadMetals)[number];

/** What lies on a stud, from the bottom. */
export const stackItems = ['post', 'bar', 'lug', 'washer', 'spring', 'nut', 'bolt'] as const;
export type StackItem = (typeof stackItems)[number];

export const crimpSchools = ['crimp', 'crimp-solder'] as const;
export type CrimpSchool = (typeof crimpSchools)[number];

/** A kind of joint: how all joints of one make are made. */
export const jointFields = {
  tag,
  on: chosen('Where', jointPlaces),
  /** Lugs of this circuit alone, on its studs; absent: of every circuit with studs of this size, or of any size. */
  circuit: refer('Lugs of', 'circuits'),
  studMm: num('Stud, M', 'mm', { asNamed: true, usual: [3, 24] }),
  boltClass: choice('Class of the bolts', boltClasses),
  torqueNm: num('Torque', 'N·m', { usual: [0.2, 300] }),
  /** How far the thread is in. */
  engagementMm: num('Thread that is in', 'mm', { usual: [1, 60] }),
  threadIn: choice('Metal of the thread', threadMetals),
  /** The two faces that meet. */
  face: choice('First face', faces),
  otherFace: choice('Second face', faces),
  preparation: choice('Prepared', preparations),
  /** How dirty it gets there. */
  pollution: choice('Pollution degree', pollutionDegrees),
  /** From the bottom to the top. */
  stack: other<StackItem[]>('Stack', list.optional(oneOf(stackItems), { maxRows: 20 })),
  /** Of the lugs. */
  crimp: choice('Crimped', crimpSchools),
  die: words('Die'),
  /** Torqued again so many days after the first time. */
  retorqueDays: num('Torqued again after', 'd', { usual: [0, 2000] }),
  /** What a joint of this kind may have at the most. */
  limitOhm: num('Resistance allowed', 'Ω', { shown: { unit: 'µΩ', scale: 1e-6 }, usual: [1e-6, 0.01] }),
};
export interface JointItem extends ItemOf<typeof jointFields> {}

/** How a conductive body is held at the chassis’ potential. */
export const bondWays = ['strap', 'bolted', 'none', 'not-conductive'] as const;
export type BondWay = (typeof bondWays)[number];

/** The bond of a body that one could touch: a box, a device, a conduit, or one of its own such as a bracket. */
export const bondFields = {
  /** Of a body that stands nowhere else in the design. */
  tag: words('Name'),
  by: choice('Bonded by', bondWays),
  /** Another body that the strap goes to; absent: the chassis. */
  to: words('To'),
  areaMm2: num('Area', 'mm²', { usual: [0.2, 300] }),
  lengthM: num('Length', 'm', { usual: [0.01, 10] }),
  /** Both ends of the strap, or the bolted faces. */
  contactOhm: num('Contacts', 'Ω', {
    shown: { unit: 'mΩ', scale: 0.001 },
    fallback: 0.001,
    usual: [1e-5, 0.2],
  }),
};
export interface BondItem extends ItemOf<typeof bondFields> {}
export const bondDefaults = defaultsOf(bondFields);

/** How the screen of a cable ends. */
export const screenEnds = ['clamp', 'pigtail', 'open'] as const;
export type ScreenEnd = (typeof screenEnds)[number];

/** How one sees that a cable is one of high voltage. */
export const sheaths = ['orange', 'orange-sleeve', 'other'] as const;
export type Sheath = (typeof sheaths)[number];

/** Thin sense leads: orange as well, or in a sleeve of another colour that leaves the orange to the dangerous cables. */
export const senseMarkings = ['orange', 'sleeve'] as const;
export type SenseMarking = (typeof senseMarkings)[number];
