import type { CircuitItem, Id, Install, RoutedStretch } from '../../model/document';
import type { Gap } from '../../ground/figure';
import { partKey, type PartOf } from '../../model/parts';
import { figureId } from '../../ground/figure';
import { Inputs, type Reader } from '../../model/step';

/** A part of a cable’s way with one installation and one ambient; a cable that says nothing of parts has one. */
export interface Way {
  /** null: the whole cable. */
  tag: string | null;
  /** Where it lies in the design. */
  at: string;
  /** Where what it does not say itself lies. */
  circuitAt: string;
  /** Where its length follows from. */
  lengthAt: string;
  own: Pick<
    CircuitItem,
    'lengthM' | 'ambientC' | 'install' | 'grouped' | 'conduitInnerMm' | 'conduitOuterMm'
  >;
}

/** The parts of a circuit’s cable, from the source on. */
export function waysOf(circuit: CircuitItem, subject: Id): Way[] {
  const circuitAt = `circuits.${subject}`;
  const { stretches = [] } = circuit;
  return stretches.length === 0
    ? [{ tag: null, at: circuitAt, circuitAt, lengthAt: `${circuitAt}.lengthM`, own: circuit }]
    : stretches.map((own, i) => {
        const { run } = own as Partial<RoutedStretch>;
        if (run !== undefined)
          return { tag: own.tag, at: `runs.${run}`, circuitAt, lengthAt: `runs.${run}.points`, own };
        const at = `${circuitAt}.stretches.${i}`;
        return { tag: own.tag, at, circuitAt, lengthAt: `${at}.lengthM`, own };
      });
}

/** Length of a cable, one way, and what of it is not given or cannot be. */
export function lengthOf(circuit: CircuitItem, subject: Id): { lengthM: number; gaps: Gap[] } {
  const ways = waysOf(circuit, subject);
  const gaps = ways.flatMap(({ tag, lengthAt: path, own }): Gap[] => {
    const label = tag === null ? 'length of the cable' : `length of ${tag}`;
    if (own.lengthM === undefined) return [{ kind: 'not-given', path, label }];
    return own.lengthM > 0 ? [] : [{ kind: 'invalid', path, label, message: 'must be above 0' }];
  });
  return { lengthM: ways.reduce((sum, { own }) => sum + (own.lengthM ?? 0), 0), gaps };
}

export function chosenCablePart(read: Reader, key: string | undefined): PartOf<'cable'> | null {
  const part = key === undefined ? undefined : read.at('parts', key);
  return part?.kind === 'cable' ? part : null;
}

/** A run says nothing of how warm it is where it leads: that is the circuit’s. */
const onlyOfCircuits = (at: string, field: string) =>
  at.startsWith('runs.') && (field === 'ambientC' || field === 'grouped' || field === 'install');

/** Where one part of a circuit’s cable lies. */
export function placeInputs(
  { tag, at, circuitAt, lengthAt, own }: Way,
  circuit: CircuitItem,
  read: Reader,
): Inputs {
  const inputs = new Inputs(read);
  const of = tag === null ? 'the cable' : tag;
  /** Its own value, or the whole cable’s. */
  const either = <K extends keyof Way['own']>(field: K): [value: Way['own'][K], path: string] =>
    own[field] !== undefined || (circuit[field] === undefined && !onlyOfCircuits(at, field))
      ? [own[field], `${at}.${field}`]
      : [circuit[field], `${circuitAt}.${field}`];
  inputs.given('lengthM', own.lengthM, lengthAt, `length of ${of}`);
  const [ambientC, ambientAt] = either('ambientC');
  inputs.given('ambientC', ambientC, ambientAt, `ambient of ${of}`);
  const [install, installAt] = either('install');
  inputs.orDefault<Install>('install', install, 'free-air', installAt, 'installation');
  for (const [field, label] of [
    ['conduitInnerMm', 'inner diameter of the conduit'],
    ['conduitOuterMm', 'outer diameter of the conduit'],
  ] as const) {
    const [value, path] = either(field);
    inputs.optional(field, value, path, label);
  }
  inputs.optional('parallel', circuit.parallel, `${circuitAt}.parallel`, 'conductors in parallel');
  const [grouped, groupedAt] = either('grouped');
  inputs.orDefault('grouped', grouped, 2, groupedAt, 'cables that touch');
  return inputs;
}

/** Installation and load: what any cable in this place is judged by. */
export function circuitInputs(way: Way, circuit: CircuitItem, subject: Id, read: Reader): Inputs {
  const inputs = placeInputs(way, circuit, read);
  inputs.figure('currentA', figureId('network.load', subject, 'rmsA'));
  inputs.figure('busVoltageV', figureId('pack.pack', 'pack', 'voltageNominalV'));
  return inputs;
}

export function setCable(inputs: Inputs, part: PartOf<'cable'>): void {
  const key = partKey(part);
  const { massKgPerM: _mass, ...data } = part.data;
  for (const [name, value] of Object.entries(data))
    inputs.set(name, value, { kind: 'part', key, path: name }, `${name} of ${part.label}`);
}
