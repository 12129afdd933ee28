import { list, number, record, text } from '@torvek/core/shape';
import { matchInputOf, matchSides, parallelMatch } from '@torvek/core/balance';
import { invalidInput } from '../../http/errors';
import { defineJudge } from '../court';
import { namedSubjects } from '../subjects';

export interface LevelledRequest {
  kind: 'levelled';
  sides: { id: string; beforeV: number; afterV: number }[];
  linkOhm?: number;
  gearA?: number;
  hours?: number;
  remark?: string;
}

const voltage = number({ min: 0, max: 2000 });

/** Two strings or modules brought level: what would flow when they are joined now is computed here. */
export const levelled = defineJudge<LevelledRequest>({
  fields: {
    sides: list(record({ id: text(120), beforeV: voltage, afterV: voltage }), { minRows: 2, maxRows: 2 }),
    linkOhm: number.optional({ above: 0, max: 1000 }),
    gearA: number.optional({ above: 0, max: 10_000 }),
    hours: number.optional({ above: 0, max: 10_000 }),
    remark: text.optional(2000),
  },
  cross({ sides: [a, b] }, issue) {
    if (a?.id === b?.id) issue('sides.1.id', 'must be another one than the first');
  },
  judge({ request: { sides, linkOhm, gearA, hours, remark }, bench: { job } }) {
    const known = matchSides(job.design);
    const [a, b] = sides.map(({ id }, i) => {
      const side = known.find((one) => one.id === id);
      if (side === undefined)
        throw invalidInput([{ path: `sides.${i}.id`, message: 'is no string and no module of this design' }]);
      return side;
    }) as [(typeof known)[number], (typeof known)[number]];
    if (a.modules.some((module) => b.modules.includes(module)))
      throw invalidInput([{ path: 'sides.1.id', message: `shares modules with ${a.tag}` }]);
    const { input } = matchInputOf(
      job.design,
      a,
      b,
      [sides[0]!.afterV, sides[1]!.afterV],
      linkOhm,
      undefined,
    );
    const parsed = input === null ? null : parallelMatch.parse(input);
    const result = parsed?.ok === true ? parallelMatch.calculate(parsed.input).result : null;
    return {
      // A string is its modules: what was measured of them is due again.
      subjects: namedSubjects(job, [...new Set([...a.modules, ...b.modules])]),
      body: {
        kind: 'levelled',
        sides: sides.map(({ id, beforeV, afterV }, i) => ({
          id,
          tag: (i === 0 ? a : b).tag,
          beforeV,
          afterV,
        })),
        ...(linkOhm !== undefined && { linkOhm }),
        ...(result !== null && { joinedA: result.equalisingCurrentA, limitA: input!.currentLimitA }),
        ...(gearA !== undefined && { gearA }),
        ...(hours !== undefined && { hours }),
        ...(remark !== undefined && { remark }),
      },
    };
  },
});
