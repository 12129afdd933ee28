import type { StepDefinition } from '../../model/step';
import { type LoopAnswer } from './loop-answer';
import { loopFigures } from './loop-figures';
import { flowChecks } from './loop-flow-checks';
import { heatChecks } from './loop-heat-checks';
import { loopState } from './loop-state';
import { dayFigures } from './day-figures';
import { platesOverDay } from './plates-over-day';

/** The flow, the temperatures and the balance of one coolant loop as it is connected. */
export const loopStep: StepDefinition = {
  id: 'cooling.loop',
  version: 1,
  subjects: ({ loops = {} }) => Object.keys(loops),
  compute(subject, read) {
    const state = loopState(subject, read);
    const plates = platesOverDay(subject, state, read);
    const figures = [...loopFigures(subject, state), ...dayFigures(subject, state, plates)];
    const checks = [...flowChecks(subject, state), ...heatChecks(subject, state)];
    const { pieces, elements, airC, groundNode, cold, cases, balance, indexOf, surfaceOf } = state;
    const answer: LoopAnswer | null =
      cold === null
        ? null
        : {
            elements,
            groundNode,
            coolC: airC,
            flows: cold.flows,
            residualKPa: cold.residualKPa,
            pressures: Object.fromEntries(cold.pressures),
            cases: cases.map((one) => ({
              at: one.at,
              gaps: one.gaps,
              flows: one.settled.solved.flows,
              radiators: one.radiators,
              nodesC:
                one.gaps.length > 0 || one.settled.temperatures === null
                  ? null
                  : Object.fromEntries(one.settled.temperatures.nodes),
              piecesC:
                one.gaps.length > 0 || one.settled.temperatures === null
                  ? null
                  : Object.fromEntries(
                      pieces.map((piece) => {
                        const at = one.settled.temperatures!.elements[indexOf.get(piece.id)!] ?? null;
                        return [
                          piece.id,
                          at === null
                            ? null
                            : { ...at, surfaceC: surfaceOf(piece, one), heatW: one.heatW[piece.id] ?? 0 },
                        ];
                      }),
                    ),
            })),
            balance: balance.map(({ plates: alike, result }) => ({ plates: alike, result })),
            day: plates?.day ?? null,
          };
    return {
      figures,
      checks,
      ...(answer !== null && {
        run: { calculator: 'cooling-loop', input: { loop: subject }, result: answer },
      }),
    };
  },
};
