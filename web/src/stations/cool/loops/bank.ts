import type { Design, Id } from '@torvek/core/document';

/** A row of plates between two headers. */
export interface BankWish {
  loop: Id;
  /** Joins between which it hangs; a new one is made where there is none. */
  from: Id | null;
  to: Id | null;
  plates: number;
  returns: 'direct' | 'reverse';
  /** Keys of pinned parts. */
  plate: string;
  hose: string;
  /** Of header between two plates, m. */
  spacingM: number;
  /** Modules that lie on them, shared out in order. */
  modules: Id[];
}

/**
 * Makes a bank of plates in one step. Its pieces carry its id, so that its return can be turned round later; each of them can be edited on
 * its own from then on.
 */
export function makeBank(draft: Design, bank: Id, wish: BankWish): void {
  const joins = (draft.joins ??= {});
  const plumbing = (draft.plumbing ??= {});
  const count = wish.plates;
  const join = (side: 's' | 'r', i: number) => `${bank}-${side}${i}`;
  const hose = (id: string, tag: string, from: Id, to: Id, lengthM: number, minorK: number) =>
    (plumbing[id] = { tag, loop: wish.loop, kind: 'hose', from, to, hose: wish.hose, lengthM, minorK });
  for (let i = 1; i <= count; i += 1) {
    joins[join('s', i)] = { tag: `Feed ${i}`, loop: wish.loop };
    joins[join('r', i)] = { tag: `Return ${i}`, loop: wish.loop };
  }
  const perPlate = wish.modules.length / count;
  for (let i = 1; i <= count; i += 1) {
    const own = wish.modules.slice(Math.round((i - 1) * perPlate), Math.round(i * perPlate));
    plumbing[`${bank}-plate${i}`] = {
      tag: `Plate ${i}`,
      loop: wish.loop,
      kind: 'plate',
      from: join('s', i),
      to: join('r', i),
      plate: wish.plate,
      ...(own.length > 0 && { modules: own }),
    };
    if (i === count) continue;
    hose(`${bank}-feed${i}`, `Feed header ${i}`, join('s', i), join('s', i + 1), wish.spacingM, 0.3);
    hose(`${bank}-back${i}`, `Return header ${i}`, join('r', i + 1), join('r', i), wish.spacingM, 0.3);
  }
  const from = wish.from ?? `${bank}-in`;
  const to = wish.to ?? `${bank}-out`;
  if (wish.from === null) joins[from] = { tag: 'Bank, in', loop: wish.loop };
  if (wish.to === null) joins[to] = { tag: 'Bank, out', loop: wish.loop };
  hose(`${bank}-lead`, 'To the bank', from, join('s', 1), 0.5, 1.5);
  hose(`${bank}-tail`, 'From the bank', join('r', 1), to, 0.5, 1.5);
  if (wish.returns === 'reverse') turnReturn(draft, bank);
}

export interface Bank {
  id: Id;
  plates: number;
  returns: 'direct' | 'reverse';
}

/** Banks that were made in one step and are still as they were connected, with how they return. */
export function banksOf(design: Pick<Design, 'plumbing'>, loop: Id): Bank[] {
  const plumbing = design.plumbing ?? {};
  return Object.entries(plumbing).flatMap(([id, piece]): Bank[] => {
    if (!id.endsWith('-tail') || piece.loop !== loop) return [];
    const bank = id.slice(0, -'-tail'.length);
    let plates = 0;
    while (plumbing[`${bank}-plate${plates + 1}`] !== undefined) plates += 1;
    for (let i = 1; i < plates; i += 1) if (plumbing[`${bank}-back${i}`] === undefined) return [];
    if (plates < 2) return [];
    if (piece.from === `${bank}-r1`) return [{ id: bank, plates, returns: 'direct' }];
    return piece.from === `${bank}-r${plates}` ? [{ id: bank, plates, returns: 'reverse' }] : [];
  });
}

/** A bank that returns from its near end returns from its far end, and the other way round. */
export function turnReturn(draft: Design, bank: Id): void {
  const plumbing = draft.plumbing ?? {};
  const tail = plumbing[`${bank}-tail`];
  if (tail === undefined) return;
  let plates = 0;
  while (plumbing[`${bank}-plate${plates + 1}`] !== undefined) plates += 1;
  tail.from = tail.from === `${bank}-r1` ? `${bank}-r${plates}` : `${bank}-r1`;
  for (let i = 1; i < plates; i += 1) swapEnds(draft, `${bank}-back${i}`);
}

/** The ends of a piece change places. */
export function swapEnds(draft: Design, id: Id): void {
  const piece = draft.plumbing?.[id];
  if (piece === undefined) return;
  const { from, to } = piece;
  if (to === undefined) delete piece.from;
  else piece.from = to;
  if (from === undefined) delete piece.to;
  else piece.to = from;
}
