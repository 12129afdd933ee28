import { figureId, type Gap } from '../../ground/figure';
import type { Id } from '../../model/document';
import { gapsBehind, type Reader } from '../../model/step';
import { readPackLayout } from '../pack';
import { packTakesA } from './cell-limits';
import { inletOf, inletRating } from './supply-inputs';

/** One link of the way from a station to the cells, and what it carries. */
export interface StationLink {
  what: string;
  currentA: number;
}

export interface StationLimits {
  /** From the station to the cells; the least governs. */
  limits: StationLink[];
  maxW: number | null;
  maxV: number;
  /** What is plugged into what. */
  inlet: Id | null;
  gaps: Gap[];
}

/** Every link that limits the current of a station. */
export function stationLimits(subject: Id, read: Reader): StationLimits {
  const supply = read.at('supplies')![subject]!;
  const at = `supplies.${subject}`;
  const gaps: Gap[] = [];
  const missing = (path: string, label: string) => gaps.push({ kind: 'not-given', path, label });
  const limits: StationLink[] = [];
  const link = (what: string, currentA: number) => limits.push({ what, currentA });
  if (supply.maxA === undefined) missing(`${at}.maxA`, `highest current of ${supply.tag}`);
  else link('station', supply.maxA);
  if (supply.minV === undefined) missing(`${at}.minV`, `lowest voltage of ${supply.tag}`);
  if (supply.maxV === undefined) missing(`${at}.maxV`, `highest voltage of ${supply.tag}`);
  const parts = read.at('parts');
  const found = inletOf(supply, read.at('inlets') ?? {});
  if (found === null) missing('inlets', 'an inlet for a station');
  else {
    const { stationA } = inletRating(found.item, parts);
    if (stationA === null)
      missing(`inlets.${found.id}.stationA`, `what ${found.item.tag} carries of a station`);
    else link('inlet', stationA);
    const circuits = read.at('circuits');
    const feeds = Object.keys(circuits).find((id) => circuits[id]!.device === found.item.device);
    if (found.item.device === undefined)
      missing(`inlets.${found.id}.device`, `DC contacts of ${found.item.tag}`);
    else if (feeds === undefined) missing('circuits', `a branch for ${found.item.tag}`);
    else {
      const contactor = parts[circuits[feeds]!.contactor ?? ''];
      if (contactor?.kind === 'contactor') link('contactors', contactor.data.continuousA);
      const ampacity = read.figure(figureId('conductor.cable', feeds, 'ampacityA'));
      if (ampacity.value === null) gaps.push(...gapsBehind(ampacity));
      else link('cable', ampacity.value);
    }
  }
  const { layout } = readPackLayout(read);
  const takes = layout === null ? null : packTakesA(layout.part.data, layout.strings);
  if (takes !== null) link('cells', takes);
  const said = read.at('pack').chargeA;
  if (said !== undefined) link('vehicle’s own limit', said);
  const highest = read.figure(figureId('pack.pack', 'pack', 'voltageMaxV'));
  if (highest.value === null) gaps.push(...gapsBehind(highest));
  return {
    limits,
    maxW: supply.maxW ?? null,
    maxV: Math.min(supply.maxV ?? Infinity, highest.value ?? Infinity),
    inlet: found?.id ?? null,
    gaps,
  };
}
