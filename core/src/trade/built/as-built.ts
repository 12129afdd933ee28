import { cutPlaces, partPlaces, setAt, valueOf, type Design } from '../../model/document';
import { checkPart } from '../../model/library';
import { partKey, type Part } from '../../model/parts';
import { stockOf, type CableCutBody, type Entry, type PartFittedBody } from '../../record';

/** Where what was built is not what was designed. */
export interface BuiltDifference {
  /** Place of the design. */
  path: string;
  name: string;
  /** The thing it belongs to, by id. */
  holder: string;
  /** Number of the entry that says so. */
  seq: number;
  reason: string;
  /** A part by its key and words, or a length in m; null: nothing was designed there. */
  designed: { part: string | null; text: string } | { lengthM: number | null };
  built: { part: string; text: string } | { lengthM: number };
}

export interface AsBuilt {
  /** The design itself where nothing differs. */
  design: Design;
  differences: BuiltDifference[];
  /** Number of the last entry that it was laid over with; null: of none. */
  upTo: number | null;
  /** Places whose fitted part cannot be read: they are as designed here. */
  unread: string[];
}

const known = new WeakMap<readonly Entry[], { of: Design; made: AsBuilt }>();

/**
 * A design with what was really fitted and cut laid over it: other parts than designed, lengths as measured. Evaluating it judges the
 * vehicle that stands there. Entries of places that the design no longer has are left out.
 *
 * @param entries those that count, in the order of the chain
 */
export function asBuilt(design: Design, entries: readonly Entry[]): AsBuilt {
  const before = known.get(entries);
  if (before?.of === design) return before.made;
  const made = layOver(design, entries);
  known.set(entries, { of: design, made });
  return made;
}

function layOver(design: Design, entries: readonly Entry[]): AsBuilt {
  const fitted = new Map<string, { seq: number; body: PartFittedBody }>();
  const cut = new Map<string, { seq: number; body: CableCutBody }>();
  for (const { seq, body } of entries)
    if (body.kind === 'part-fitted') fitted.set(body.place, { seq, body });
    else if (body.kind === 'cable-cut') cut.set(body.place, { seq, body });
  const { inPlace } = stockOf(entries);
  // What was taken out is not there: the figures are those of what is designed, and that nothing is fitted is a finding.
  for (const path of fitted.keys()) if (inPlace.get(path) === null) fitted.delete(path);
  if (fitted.size + cut.size === 0) return { design, differences: [], upTo: null, unread: [] };
  const differences: BuiltDifference[] = [];
  const unread: string[] = [];
  const parts: Record<string, Part> = {};
  for (const { path, name, holder, part, kind } of partPlaces(design)) {
    const told = fitted.get(path);
    if (told === undefined || told.body.part === null || told.body.part === part) continue;
    const found = design.parts[told.body.part] ?? partOf(told.body);
    if (found?.kind !== kind) {
      unread.push(name);
      continue;
    }
    parts[told.body.part] = found;
    differences.push({
      path,
      name,
      holder,
      seq: told.seq,
      reason: told.body.reason,
      designed: { part, text: design.parts[part ?? '']?.label ?? 'nothing' },
      built: { part: told.body.part, text: found.label },
    });
  }
  for (const { path, name, holder, lengthM } of cutPlaces(design)) {
    const told = cut.get(path);
    if (told === undefined || (lengthM !== null && Math.abs(told.body.lengthM - lengthM) < 1e-9)) continue;
    const { seq, body } = told;
    const difference = {
      path,
      name,
      holder,
      seq,
      reason: '',
      designed: { lengthM },
      built: { lengthM: body.lengthM },
    };
    differences.push(difference);
  }
  const upTo = Math.max(...[...fitted.values(), ...cut.values()].map(({ seq }) => seq));
  if (differences.length === 0) return { design, differences, upTo, unread };
  return { design: built(design, differences, parts), differences, upTo, unread };
}

/** The part that an entry carries with it; undefined: it cannot be read, or is another one. */
function partOf({ part, snapshot }: PartFittedBody): Part | undefined {
  if (snapshot === null) return undefined;
  try {
    const checked = checkPart(JSON.parse(snapshot));
    return checked.ok && partKey(checked.part) === part ? checked.part : undefined;
  } catch {
    return undefined;
  }
}

/** What did not move keeps its identity: what hangs on it is not computed again. */
function built(design: Design, differences: readonly BuiltDifference[], parts: Record<string, Part>): Design {
  const draft = { ...design, parts: { ...design.parts, ...parts } };
  for (const { path, built: now } of differences) {
    openWay(draft, path);
    if ('part' in now) setAt(draft, path, now.part);
    else setLength(draft, path, now.lengthM);
  }
  return draft;
}

/** Copies what stands on the way to a place, so that it can be set without touching the design. */
function openWay(draft: object, path: string): void {
  let at = draft as Record<string, unknown>;
  for (const key of path.split('.').slice(0, -1)) {
    at[key] = { ...(at[key] as object) };
    at = at[key] as Record<string, unknown>;
  }
}

/** The way in parts of a circuit is as long as the cable was cut: each part by its share. */
function setLength(draft: Design, path: string, lengthM: number): void {
  const holder = valueOf(draft, path.split('.').slice(0, -1).join('.')) as {
    stretches?: { lengthM?: number }[];
  };
  const { stretches } = holder;
  const total = stretches?.reduce((sum, one) => sum + (one.lengthM ?? 0), 0) ?? 0;
  if (stretches !== undefined && total > 0)
    holder.stretches = stretches.map((one) => ({ ...one, lengthM: ((one.lengthM ?? 0) * lengthM) / total }));
  setAt(draft, path, lengthM);
}

/** Takes what was built into the design, for one difference. */
export function takeBuilt(
  draft: Design,
  { path, built: now }: BuiltDifference,
  part: Part | undefined,
): void {
  if ('lengthM' in now) setLength(draft, path, now.lengthM);
  else if (part !== undefined && partKey(part) === now.part) {
    draft.parts[now.part] ??= part;
    setAt(draft, path, now.part);
  }
}
