import { list, number, oneOf, record, table, text } from '../../ground/shape';
import { coldestOf, fluidAt, glycol50, hottestOf } from './fluid';
import type { FluidOfPipes, LoopElement } from './laws';

/** What the contract allows for a coolant: its temperature in the table, or its own figures. */
export type FluidInput = { temperatureC: number } | FluidOfPipes;

export interface LoopInput {
  fluid: FluidInput;
  elements: LoopElement[];
  /** Its pressure is 0; the first pump’s suction by default. */
  groundNode?: string;
}

const ends = { id: text(), from: text(), to: text() };
const kinds = ['pump', 'pipe', 'fixed', 'valve'] as const;

const own = { ...ends, kind: oneOf(kinds) };
const elementShapes = {
  pump: {
    ...own,
    curve: table({
      columns: [{ min: 0 }, {}],
      minRows: 2,
      maxRows: 500,
      whole(rows) {
        if (rows[0]![0] !== 0) return 'must begin at a flow of 0, with the shut-off head';
        const rise = rows.findIndex(([, head], i) => i > 0 && head > rows[i - 1]![1]);
        return rise > 0 ? `must never rise in head (row ${rise} does)` : null;
      },
    }),
  },
  pipe: {
    ...own,
    innerMm: number({ above: 0 }),
    lengthM: number({ min: 0 }),
    minorK: number.optional({ min: 0 }),
    roughnessMm: number.optional({ min: 0 }),
  },
  fixed: { ...own, kPaPerLpm: number.optional({ min: 0 }), kPaPerLpm2: number.optional({ min: 0 }) },
  valve: { ...own, kv: number({ above: 0 }), openFraction: number.optional({ min: 0, max: 1 }) },
  other: own,
};
const elementSchema = record.by<keyof typeof elementShapes>(elementShapes, ({ kind }) =>
  kinds.includes(kind as (typeof kinds)[number]) ? (kind as (typeof kinds)[number]) : 'other',
);

/** A coolant by its temperature: the table’s. */
export const fluidByTemperature = {
  temperatureC: number({ min: coldestOf(glycol50), max: hottestOf(glycol50) }),
};

export const loopFields = {
  fluid: record.by(
    {
      table: fluidByTemperature,
      own: { densityKgM3: number({ above: 0 }), viscosityMPaS: number({ above: 0 }) },
    },
    (fluid) => ('temperatureC' in fluid ? 'table' : 'own'),
  ),
  elements: list(elementSchema, { maxRows: 2000 }),
  groundNode: text.optional(),
};

/** What must hold between the fields of a loop. */
export function crossLoop(
  { elements, groundNode }: LoopInput,
  issue: (path: string, message: string) => void,
): void {
  if (!elements.some(({ kind }) => kind === 'pump')) issue('elements', 'must contain a pump');
  const ids = new Set<string>();
  elements.forEach((element, i) => {
    const at = `elements.${i}`;
    if (ids.has(element.id)) issue(`${at}.id`, `“${element.id.slice(0, 40)}” stands twice`);
    ids.add(element.id);
    if (element.from === element.to) issue(`${at}.to`, 'must be another node than it comes from');
    if (element.kind === 'pipe') {
      if (element.lengthM === 0 && (element.minorK ?? 0) === 0)
        issue(`${at}.lengthM`, 'must be above 0 where there is no minor loss: nothing would resist');
      if ((element.roughnessMm ?? 0) > element.innerMm / 2)
        issue(`${at}.roughnessMm`, 'must be at most half of the bore');
    }
    if (element.kind === 'fixed' && !((element.kPaPerLpm ?? 0) > 0 || (element.kPaPerLpm2 ?? 0) > 0))
      issue(`${at}.kPaPerLpm`, 'or kPaPerLpm2 must be above 0: nothing would resist');
  });
  if (groundNode !== undefined && !elements.some(({ from, to }) => from === groundNode || to === groundNode))
    issue('groundNode', 'is touched by no element');
}

export const fluidOf = (given: FluidInput): FluidOfPipes =>
  'temperatureC' in given ? fluidAt(glycol50, given.temperatureC) : given;

/** The node whose pressure is 0. */
export const groundOf = ({ elements, groundNode }: Pick<LoopInput, 'elements' | 'groundNode'>): string =>
  groundNode ?? elements.find(({ kind }) => kind === 'pump')!.from;
