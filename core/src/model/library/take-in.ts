import equal from 'fast-deep-equal';
import { openDoor, type Issue } from '../../ground/shape';
import { partSchema, type Part } from '../parts';

const schema = partSchema();

export type CheckedPart = { ok: true; part: Part } | { ok: false; issues: Issue[] };

/** Whether something is a part that the library takes: each figure within what it can be, and with each other. */
export function checkPart(value: unknown): CheckedPart {
  const parsed = openDoor<Part>(value, { schema, cross: crossPart });
  return parsed.ok ? { ok: true, part: parsed.input } : parsed;
}

function crossPart({ kind, data }: Part, issue: (path: string, message: string) => void): void {
  const below = (low: number, high: number, path: string, than: string, orEqual = false) => {
    if (low > high || (low === high && !orEqual)) issue(`data.${path}`, `must be below ${than}`);
  };
  switch (kind) {
    case 'module':
      below(data.cell.minV, data.cell.maxV, 'cell.minV', 'the highest voltage');
      below(data.continuousA, data.peakA, 'continuousA', 'the peak current', true);
      break;
    case 'fuse':
      below(data.ratedA, data.curve[0]![0], 'ratedA', 'the current at which the curve begins', true);
      below(data.minBreakingA, data.breakingA, 'minBreakingA', 'the breaking capacity');
      break;
    case 'cable':
      below(data.conductorDiameterMm, data.outerDiameterMm, 'conductorDiameterMm', 'the outer diameter');
      break;
    case 'lug':
      below(data.studMm, data.palmWidthMm, 'studMm', 'the width of the palm');
      break;
    case 'gland':
      below(data.clampMinMm, data.clampMaxMm, 'clampMinMm', 'what it clamps to');
      below(data.clampMaxMm, data.threadMm, 'clampMaxMm', 'its thread');
      break;
    default:
  }
}

/** How a part that comes in stands to what there is. */
export type Arrival =
  | { as: 'new'; part: Part }
  /** Another content than the newest of the same id: saved as its next revision. */
  | { as: 'revision'; part: Part; before: Part }
  | { as: 'same'; part: Part };

/**
 * What becomes of parts that come from a file: an id that is not there is new; the newest content again is the same;
 * another content is the next revision, whatever number the file gives it. Nothing is ever overwritten.
 *
 * @param revisions all revisions of an id, oldest first
 */
export function planArrivals(coming: readonly Part[], revisions: (id: string) => readonly Part[]): Arrival[] {
  const planned = new Map<string, Part[]>();
  return coming.map((part): Arrival => {
    const known = [...revisions(part.id), ...(planned.get(part.id) ?? [])];
    const before = known.at(-1);
    if (before === undefined) {
      const first = { ...part, revision: 1 };
      planned.set(part.id, [first]);
      return { as: 'new', part: first };
    }
    const alike = known.find((one) => sameContent(one, part));
    if (alike !== undefined) return { as: 'same', part: alike };
    const next = { ...part, revision: before.revision + 1 };
    planned.set(part.id, [...(planned.get(part.id) ?? []), next]);
    return { as: 'revision', part: next, before };
  });
}

/** Alike in everything but the revision. */
export function sameContent(a: Part, b: Part): boolean {
  return equal({ ...plain(a), revision: 0 }, { ...plain(b), revision: 0 });
}

const plain = (part: Part): Part => JSON.parse(JSON.stringify(part)) as Part;
