import { rulesOf } from '../../ground/finding';
import type { Check } from '../../ground/figure';
import { judge, type StepDefinition } from '../../model/step';

export const postsRule = rulesOf('pack')(
  'posts-alike',
  'mend',
  'Neighbours of a string are mounted the same way round',
  'A link that goes straight across joins equal poles: two modules against each other, or one that is shorted by the next link.',
  'Turn every second module of a row, or lead the link across and cover what it crosses.',
  'Positive posts as mounted',
);

/** Modules that follow each other in a string and a box, by the side on which their positive posts lie. */
export const postsStep: StepDefinition = {
  id: 'pack.posts',
  version: 1,
  subjects: () => ['strings'],
  compute(_subject, read): { figures: []; checks: Check[] } {
    const modules = read.at('modules');
    return {
      figures: [],
      checks: Object.entries(read.at('strings')).map(([id, string]) => {
        const pairs = string.modules.slice(1).flatMap((next, i) => {
          const [a, b] = [modules[string.modules[i]!], modules[next]];
          return a?.plusSide !== undefined && b?.plusSide !== undefined && a.box === b.box
            ? [[a, b] as const]
            : [];
        });
        const alike = pairs.filter(([a, b]) => a.plusSide === b.plusSide);
        const shown = alike.slice(0, 4).map(([a, b]) => `${a.tag} and ${b.tag}`);
        return judge(
          postsRule,
          [id],
          [],
          alike.length === 0
            ? null
            : `${string.tag}: ${shown.join(', ')}${alike.length > 4 ? ` and ${alike.length - 4} more pairs` : ''} have the positive post on the same side.`,
          [
            { label: 'pairs alike', value: alike.length, unit: '' },
            { label: 'pairs said', value: pairs.length, unit: '' },
          ],
        );
      }),
    };
  },
};
