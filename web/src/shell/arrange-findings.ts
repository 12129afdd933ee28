import { stationOfCheck, type FindingStatus } from '@torvek/core/design';
import { tagOfThing, type Design, type Id, type Station } from '@torvek/core/document';
import { gradeRank } from '@torvek/core/finding';

/** Where somebody looks: a station, a panel of it, a circuit in that. */
export interface Looking {
  station: Station;
  /** The panel that shows what a rule is about; absent where a station has none. */
  panelOfRule?: (rule: string, subjects: readonly Id[]) => string;
  panel?: string;
  /** Of panels that show one circuit alone. */
  circuit?: Id;
}

/** Findings of one rule and state, shown as one line: identity stays that of each. */
export interface FindingGroup {
  rule: string;
  findings: FindingStatus[];
}

export interface ArrangedFindings {
  /** Of the open panel and circuit. */
  near: FindingGroup[];
  /** Of the rest of the station, folded under its count. */
  rest: FindingGroup[];
  accepted: FindingGroup[];
}

const ownerOf = (subject: string) => subject.split('/')[0]!;

/** Findings of a station: those of the open panel and circuit first, several of one rule together, the gravest first. */
export function arrangeFindings(
  findings: readonly FindingStatus[],
  circuits: Design['circuits'],
  { station, panelOfRule, panel, circuit }: Looking,
): ArrangedFindings {
  // In these two everything is at hand: what is recorded may be about any of it.
  const whole = station === 'prove' || station === 'book';
  const here = findings.filter(({ check }) => whole || stationOfCheck(check) === station);
  const isNear = ({ check }: FindingStatus) => {
    const at = panelOfRule?.(check.rule.id, check.subjects);
    if (panel !== undefined && at !== undefined && at !== panel) return false;
    if (circuit === undefined) return true;
    const owners = check.subjects.map(ownerOf);
    return owners.includes(circuit) || owners.every((id) => circuits[id] === undefined);
  };
  const open = here.filter(({ accepted }) => accepted === null);
  return {
    near: grouped(open.filter(isNear)),
    rest: grouped(open.filter((one) => !isNear(one))),
    accepted: grouped(here.filter(({ accepted }) => accepted !== null)),
  };
}

function grouped(findings: readonly FindingStatus[]): FindingGroup[] {
  const groups = new Map<string, FindingGroup>();
  for (const finding of findings) {
    const { rule, grade } = finding.check;
    const key = `${rule.id} ${grade}`;
    const group = groups.get(key) ?? { rule: rule.id, findings: [] };
    group.findings.push(finding);
    groups.set(key, group);
  }
  return [...groups.values()].sort(
    (a, b) => gradeRank[a.findings[0]!.check.grade] - gradeRank[b.findings[0]!.check.grade],
  );
}

export const countOf = (groups: readonly FindingGroup[]): number =>
  groups.reduce((sum, { findings }) => sum + findings.length, 0);

/** What people call the subjects of findings, each once. */
export function subjectNames(findings: readonly FindingStatus[], design: Design): string[] {
  const nameOf = (subject: string) => tagOfThing(design, ownerOf(subject)) ?? ownerOf(subject);
  return [...new Set(findings.flatMap(({ check }) => check.subjects.map(nameOf)))];
}
