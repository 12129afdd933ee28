import type { CircuitItem } from '../../model/document';
import { defineRule, type Rule, type Suggestion } from '../../ground/finding';
import { partKey, type GlandData, type LugData, type Part, type PartOf } from '../../model/parts';
import { formatNumber } from '../../ground/quantity';

const rule = (id: string, title: string, why: string, remedy: string): Rule =>
  defineRule({
    id: `cable.${id}`,
    version: 1,
    grade: 'mend',
    title,
    why,
    remedy,
    source: 'Makers of lugs and glands',
  });

export const endRules = {
  lugArea: rule(
    'lug-area',
    'The lug is made for another conductor',
    'A crimp holds and conducts only at the area its barrel and die are made for.',
    'A lug of the cable’s area and maker’s system.',
  ),
  lugStud: rule(
    'lug-stud',
    'The lug does not fit its stud',
    'Too small a hole does not go on; too large a one leaves half the face without contact.',
    'A lug for this stud.',
  ),
  lugHeat: rule(
    'lug-temperature',
    'The conductor runs hotter than its lug stands',
    'A joint that is hotter than it stands loosens and then gets hotter still.',
    'A lug for the temperature, or a larger cable.',
  ),
  glandHeat: rule(
    'gland-temperature',
    'The cable is hotter than its gland stands',
    'A gland that gets soft lets go of the cable, and water in.',
    'A gland for the temperature, or a larger cable.',
  ),
  glandScreen: rule(
    'gland-screen',
    'The screen is clamped in a gland that does not meet it',
    'A screen that ends in plastic is an aerial with an open end, whatever the drawing says.',
    'A gland whose insert meets the screen all round, or another way to end it.',
  ),
  conduitFill: rule(
    'conduit-fill',
    'The cables do not go through their conduit',
    'What is fuller than about two fifths cannot be drawn in, and does not shed its heat.',
    'A larger conduit, or one for each cable.',
  ),
  glandClamp: rule(
    'gland-clamp',
    'The gland does not clamp this cable',
    'What is not clamped lets water in and pulls at the lug.',
    'A gland whose range holds the cable’s outer diameter.',
  ),
};

/** What a cable asks of its ends. */
export interface CableEnd {
  areaMm2: number;
  outerDiameterMm: number;
  /** null: not known. */
  conductorTemperatureC: number | null;
  studMm: number | null;
  /** At how many ends its screen is clamped. */
  screensClamped?: number;
}

/** The jacket of a cable is about so much cooler than its conductor, K. */
const jacketCoolerK = 15;
/** What the gland feels of the cable, °C, about; null: not known. */
export const jacketOf = ({
  conductorTemperatureC,
}: Pick<CableEnd, 'conductorTemperatureC'>): number | null =>
  conductorTemperatureC === null ? null : conductorTemperatureC - jacketCoolerK;

/** At how many ends of a circuit its screen is clamped. */
export const screensClamped = ({
  screened,
  screenFrom,
  screenTo,
}: Pick<CircuitItem, 'screened' | 'screenFrom' | 'screenTo'>): number =>
  screened === true ? [screenFrom, screenTo].filter((one) => one === 'clamp').length : 0;

/** What does not hold of a lug at the end of a cable, by rule. */
export function lugProblems(lug: LugData, end: CableEnd): Map<Rule, string> {
  const n = formatNumber;
  const found = new Map<Rule, string>();
  if (lug.areaMm2 !== end.areaMm2)
    found.set(endRules.lugArea, `is for ${n(lug.areaMm2)} mm², the cable has ${n(end.areaMm2)} mm²`);
  if (end.studMm !== null && lug.studMm !== end.studMm)
    found.set(endRules.lugStud, `is for M${n(lug.studMm)}, the stud is M${n(end.studMm)}`);
  if (end.conductorTemperatureC !== null && end.conductorTemperatureC > lug.maxC)
    found.set(
      endRules.lugHeat,
      `stands ${n(lug.maxC)} °C, the conductor reaches ${n(end.conductorTemperatureC)} °C`,
    );
  return found;
}

/** What does not hold of a gland around a cable, or null. */
export function glandProblem({ clampMinMm, clampMaxMm }: GlandData, outerDiameterMm: number): string | null {
  const n = formatNumber;
  return outerDiameterMm >= clampMinMm && outerDiameterMm <= clampMaxMm
    ? null
    : `clamps ${n(clampMinMm)} to ${n(clampMaxMm)} mm, the cable has ${n(outerDiameterMm)} mm`;
}

/** Everything that does not hold of a gland at the end of a cable. */
export function glandProblems(gland: GlandData, end: CableEnd): string[] {
  const clamp = glandProblem(gland, end.outerDiameterMm);
  const jacketC = jacketOf(end);
  return [
    ...(clamp === null ? [] : [clamp]),
    ...(jacketC !== null && jacketC > gland.maxC
      ? [`stands ${formatNumber(gland.maxC)} °C, the jacket reaches about ${formatNumber(jacketC)} °C`]
      : []),
    ...((end.screensClamped ?? 0) > 0 && !gland.screenContact ? ['does not meet the screen'] : []),
  ];
}

/** Lugs for the end of a cable: those that fit first, the narrowest palm first among them. */
export function rankLugs(parts: readonly PartOf<'lug'>[], end: CableEnd): Suggestion[] {
  return ranked(
    parts,
    ({ data }) => [...lugProblems(data, end).values()],
    (a, b) =>
      Math.abs(a.data.areaMm2 - end.areaMm2) - Math.abs(b.data.areaMm2 - end.areaMm2) ||
      a.data.palmWidthMm - b.data.palmWidthMm,
  );
}

/** Glands for a cable: those that fit first, the one in whose range it lies most in the middle first among them. */
export function rankGlands(parts: readonly PartOf<'gland'>[], end: CableEnd): Suggestion[] {
  const { outerDiameterMm } = end;
  const off = ({ data }: PartOf<'gland'>) =>
    Math.abs((data.clampMinMm + data.clampMaxMm) / 2 - outerDiameterMm);
  return ranked(
    parts,
    ({ data }) => glandProblems(data, end),
    (a, b) => off(a) - off(b),
  );
}

function ranked<P extends Part>(
  parts: readonly P[],
  reasonsOf: (part: P) => string[],
  order: (a: P, b: P) => number,
): Suggestion[] {
  return [...parts]
    .map((part) => ({ part, reasons: reasonsOf(part) }))
    .sort((a, b) => a.reasons.length - b.reasons.length || order(a.part, b.part))
    .map(({ part, reasons }) => ({
      partKey: partKey(part),
      label: part.label,
      fits: reasons.length === 0,
      reasons,
    }));
}
