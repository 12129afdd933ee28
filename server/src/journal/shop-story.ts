import { firstRules, type Secret, type ShopRules } from '../people/secrets';
import type { Chain, Head, Link } from './lines';
import type {
  InstrumentLink,
  PartLink,
  PartRetiredLink,
  PersonLink,
  RepairLink,
  RestoredLink,
  ShopFact,
  ShopTakenUpLink,
} from './links';
import type { RecordProblem as Problem } from '@torvek/core/record';

/** What the chain of the shop tells, as it stands at its end. */
export interface ShopStory {
  people: Map<string, PersonLink & { secret: Secret }>;
  rules: ShopRules;
  instruments: Map<string, InstrumentLink>;
  parts: PartLink[];
  retired: Map<string, PartRetiredLink>;
  /** Jobs that must be here, with their names then. */
  jobs: Map<string, string>;
  /** Where the chains of jobs stood last. */
  heads: Record<string, Head>;
  restored: (RestoredLink & { at: string })[];
  takenUp: (ShopTakenUpLink & { at: string }) | null;
  problems: Problem[];
}

/** Tells the shop from its chain; whatever does not hold is named, the rest is told. */
export function tellShop(chain: Chain): ShopStory {
  const mended = new Set<number>();
  const story: ShopStory = {
    people: new Map(),
    rules: { ...firstRules },
    instruments: new Map(),
    parts: [],
    retired: new Map(),
    jobs: new Map(),
    heads: {},
    restored: [],
    takenUp: null,
    problems: [],
  };
  for (const { body, at } of chain.links as Link[]) {
    if (body.kind !== 'repair') take(story, body as unknown as ShopFact, at);
    else {
      const { lines, contents } = body as unknown as RepairLink<ShopFact>;
      for (const { n } of lines) mended.add(n);
      for (const one of contents) take(story, one, at);
    }
  }
  story.problems = chain.damage
    .filter(({ n }) => !mended.has(n))
    .map(({ n, message }) => ({ what: `line ${n} of the shop’s journal`, seq: null, message }));
  return story;
}

function take(story: ShopStory, link: ShopFact, at: string): void {
  switch (link.kind) {
    case 'person':
      story.people.set(link.id, {
        ...link,
        secret: {
          passwordHash: link.passwordHash,
          passwordBy: link.passwordBy ?? link.by,
          passwordAt: link.passwordAt ?? at,
          second: link.second ?? null,
        },
      });
      return;
    case 'person-change': {
      const person = story.people.get(link.id);
      if (person !== undefined) Object.assign(person, { roles: link.roles, active: link.active });
      return;
    }
    case 'password': {
      const person = story.people.get(link.id);
      if (person !== undefined)
        Object.assign(person.secret, {
          passwordHash: link.passwordHash,
          passwordBy: link.by,
          passwordAt: at,
        });
      return;
    }
    case 'second': {
      const person = story.people.get(link.id);
      if (person !== undefined) person.secret.second = link.second;
      return;
    }
    case 'recovery-used': {
      const second = story.people.get(link.id)?.secret.second;
      if (second != null) second.recovery = second.recovery.filter((hash) => hash !== link.hash);
      return;
    }
    case 'rules':
      // A link of before an address could be set leaves it as it was.
      story.rules = {
        witnessesNeedSecond: link.witnessesNeedSecond ?? story.rules.witnessesNeedSecond,
        labelAddress: link.labelAddress ?? story.rules.labelAddress,
      };
      return;
    case 'instrument':
      story.instruments.set(link.id, { ...link });
      return;
    case 'instrument-change': {
      const one = story.instruments.get(link.id);
      if (one !== undefined)
        Object.assign(one, { calibrationDue: link.calibrationDue, retired: link.retired });
      return;
    }
    case 'part':
      story.parts.push(link);
      return;
    case 'part-retired':
      if (link.retired) story.retired.set(link.id, link);
      else story.retired.delete(link.id);
      return;
    case 'job-here':
      story.jobs.set(link.id, link.name);
      return;
    case 'heads':
      Object.assign(story.heads, link.jobs);
      return;
    case 'restored':
      story.restored.push({ ...link, at });
      return;
    case 'taken-up':
      story.takenUp = { ...link, at };
      return;
  }
}
