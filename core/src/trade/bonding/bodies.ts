import { bondDefaults, type BondItem, type CircuitItem, type Design, type Id } from '../../model/document';
import { resistancePerM } from '../../model/parts';

/** A conductive body of the high-voltage system that one could touch. */
export interface Body {
  id: Id;
  tag: string;
  /** Whose fuse clears a fault to it. */
  circuit: Id;
}

export type BodySlices = Pick<Design, 'boxes' | 'devices' | 'circuits' | 'bonds'>;

/** Whether any part of a cable’s way is steel. */
export const inConduit = ({ install, stretches = [] }: CircuitItem): boolean =>
  install === 'steel-conduit' || stretches.some((one) => one.install === 'steel-conduit');

/**
 * Every body that a fault could make live: boxes, devices, conduits, and what the design adds of its own.
 *
 * @param main the circuit that boxes and added bodies belong to
 * @param feeds the circuit that feeds a device
 */
export function bodiesOf(
  { boxes, devices, circuits, bonds = {} }: BodySlices,
  main: Id,
  feeds: (device: Id) => Id | null,
): Body[] {
  const known: Body[] = [
    ...Object.entries(boxes).map(([id, { tag }]) => ({ id, tag, circuit: main })),
    ...Object.entries(devices).map(([id, { tag }]) => ({ id, tag, circuit: feeds(id) ?? main })),
    ...Object.entries(circuits).flatMap(([id, circuit]) =>
      inConduit(circuit) ? [{ id, tag: `Conduit of ${circuit.tag}`, circuit: id }] : [],
    ),
  ];
  const ids = new Set(known.map(({ id }) => id));
  const own = Object.entries(bonds).flatMap(([id, { tag }]) =>
    ids.has(id) || tag === undefined ? [] : [{ id, tag, circuit: main }],
  );
  return [...known, ...own];
}

/** Both ends of a bond where the design does not say, Ω. */
export const defaultContactOhm = bondDefaults.contactOhm;

/** Resistance of one bond, Ω at 20 °C; null: it is not given, or there is none. */
export function bondOhm({ by, areaMm2, lengthM, contactOhm = defaultContactOhm }: BondItem): number | null {
  if (by === 'bolted') return contactOhm;
  if (by !== 'strap' || areaMm2 === undefined || lengthM === undefined) return null;
  const perM = resistancePerM(areaMm2, 20);
  return Number.isFinite(perM) && lengthM >= 0 && contactOhm >= 0 ? lengthM * perM + contactOhm : null;
}

/**
 * The bonds from a body to the chassis, one after another.
 *
 * @returns null when the way leads in a circle
 */
export function bondPath(bonds: Readonly<Record<Id, BondItem>>, body: Id): Id[] | null {
  const path: Id[] = [];
  for (let at: Id | undefined = body; at !== undefined; at = bonds[at]?.to) {
    if (path.includes(at)) return null;
    path.push(at);
  }
  return path;
}
