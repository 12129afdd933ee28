import { registered, type AnyCalculator, type Calculator } from '../../ground/calculator';
import type { Check } from '../../ground/figure';
import type { Entry } from '../../record';
import type { Design, Station } from '../document';
import type { Procedure } from '../procedure';
import type { StepDefinition } from '../step';

/** What a room of the trade brings, said once. */
export interface Room {
  name: string;
  /** Where its findings are mended. */
  station: Station;
  /** The families of its rules, `family.what`: each belongs to one room. */
  rules: readonly string[];
  /** In the order in which they are best run. */
  steps: readonly StepDefinition[];
  calculators: readonly AnyCalculator[];
  /** What the record says against its things; nothing of what was not measured. */
  recorded: readonly RecordJudge[];
  /** Its part of the procedure, in the order of the work. */
  procedures: readonly Procedure[];
}

/** Judges entries that count, in the order of the chain, at a moment. */
export type RecordJudge = (design: Design, entries: readonly Entry[], nowMs: number) => Check[];

/** Builds up a room: `defineRoom('fuse', 'protect').withRules('fuse').withSteps(…).withCalculator(fuse)`. */
export interface RoomBuilder extends Room {
  withRules(...families: string[]): RoomBuilder;
  withSteps(...steps: readonly StepDefinition[]): RoomBuilder;
  /** The stateless calculator, by its own name under `/api/calc/`. */
  withCalculator<Input, Result>(calculator: Calculator<Input, Result>): RoomBuilder;
  withRecord(judge: RecordJudge): RoomBuilder;
  withProcedure(...procedures: readonly Procedure[]): RoomBuilder;
}

export function defineRoom(name: string, station: Station): RoomBuilder {
  const build = (room: Room): RoomBuilder => ({
    ...room,
    withRules: (...families) => build({ ...room, rules: [...room.rules, ...families] }),
    withSteps: (...steps) => build({ ...room, steps: [...room.steps, ...steps] }),
    withCalculator: (calculator) =>
      build({ ...room, calculators: [...room.calculators, registered(calculator)] }),
    withRecord: (judge) => build({ ...room, recorded: [...room.recorded, judge] }),
    withProcedure: (...procedures) => build({ ...room, procedures: [...room.procedures, ...procedures] }),
  });
  return build({ name, station, rules: [], steps: [], calculators: [], recorded: [], procedures: [] });
}
