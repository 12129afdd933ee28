import { formatNumber } from '../../ground/quantity';
import type { Design, Id } from '../../model/document';
import { judge, type StepDefinition } from '../../model/step';
import { loadCurrentA } from './load-current';
import { nearFraction } from './wire-12v';
import { lowVoltageRules } from './rules';

const n = formatNumber;

/** Names of fuses that loads hang behind together. */
export const sharedFuses = ({ loads = {} }: Pick<Design, 'loads'>): string[] => [
  ...new Set(Object.values(loads).flatMap(({ behind }) => (behind === undefined ? [] : [behind]))),
];

/** Loads behind one fuse: their sum, and what lives together that should not. */
export const groupStep: StepDefinition = {
  id: 'low-voltage.group',
  version: 1,
  subjects: sharedFuses,
  compute(subject, read) {
    const all = read.at('loads') ?? {};
    const behind = Object.keys(all).filter((id) => all[id]!.behind === subject);
    const currents = behind.map((id) => loadCurrentA(id, read));
    const gaps = currents.flatMap((one) => one.gaps);
    const sumA = currents.reduce((sum, one) => sum + (one.value ?? 0), 0);
    const fuses = behind.flatMap((id) => (all[id]!.fuseA === undefined ? [] : [all[id]!.fuseA!]));
    const fuseA = fuses.length === 0 ? null : Math.min(...fuses);
    const must = behind.filter((id) => all[id]!.essential === true);
    const may = behind.filter((id) => all[id]!.essential === false);
    const names = (ids: Id[]) => ids.map((id) => all[id]!.tag).join(', ');
    return {
      figures: [],
      checks: [
        judge(
          lowVoltageRules.shared,
          [subject],
          [],
          must.length > 0 && may.length > 0
            ? `Behind ${subject} ${n(must.length)} that must live (${names(must)}) hang with ${n(may.length)} that need not (${names(may)}).`
            : null,
          [
            { label: 'cannot be left out', value: must.length, unit: '' },
            { label: 'can', value: may.length, unit: '' },
          ],
          { also: behind },
        ),
        judge(
          lowVoltageRules.twoRatings,
          [subject],
          [],
          fuses.length > 0 && Math.max(...fuses) !== Math.min(...fuses)
            ? `Behind ${subject}: ${behind
                .filter((id) => all[id]!.fuseA !== undefined)
                .map((id) => `${all[id]!.tag} has ${n(all[id]!.fuseA!)} A`)
                .join(', ')}.`
            : null,
          behind.flatMap((id) =>
            all[id]!.fuseA === undefined ? [] : [{ label: all[id]!.tag, value: all[id]!.fuseA!, unit: 'A' }],
          ),
          { also: behind },
        ),
        judge(
          lowVoltageRules.groupFuse,
          [subject],
          [
            ...gaps,
            ...(fuseA === null
              ? [{ kind: 'not-given' as const, path: `loads.${behind[0]}.fuseA`, label: `fuse ${subject}` }]
              : []),
          ],
          fuseA !== null && sumA * (1 + nearFraction) > fuseA
            ? `Behind ${subject} of ${n(fuseA)} A ${names(behind)} draw ${n(sumA)} A together.`
            : null,
          [
            { label: 'fuse', value: fuseA ?? 0, unit: 'A' },
            { label: 'draw', value: sumA, unit: 'A' },
          ],
          { also: behind },
        ),
      ],
    };
  },
};
