import { figureId, type Gap } from '../../ground/figure';
import type { CheckValue } from '../../ground/finding';
import { formatNumber } from '../../ground/quantity';
import { sensingDefaults } from '../../model/document';
import { judge, type StepDefinition } from '../../model/step';
import { boardsOf } from './map-inputs';
import { watchedStrings } from './map-step';
import { monitoringRules } from './rules';

const n = formatNumber;

/**
 * The chain of boards of a string: how old a reading can be. Each board passes on what it read in its turn; a change just after its turn
 * waits for the next round, and is known when that is over: two rounds.
 */
export const linkStep: StepDefinition = {
  id: 'monitoring.link',
  version: 1,
  subjects: watchedStrings,
  compute(subject, read) {
    const { tag } = read.at('strings', subject)!;
    const parts = read.at('parts');
    const chain = boardsOf({ boards: read.at('boards') ?? {} }, subject);
    const gaps: Gap[] = [];
    let roundMs = 0;
    if (chain.length === 0) gaps.push({ kind: 'not-given', path: 'boards', label: `boards for ${tag}` });
    for (const [id, board] of chain) {
      const part = parts[board.unit ?? ''];
      if (part?.kind !== 'unit')
        gaps.push({ kind: 'not-given', path: `boards.${id}.unit`, label: `unit of ${board.tag}` });
      else if (part.data.passMs === undefined)
        gaps.push({
          kind: 'not-given',
          path: `boards.${id}.unit`,
          label: `time in which ${part.label} reads and passes on`,
        });
      else roundMs += part.data.passMs;
    }
    const said = read.at('sensing')?.reactionS;
    const reactionS = said ?? sensingDefaults.reactionS;
    const ageS = gaps.length > 0 ? null : (2 * roundMs) / 1000;
    const v = (label: string, value: number, unit = ''): CheckValue => ({ label, value, unit });
    return {
      figures: [
        {
          id: figureId('monitoring.link', subject, 'ageS'),
          label: 'A reading is at most so old',
          unit: 's',
          value: ageS,
          gaps,
          working:
            ageS === null
              ? []
              : [
                  {
                    symbol: 't',
                    label: 'A reading is at most so old',
                    formula: '2·Σt_i',
                    inputs: [
                      {
                        symbol: 'Σt_i',
                        value: roundMs / 1000,
                        unit: 's',
                        label: `one round of ${n(chain.length)} boards`,
                      },
                    ],
                    value: ageS,
                    unit: 's',
                    source: 'Time in which each unit reads and passes on, by its maker; two rounds',
                  },
                ],
        },
      ],
      checks: [
        judge(
          monitoringRules.old,
          [subject],
          gaps,
          ageS !== null && ageS > reactionS
            ? `A reading of ${tag} can be ${formatNumber(ageS, 4)} s old; the loop opens within ${n(reactionS)} s.`
            : null,
          [v('at most so old', ageS ?? 0, 's'), v('opens within', reactionS, 's'), v('boards', chain.length)],
          { also: ['sensing'] },
        ),
      ],
    };
  },
};
