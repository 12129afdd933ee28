import { packTakesA, type SupplyAnswer } from '@torvek/core/charging';
import { inletOf, inletRating, othersOf } from '@torvek/core/charging';
import { packLayout } from '@torvek/core/pack';
import { supplyDefaults, type Design, type Id } from '@torvek/core/document';
import { formatNumber } from '@torvek/core/quantity';

/** A link between socket and cells: what it allows, in amperes on each phase of the mains. */
export interface WayLink {
  name: string;
  /** On each phase; null: it is not given. */
  phaseA: number | null;
  /** In its own words: what is read off it. */
  said: string;
  /** Mains up to the charger, then the pack. */
  side: 'mains' | 'pack';
  narrowest: boolean;
}

const n = (value: number) => formatNumber(value, 3);

/** Every link of a supply, from the breaker to the cells. */
export function wayOf(design: Design, id: Id, answer: SupplyAnswer | null, packV: number | null): WayLink[] {
  const supply = design.supplies?.[id];
  if (supply === undefined) return [];
  const links: Omit<WayLink, 'narrowest'>[] = [];
  const link = (name: string, phaseA: number | null, said: string, side: 'mains' | 'pack' = 'mains') =>
    links.push({ name, phaseA, said, side });
  const breaker = design.parts[supply.breaker ?? ''];
  const breakerA = supply.breakerA ?? (breaker?.kind === 'breaker' ? breaker.data.ratedA : null);
  const fraction = supply.continuousFraction ?? supplyDefaults.continuousFraction;
  const otherA = Math.max(...othersOf(supply));
  if (breakerA !== null)
    link(
      'breaker',
      breakerA * fraction - otherA,
      [
        `${n(breakerA)} A`,
        ...(fraction < 1 ? [`${n(fraction * 100)} % for hours`] : []),
        ...(otherA > 0 ? [`less ${n(otherA)} A of others`] : []),
      ].join(', '),
    );
  link(
    'pilot',
    supply.offersA ?? null,
    supply.offersA === undefined ? 'not given' : `offers ${n(supply.offersA)} A`,
  );
  const cableA = answer?.input.cableA ?? null;
  if (supply.cableOhm !== undefined)
    link('cable', cableA, cableA === null ? 'no code' : `${n(supply.cableOhm)} Ω: ${n(cableA)} A`);
  const found = inletOf(supply, design.inlets ?? {});
  if (found !== null) {
    const { mainsA } = inletRating(found.item, design.parts);
    if (mainsA !== null) link('inlet', mainsA, `pins ${n(mainsA)} A`);
    link(
      'wires',
      found.item.wireA ?? null,
      found.item.wireA === undefined ? 'not given' : `carry ${n(found.item.wireA)} A`,
    );
  } else link('inlet', null, 'none');
  if (answer !== null) {
    const { input, result } = answer;
    const volts = input.phaseVoltageV;
    const lines = (phase: 1 | 2 | 3 | '3ph') => (phase === '3ph' ? 3 : 1);
    // The busiest phase counts: chargers on one phase add up.
    const perPhase = (of: (i: number) => number) =>
      Math.max(
        ...[1, 2, 3].map((phase) =>
          input.chargers.reduce(
            (sum, one, i) => (one.phase === '3ph' || one.phase === phase ? sum + of(i) : sum),
            0,
          ),
        ),
      );
    const draws = perPhase((i) => input.chargers[i]!.maxInputA);
    link(
      input.chargers.length === 1 ? 'charger' : 'chargers',
      draws,
      `draw${input.chargers.length === 1 ? 's' : ''} ${n(draws)} A`,
    );
    const caps = input.chargers.map(
      (one) => (one.maxOutputA * input.packV) / (lines(one.phase) * volts * one.efficiency),
    );
    const gives = input.chargers.reduce((sum, one) => sum + one.maxOutputA, 0);
    link(
      'output',
      perPhase((i) => caps[i]!),
      `gives ${n(gives)} A`,
      'pack',
    );
    const { layout } = packLayout(design);
    const takes = layout === null ? null : packTakesA(layout.part.data, layout.strings);
    const perAmp = result.outputW > 0 ? Math.max(...result.phaseA) / result.outputA : null;
    if (takes !== null && perAmp !== null && packV !== null)
      link('cells', takes * perAmp, `take ${n(takes)} A`, 'pack');
  }
  const least = Math.min(...links.map(({ phaseA }) => phaseA ?? Infinity));
  return links.map((one) => ({ ...one, narrowest: one.phaseA !== null && one.phaseA <= least * (1 + 1e-9) }));
}

/** What one reads off the picture. */
export function waySentence(tag: string, links: readonly WayLink[], answer: SupplyAnswer | null): string {
  if (answer === null) return `${tag}: not computed yet.`;
  const governs = links.filter(({ narrowest }) => narrowest).map(({ name }) => name);
  const { result } = answer;
  const last = governs.at(-1)!;
  const named = governs.length === 1 ? last : `${governs.slice(0, -1).join(', ')} and ${last}`;
  return `${tag}: narrowest ${governs.length > 1 ? 'are' : 'is'} ${named}; ${n(
    Math.max(...result.phaseA),
  )} A on the busiest phase, ${n(result.outputW / 1000)} kW into the pack.`;
}
