import { lowVoltageDefaults, type Design, type Id } from '../../model/document';
import { fedV, lowVoltageSystem } from './system';
import { wire12v } from './wire-12v';

/** Loads that could share a feed, or a return. */
export interface FeedGroup {
  /** Both, or the return alone: then what switches them differs. */
  what: 'feed and return' | 'return';
  place: string;
  switchedBy: string | null;
  loads: Id[];
  currentA: number;
  /** For the sum; null: no wire of the table. */
  areaMm2: number | null;
  /** Of wire that is not laid. */
  savedM: number;
}

type Slices = Pick<Design, 'loads' | 'lowVoltage' | 'parts' | 'settings'>;

/**
 * Loads of one place, and of one switch where the feed is shared: what a common wire for their sum saves. Whoever takes it up has them
 * fail together.
 */
export function feedGroups({ loads = {}, lowVoltage = {}, parts, settings }: Slices): FeedGroup[] {
  const system = lowVoltageSystem({ lowVoltage, parts, settings });
  const systemV = fedV(system);
  const ready = Object.entries(loads).filter(
    ([, { powerW, lengthM, returnLengthM, place }]) =>
      powerW !== undefined && lengthM !== undefined && returnLengthM !== undefined && place !== undefined,
  );
  const sorted = new Map<string, { switchedBy: string | null; place: string; ids: Id[] }>();
  const put = (switchedBy: string | null, place: string, id: Id) => {
    const key = JSON.stringify([switchedBy, place]);
    const group = sorted.get(key) ?? { switchedBy, place, ids: [] };
    group.ids.push(id);
    sorted.set(key, group);
  };
  for (const [id, { switchedBy, place }] of ready) {
    if (switchedBy !== undefined) put(switchedBy, place!, id);
    put(null, place!, id);
  }
  const groups: FeedGroup[] = [];
  for (const { switchedBy, place, ids } of sorted.values()) {
    if (ids.length < 2) continue;
    // A return that is shared by one switch’s loads alone is theirs already.
    if (
      switchedBy === null &&
      ids.every(
        (id) => loads[id]!.switchedBy === loads[ids[0]!]!.switchedBy && loads[id]!.switchedBy !== undefined,
      )
    )
      continue;
    const currents = ids.map(
      (id) => loads[id]!.powerW! / (loads[id]!.steadyPower === true ? system.nominalV : systemV),
    );
    const currentA = currents.reduce((sum, one) => sum + one, 0);
    const feeds = ids.map((id) => loads[id]!.lengthM!);
    const returns = ids.map((id) => loads[id]!.returnLengthM!);
    const [feedM, returnM] = [Math.max(...feeds), Math.max(...returns)];
    const spared = (all: number[], longest: number) => all.reduce((sum, one) => sum + one, 0) - longest;
    const parsed = wire12v.parse({
      currentA,
      lengthM: feedM,
      returnLengthM: returnM,
      systemV,
      ...(lowVoltage.maxDropFraction !== undefined && { maxDropFraction: lowVoltage.maxDropFraction }),
      ambientC: Math.max(
        ...ids.map((id) => loads[id]!.ambientC ?? lowVoltage.ambientC ?? lowVoltageDefaults.ambientC),
      ),
    });
    groups.push({
      what: switchedBy === null ? 'return' : 'feed and return',
      place,
      switchedBy,
      loads: ids,
      currentA,
      areaMm2: parsed.ok ? wire12v.calculate(parsed.input).result.areaMm2 : null,
      savedM: (switchedBy === null ? 0 : spared(feeds, feedM)) + spared(returns, returnM),
    });
  }
  return groups.sort((a, b) => b.savedM - a.savedM);
}
