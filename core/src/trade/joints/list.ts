import type { CircuitItem, Design, Id, JointItem } from '../../model/document';

/** One joint of the vehicle: `${owner}/${role}`. */
export interface Joint {
  id: string;
  tag: string;
  /** The kind it is of; null: no kind says how it is made. */
  kind: Id | null;
  /** Whose current it carries. */
  carries: { circuit: Id } | { bar: Id } | { string: Id };
}

/** What of a design its joints follow from. */
export type JointSlices = Pick<Design, 'joints' | 'modules' | 'strings' | 'circuits' | 'pack'>;

const lugRoles = [
  ['source-plus', '+ at the source'],
  ['source-minus', '− at the source'],
  ['device-plus', '+ at the device'],
  ['device-minus', '− at the device'],
] as const;

/** A circuit whose cable has lugs: one that has a cable. */
const hasLugs = ({ cable, lug }: CircuitItem) => cable !== undefined || lug !== undefined;

/**
 * Every joint that carries the pack’s current: both posts of each module in a string, both ends of both poles of each
 * cable, both ends of each bus bar. Lugs of parallel conductors on one stud are one joint.
 */
export function jointsOf({ joints = {}, modules, strings, circuits, pack }: JointSlices): Joint[] {
  const kinds = Object.entries(joints);
  const kindOf = (on: JointItem['on']): Id | null => kinds.find(([, one]) => one.on === on)?.[0] ?? null;
  /** Of lugs: the kind of their circuit, or that of their stud, or one for all. */
  const kindOfLugs = (circuit: Id): Id | null => {
    const { studMm } = circuits[circuit]!;
    const lugs = kinds.filter(([, { on }]) => on === 'lugs');
    const found =
      lugs.find(([, one]) => one.circuit === circuit) ??
      lugs.find(([, one]) => one.circuit === undefined && studMm !== undefined && one.studMm === studMm) ??
      lugs.find(([, one]) => one.circuit === undefined && one.studMm === undefined);
    return found?.[0] ?? null;
  };
  const posts = Object.entries(strings).flatMap(([string, { modules: own }]) =>
    own.flatMap((id) =>
      (['minus', 'plus'] as const).map((pole) => ({
        id: `${id}/${pole}`,
        tag: `${modules[id]?.tag ?? id} ${pole === 'plus' ? '+' : '−'}`,
        kind: kindOf('modules'),
        carries: { string },
      })),
    ),
  );
  const lugs = Object.entries(circuits).flatMap(([id, circuit]) => {
    if (!hasLugs(circuit)) return [];
    const kind = kindOfLugs(id);
    return lugRoles.map(([role, words]) => ({
      id: `${id}/${role}`,
      tag: `${circuit.tag} ${words}`,
      kind,
      carries: { circuit: id },
    }));
  });
  const bars = Object.entries(pack.busbars ?? {}).flatMap(([id, { tag }]) =>
    (['a', 'b'] as const).map((end) => ({
      id: `${id}/${end}`,
      tag: `${tag}, ${end === 'a' ? 'first' : 'second'} end`,
      kind: kindOf('bars'),
      carries: { bar: id },
    })),
  );
  return [...posts, ...lugs, ...bars];
}
