import type { Entry } from './entry';
import type { GateBody } from './kinds/gate';

/** The gates there are, in the order of dependency. Behind an HV gate nobody works without a second person. */
const list = [
  { id: 'parts', title: 'Parts', needs: [], hv: false, mayBeEmpty: false },
  { id: 'wiring', title: 'Joints, bonds and wiring', needs: [], hv: false, mayBeEmpty: false },
  { id: 'coils', title: 'Contactors without high voltage', needs: ['parts'], hv: false, mayBeEmpty: true },
  { id: 'coolant', title: 'Coolant: leaks, filling, flow', needs: [], hv: false, mayBeEmpty: true },
  { id: 'insulation', title: 'Insulation', needs: ['parts'], hv: true, mayBeEmpty: false },
  { id: 'sense', title: 'Sense harness', needs: [], hv: true, mayBeEmpty: true },
  { id: 'power-up', title: 'Monitoring powered up', needs: ['sense'], hv: true, mayBeEmpty: true },
  {
    id: 'first-hv',
    title: 'First high voltage',
    needs: ['parts', 'wiring', 'coils', 'coolant', 'insulation', 'sense', 'power-up'],
    hv: true,
    mayBeEmpty: false,
  },
  {
    id: 'charging',
    title: 'Charging and low voltage',
    needs: ['first-hv'],
    hv: true,
    mayBeEmpty: true,
  },
  { id: 'under-load', title: 'Under load', needs: ['first-hv'], hv: true, mayBeEmpty: true },
] as const;
export type GateId = (typeof list)[number]['id'];

export interface Gate {
  id: GateId;
  title: string;
  /** Gates that are passed before this one opens. */
  needs: readonly GateId[];
  /** A second person confirms it. */
  hv: boolean;
  /** Passed when the design has nothing for it; any other gate is not passed by having no steps. */
  mayBeEmpty: boolean;
}
export const gates: readonly Gate[] = list;

/** Where a snag can be due: before a gate opens, or before the vehicle leaves. */
export const snagGates = [
  ...gates.map(({ id, title }) => ({ id: id as string, title })),
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
