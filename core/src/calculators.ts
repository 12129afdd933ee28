import type { AnyCalculator } from './ground/calculator';
import { rooms } from './rooms';

/** Every stateless calculator, by the name it has under `/api/calc/`. */
export const calculators: ReadonlyMap<string, AnyCalculator> = new Map(
  rooms.flatMap((room) => room.calculators.map((calculator) => [calculator.name, calculator])),
);
