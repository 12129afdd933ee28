import { rulesOf, type Rule } from '../../ground/finding';
import { stationOfPath, type Station } from '../../model/document';

/** What a rule says, without its family. */
type Said = [id: string, grade: Rule['grade'], title: string, why: string, remedy: string, source: string];

/**
 * One rule for each station at which what it finds is mended: it can be raised of anything in the design.
 *
 * @returns the rule for a place of the design, by its dotted path
 */
export function rulesByStation(...said: Said): (path: string) => Rule {
  const elsewhere = rulesOf('protect')(...said);
  const at: Partial<Record<Station, Rule>> = {
    brief: rulesOf('vehicle')(...said),
    pack: rulesOf('pack')(...said),
    network: rulesOf('network')(...said),
    route: rulesOf('run')(...said),
    cool: rulesOf('cooling')(...said),
    charge: rulesOf('charge')(...said),
    sense: rulesOf('monitoring')(...said),
  };
  return (path) => at[stationOfPath(path) ?? 'protect'] ?? elsewhere;
}
