/** Stop: do not go on. Mend: must be right before hand-over. Note: worth knowing. */
export type Grade = 'stop' | 'mend' | 'note';

export const gradeNames: Record<Grade, string> = { stop: 'Stop', mend: 'Mend', note: 'Note' };
export const gradeRank: Record<Grade, number> = { stop: 0, mend: 1, note: 2 };

/** A rule of the product: what it looks for, why it matters and what to do about it. */
export interface Rule {
  /** `room.what`, stable for ever. */
  id: string;
  /** Raised whenever its judgement changes: acceptances of an older version lapse. */
  version: number;
  grade: Grade;
  title: string;
  why: string;
  remedy: string;
  source: string;
  /** Rules that judged this before and are gone: what was accepted of them is shown as lapsed here. */
  formerly?: string[];
}

/** What a calculator found: a rule and one sentence with numbers. */
export interface Finding {
  rule: Rule;
  message: string;
}

const register = new Map<string, Rule>();

/** Defines a rule and enters it in the register. An id that is taken is a bug. */
export function defineRule(rule: Rule): Rule {
  if (register.has(rule.id)) throw new Error(`rule ${rule.id} is defined twice`);
  register.set(rule.id, rule);
  return rule;
}

/** Defines the rules of one room or calculator: `rulesOf('fuse')('voltage', 'stop', …)` is rule `fuse.voltage`. */
export function rulesOf(room: string, version = 1) {
  return (
    id: string,
    grade: Grade,
    title: string,
    why: string,
    remedy: string,
    source: string,
    more: Pick<Rule, 'formerly'> & { version?: number } = {},
  ): Rule => defineRule({ id: `${room}.${id}`, version, grade, title, why, remedy, source, ...more });
}

/** All rules whose rooms have been loaded, by id. */
export function allRules(): Rule[] {
  return [...register.values()].sort((a, b) => (a.id < b.id ? -1 : 1));
}

/** A value a judgement rests on; acceptances are judged anew when one moves. */
export interface CheckValue {
  label: string;
  value: number;
  unit: string;
}

/** A part that could take the place of one that no longer holds. */
export interface Suggestion {
  partKey: string;
  label: string;
  fits: boolean;
  reasons: string[];
  /** What has to be exchanged together with it: the lug of a cable of another area. */
  along?: { kind: 'lug' | 'gland'; partKey: string; label: string }[];
}
