import type { Entry, GateBody } from '../record';

/** The gates there are, in the order of dependency. Behind an HV gate nobody works without a second person. */
export const gates = [
  { id: 'parts', title: 'Parts', needs: [], hv: false },
  { id: 'insulation', title: 'Insulation', needs: ['parts'], hv: true },
  { id: 'first-hv', title: 'First high voltage', needs: ['parts', 'insulation'], hv: true },
] as const;
export type GateId = (typeof gates)[number]['id'];

/** Where a snag can be due: before a gate opens, or before the vehicle leaves. */
export const snagGates = [
  ...gates.map(({ id, title }) => ({ id: id as string, title: title as string })),
  { id: 'hand-over', title: 'Hand-over' },
];

/** How long the confirmation of an HV gate holds, h: a working day. */
export const gateHoldsH = 8;

/** A recorded opening of an HV gate. */
export type GateOpening = Entry & { body: GateBody };

/**
 * The opening of an HV gate that holds for a person at a moment: their own newest one, not corrected, no older than
 * `gateHoldsH`.
 *
 * @param entries that count, in order
 * @param at instant, ISO 8601
 */
export function openingOf(
  gate: string,
  person: string,
  entries: readonly Entry[],
  at: string,
): GateOpening | null {
  const corrected = new Set(entries.flatMap(({ body }) => (body.kind === 'correction' ? [body.of] : [])));
  const last = entries
    .filter(
      (entry): entry is GateOpening =>
        entry.body.kind === 'gate' &&
        entry.body.gate === gate &&
        entry.by === person &&
        !corrected.has(entry.seq),
    )
    .at(-1);
  if (last === undefined) return null;
  const ageH = (Date.parse(at) - Date.parse(last.recordedAt)) / 3_600_000;
  return ageH <= gateHoldsH ? last : null;
}
