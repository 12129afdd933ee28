import { figureId, type Gap } from '../../ground/figure';
import { feedsOfBox, type Id } from '../../model/document';
import { gapsBehind, type Reader } from '../../model/step';

/** What a supply does for the warming of the boxes before it charges. */
export interface WarmFirst {
  /** The slowest box at this supply, min; null: not known, or never. */
  minutes: number | null;
  /** Heaters that can run at it ask this, W, and get that. */
  askedW: number;
  givenW: number;
  /** Boxes that never get warm enough at it, with why; they would elsewhere. */
  cold: { tag: string; ofMains: boolean }[];
  gaps: Gap[];
}

/** How much longer less power takes, where the box loses `lossW` at the temperature that is asked; null: never. */
export function slower(timeS: number, fullW: number, lessW: number, lossW: number): number | null {
  if (lessW >= fullW) return timeS;
  if (!(lessW > lossW)) return null;
  if (!(lossW > 0)) return (timeS * fullW) / lessW;
  return (timeS * Math.log1p(-lossW / lessW)) / Math.log1p(-lossW / fullW);
}

/**
 * How long the boxes are warmed at a supply until they may be charged: heaters share what it gives, and one that is fed by the mains has
 * none at a station. Nothing is taken out of the pack meanwhile.
 *
 * Source: one lump per box, as `warm-up` has it, with less power
 *
 * @param offeredW what the supply gives to the vehicle; null: not known
 * @param riseK from the coldest night to where cells are charged
 */
export function warmFirst(
  read: Reader,
  boxes: readonly Id[],
  { isStation, offeredW, riseK }: { isStation: boolean; offeredW: number | null; riseK: number },
): WarmFirst {
  const gaps: Gap[] = [];
  const all = read.at('boxes');
  const own = boxes.flatMap((box) => {
    const [warm, heater, loss] = (['warmS', 'heaterW', 'uaWPerK'] as const).map((name) =>
      read.figure(figureId('cooling.box', box, name)),
    ) as [ReturnType<Reader['figure']>, ReturnType<Reader['figure']>, ReturnType<Reader['figure']>];
    const missing = [warm, heater, loss].flatMap((one) => (one.value === null ? gapsBehind(one) : []));
    gaps.push(...missing);
    if (missing.length > 0) return [];
    const { tag } = all[box]!;
    const feeds = feedsOfBox({ boxes: all, plumbing: read.at('plumbing'), modules: read.at('modules') }, box);
    const ofMains = feeds.length > 0 && feeds.every((one) => one === 'mains');
    // Of a box that is warmed by both nobody knows here how much is whose.
    if (isStation && !ofMains && feeds.includes('mains')) {
      gaps.push({ kind: 'never', label: `what of ${tag} a station warms, beside its heater on the mains` });
      return [];
    }
    const askedW = isStation && ofMains ? 0 : heater.value!;
    return [{ tag, ofMains, askedW, fullW: heater.value!, timeS: warm.value!, lossW: loss.value! * riseK }];
  });
  const askedW = own.reduce((sum, one) => sum + one.askedW, 0);
  const share = offeredW === null || askedW <= 0 ? 1 : Math.min(1, offeredW / askedW);
  const times = own.map((one) => ({
    ...one,
    takesS: slower(one.timeS, one.fullW, one.askedW * share, one.lossW),
  }));
  const cold = times.flatMap(({ tag, ofMains, takesS }) =>
    takesS === null ? [{ tag, ofMains: ofMains && isStation }] : [],
  );
  const minutes =
    gaps.length > 0 || cold.length > 0
      ? null
      : times.reduce((most, { takesS }) => Math.max(most, takesS! / 60), 0);
  return { minutes, askedW, givenW: askedW * share, cold, gaps };
}
