import type { Entry } from './entry';
import { counting, isOfItem, moduleOf, stepParts, stockOf, tellsOf, type Stock } from './stock';

const presents = new WeakMap<readonly Entry[], Entry[]>();

/**
 * The record as it tells of the places now: what was measured of a thing is told of the place in which it sits, of itself while it lies
 * on the shelf, and never of whatever took its place. Corrected entries are left out; an entry that tells the same keeps its identity.
 */
export function asPresent(entries: readonly Entry[]): Entry[] {
  const known = presents.get(entries);
  if (known !== undefined) return known;
  const stock = stockOf(entries);
  const made = counting(entries).flatMap((entry) => presentOf(entry, stock) ?? []);
  presents.set(entries, made);
  presents.set(made, made);
  // What follows from it follows from the whole.
  tellsOf(made, stock);
  return made;
}

/** Where what an entry named is now: a place, or the thing itself. */
function nowOf(stock: Stock, seq: number, named: string): string {
  const item = stock.items.get(stock.whose(seq, named) ?? '');
  return item === undefined ? named : (item.place ?? item.id);
}

function presentOf(entry: Entry, stock: Stock): Entry | null {
  const { body, seq, subjects } = entry;
  const moved = (named: string) => nowOf(stock, seq, named);
  const about = () => subjects.map((one) => (moved(one.id) === one.id ? one : { ...one, id: moved(one.id) }));
  if (body.kind === 'result' && isOfItem(body.step)) {
    const { template, subject } = stepParts(body.step);
    const now = moved(subject);
    return now === subject
      ? entry
      : { ...entry, subjects: about(), body: { ...body, step: `${template}:${now}` } };
  }
  if (body.kind === 'intake') {
    const now = moved(subjects[0]?.id ?? '');
    return subjects[0] === undefined || now === subjects[0].id ? entry : { ...entry, subjects: about() };
  }
  if (body.kind === 'cell-voltages') {
    if (body.cells.every(({ cell }) => moved(moduleOf(cell)) === moduleOf(cell))) return entry;
    const cells = body.cells.map((one) => ({ ...one, cell: cellNow(one.cell, moved) }));
    return { ...entry, subjects: about(), body: { ...body, cells } };
  }
  if (body.kind === 'balance') {
    if (body.cells.every((cell) => moved(moduleOf(cell)) === moduleOf(cell))) return entry;
    return {
      ...entry,
      subjects: about(),
      body: { ...body, cells: body.cells.map((cell) => cellNow(cell, moved)) },
    };
  }
  if (body.kind === 'levelled') {
    if (subjects.every(({ id }) => moved(id) === id)) return entry;
    const modules = new Set(subjects.map(({ id }) => id));
    // A string of which a module was exchanged since is not what was brought level: what it was brought to is told of it no more.
    const sides = body.sides.map((side) => ({
      ...side,
      id: modules.has(side.id) ? moved(side.id) : `${side.id}@${seq}`,
    }));
    return { ...entry, subjects: about(), body: { ...body, sides } };
  }
  return entry;
}

/** A cell of a thing, by where the thing is now. */
const cellNow = (cell: string, moved: (named: string) => string) => {
  const module = moduleOf(cell);
  return `${moved(module)}${cell.slice(module.length)}`;
};
