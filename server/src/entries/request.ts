import { list, number, oneOf, record, table, text } from '@torvek/core/calculator';
import { gates, snagGates } from '@torvek/core/commissioning';
import {
  balanceGear,
  instrumentKinds,
  jointWorks,
  looks,
  soloMeasures,
  type BalanceGear,
  type Instrument,
  type JointWork,
  type Look,
  type Measured,
  type SoloMeasure,
} from '@torvek/core/record';

interface Common {
  id: string;
  takenAt: string;
  /** SHA-256 of files sent before. */
  attachments?: string[];
}

/** The second person at an HV gate, with their own password. */
export interface WitnessWord {
  name: string;
  password: string;
  /** Of their second factor, when they have one. */
  code?: string;
}

/** What a client sends; the server makes the entry of it. */
export type EntryRequest = Common &
  (
    | {
        kind: 'result';
        step: string;
        measured: Measured;
        entered: 'stand-in' | 'typed' | 'pasted';
        /** From the register by its id, or named by hand. */
        instrument: { id: string } | Instrument;
        remark?: string;
      }
    | { kind: 'acceptance'; check: string; reason: string }
    | {
        kind: 'position';
        /** Either what stands open, element by element … */
        open?: string[];
        /** … or in sum. */
        linksOut?: number;
        serviceDisconnect?: 'out' | 'in';
        mains?: 'open' | 'closed';
        remark?: string;
      }
    | { kind: 'work'; what: string; subjects: string[] }
    | { kind: 'correction'; of: number; reason: string }
    | {
        kind: 'gate';
        gate: string;
        witness?: WitnessWord;
        alone?: { replacedBy: SoloMeasure[]; how: string };
      }
    | { kind: 'deviation'; of: number; tried: string; cause?: string; cured: boolean; subjects: string[] }
    | { kind: 'snag'; what: string; gate: string; subjects: string[] }
    | { kind: 'snag-gone'; of: number; how: string }
    | { kind: 'intake'; module: string; serial?: string; look?: Look; remark?: string }
    | {
        kind: 'cell-voltages';
        entered: 'typed' | 'pasted' | 'logged';
        instrument: { id: string } | Instrument;
        cells: { cell: string; samples: [number, number][] }[];
        remark?: string;
      }
    | {
        kind: 'balance';
        act: 'on' | 'off';
        gear: BalanceGear;
        cells: string[];
        place?: number;
        remark?: string;
      }
    | {
        kind: 'joints';
        work: JointWork;
        /** What flowed while drops were read. */
        currentA?: number;
        instrument: { id: string } | Instrument;
        joints: { joint: string; value: number }[];
        remark?: string;
      }
    | { kind: 'note'; text: string; subjects?: string[] }
  );

const measured = record.by((value): Record<string, ReturnType<typeof record>> =>
  value.kind === 'trace'
    ? {
        kind: oneOf(['trace']),
        samples: table({ columns: [{}, {}], minRows: 8, maxRows: 20_000 }),
        packVoltageV: number({ above: 0 }),
        unit: oneOf(['V']),
      }
    : { kind: oneOf(['value']), value: number(), unit: text(20), over: oneOf.optional([true]) },
);

const instrument = record.by((value): Record<string, ReturnType<typeof text>> =>
  Object.hasOwn(value, 'id')
    ? { id: text(80) }
    : {
        kind: oneOf(instrumentKinds),
        name: text(120),
        standIn: oneOf([true, false]),
        behaviour: text.optional(40),
      },
);

const number1 = number({ min: 1, integer: true });
const subjects = list(text(80), { maxRows: 500 });

const fields: Record<EntryRequest['kind'], Record<string, ReturnType<typeof record>>> = {
  result: {
    step: text(160),
    measured,
    entered: oneOf(['stand-in', 'typed', 'pasted']),
    instrument,
    remark: text.optional(2000),
  },
  acceptance: { check: text(300), reason: text(2000) },
  position: {
    open: list.optional(text(160), { maxRows: 5000 }),
    linksOut: number.optional({ min: 0, max: 10_000, integer: true }),
    serviceDisconnect: oneOf.optional(['out', 'in']),
    mains: oneOf.optional(['open', 'closed']),
    remark: text.optional(2000),
  },
  work: { what: text(2000), subjects: list(text(80), { minRows: 1, maxRows: 500 }) },
  correction: { of: number1, reason: text(2000) },
  gate: {
    gate: oneOf(gates.map(({ id }) => id)),
    witness: record.optional({
      name: text(80),
      password: text(200),
      code: text.optional(40, { min: 0 }),
    }),
    alone: record.optional({
      replacedBy: list(oneOf(soloMeasures), { minRows: 1, maxRows: soloMeasures.length }),
      how: text(2000, { min: 10 }),
    }),
  },
  deviation: {
    of: number1,
    tried: text(2000),
    cause: text.optional(300),
    cured: oneOf([true, false]),
    subjects,
  },
  snag: { what: text(500), gate: oneOf(snagGates.map(({ id }) => id)), subjects },
  'snag-gone': { of: number1, how: text(2000) },
  intake: {
    module: text(80),
    serial: text.optional(80),
    look: oneOf.optional(looks),
    remark: text.optional(2000),
  },
  'cell-voltages': {
    entered: oneOf(['typed', 'pasted', 'logged']),
    instrument,
    cells: list(
      record({
        cell: text(120),
        samples: table({
          columns: [
            { min: 0, max: 10_000 },
            { min: -10, max: 10 },
          ],
          minRows: 1,
          maxRows: 500,
        }),
      }),
      { minRows: 1, maxRows: 1000 },
    ),
    remark: text.optional(2000),
  },
  balance: {
    act: oneOf(['on', 'off']),
    gear: oneOf(balanceGear),
    cells: list(text(120), { minRows: 1, maxRows: 1000 }),
    place: number.optional({ min: 1, max: 500, integer: true }),
    remark: text.optional(2000),
  },
  joints: {
    work: oneOf(jointWorks),
    currentA: number.optional({ min: 0.001, max: 10_000 }),
    instrument,
    joints: list(record({ joint: text(120), value: number({ min: -1000, max: 1000 }) }), {
      minRows: 1,
      maxRows: 2000,
    }),
    remark: text.optional(2000),
  },
  note: { text: text(4000), subjects: list.optional(text(80), { maxRows: 500 }) },
};

/** The door of an entry request. */
export const entryDoor = {
  schema: (body: Record<string, unknown>) =>
    record({
      kind: oneOf(Object.keys(fields)),
      id: text(80),
      takenAt: text(40),
      attachments: list.optional(text(64), { maxRows: 20 }),
      ...(Object.hasOwn(fields, String(body.kind)) ? fields[body.kind as EntryRequest['kind']] : {}),
    }),
  cross(input: EntryRequest, issue: (path: string, message: string) => void) {
    if (Number.isNaN(Date.parse(input.takenAt))) issue('takenAt', 'must be a time (ISO 8601)');
    if (input.kind === 'position') {
      for (const field of ['linksOut', 'serviceDisconnect', 'mains'] as const)
        if ((input[field] === undefined) !== (input.open !== undefined))
          issue(field, input.open === undefined ? 'is required' : 'follows from open: leave it out');
    }
    if (input.kind === 'joints' && (input.currentA === undefined) !== (input.work === 'torque'))
      issue('currentA', input.work === 'torque' ? 'has no place in a torque' : 'is required');
    if (input.kind === 'gate' && (input.witness === undefined) === (input.alone === undefined))
      issue('witness', 'or else alone: one of the two must be given');
  },
};
