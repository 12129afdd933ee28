import type { ChargeCurveResult } from '@torvek/core/charging';

/** What is plotted over time or over charge. */
export const plotted = ['power', 'current', 'voltage', 'charge'] as const;
export type Plotted = (typeof plotted)[number];

export interface TimeCurve {
  id: string;
  tag: string;
  /** As of the calculator: minutes, state, A, V. */
  curve: ChargeCurveResult['curve'];
}

/** Points of one supply: over hours, or over the state of charge in percent. */
export function pointsOf(
  { curve }: Pick<TimeCurve, 'curve'>,
  what: Plotted,
  over: 'time' | 'charge',
): [x: number, y: number][] {
  return curve.map(([minutes, soc, amps, volts]) => {
    const y = { power: (amps * volts) / 1000, current: amps, voltage: volts, charge: soc * 100 }[what];
    return [over === 'time' ? minutes / 60 : soc * 100, y];
  });
}

/** Hours and minutes as people say them. */
export function said(minutes: number | null): string {
  if (minutes === null) return '—';
  const all = Math.round(minutes);
  if (all < 60) return `${all} min`;
  const rest = all % 60;
  return rest === 0 ? `${Math.floor(all / 60)} h` : `${Math.floor(all / 60)} h ${rest} min`;
}

/** Supplies whose charge runs alike share one line: two names on one another are none. */
export function alike(curves: readonly TimeCurve[]): TimeCurve[] {
  const found: TimeCurve[] = [];
  const same = (a: TimeCurve, b: TimeCurve) => {
    const [x, y] = [a.curve.at(-1)!, b.curve.at(-1)!];
    const near = (one: number, other: number) =>
      Math.abs(one - other) <= 0.005 * Math.max(Math.abs(one), 1e-9);
    return near(x[0], y[0]) && near(x[1], y[1]) && near(a.curve[0]![2], b.curve[0]![2]);
  };
  for (const curve of curves) {
    const twin = found.findIndex((one) => same(one, curve));
    if (twin < 0) found.push(curve);
    else found[twin] = { ...found[twin]!, tag: `${found[twin]!.tag}; ${curve.tag}` };
  }
  return found;
}
