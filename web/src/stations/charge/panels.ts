import { panelOfPath, stationOfPath } from '@torvek/core/document';

export const panels = [
  { id: 'ac', title: 'AC' },
  { id: 'dc', title: 'DC' },
  { id: 'time', title: 'Time' },
  { id: 'ladder', title: 'Ladder' },
  { id: 'budget', title: 'Low voltage' },
  { id: 'services', title: 'Services' },
  { id: 'looms', title: 'Looms' },
] as const;
export type ChargePanel = (typeof panels)[number]['id'];

const isPanel = (id: unknown): id is ChargePanel => panels.some((one) => one.id === id);

/** The panel that an address asks for: by name, or by a place of the design that is edited in it. */
export function chargePanelOf(query: { panel?: unknown; at?: unknown }): ChargePanel {
  if (isPanel(query.panel)) return query.panel;
  const at = typeof query.at === 'string' ? query.at : '';
  if (/^supplies\.[^.]+\.(minV|maxV|maxA|maxW)$/.test(at)) return 'dc';
  if (/^inlets\.[^.]+\.(stationA|sensors|weldCheck|monitorPauses|device)$/.test(at)) return 'dc';
  const panel = at !== '' && stationOfPath(at) === 'charge' ? panelOfPath(at) : null;
  return isPanel(panel) ? panel : 'ac';
}

const ofRule: Record<string, ChargePanel> = {
  'charge.no-lock': 'dc',
  'charge.no-weld-check': 'dc',
  'charge.hot-inlet': 'dc',
  'charge.two-monitors': 'dc',
  'charge.cold-rate': 'time',
  'charge.beyond-window': 'time',
  'charge.above-said': 'time',
  'charge.no-independent-stop': 'ladder',
  'charge.cut-needs-power': 'ladder',
  'charge.cut-one-phase': 'ladder',
  'charge.cut-rearms': 'ladder',
  'charge.ladder-open': 'ladder',
  'charge.pack-hides-cell': 'ladder',
  'low-voltage.no-successor': 'services',
  'low-voltage.no-warning': 'services',
  'low-voltage.service-shed': 'services',
  'low-voltage.service-idle': 'services',
  'low-voltage.heat-unguarded': 'services',
  'low-voltage.brake-reserve': 'services',
};

/** Where things of a kind are edited, by the beginning of their ids. */
const ofThing: [RegExp, ChargePanel][] = [
  [/^(load-|lowVoltage$)/, 'budget'],
  [/^service-/, 'services'],
  [/^(wire|bundle|end)-/, 'looms'],
  [/^(cut-|threshold-|limits$|charging$)/, 'ladder'],
];

/** The panel that shows what a rule is about: of a rule for everything, where its thing is. */
export function chargePanelOfRule(rule: string, [subject = '']: readonly string[] = []): ChargePanel {
  if (/\.(unusual|contradiction)$/.test(rule)) return ofThing.find(([id]) => id.test(subject))?.[1] ?? 'ac';
  if (/^dcfc-window\./.test(rule)) return 'dc';
  if (/^charge-curve\./.test(rule)) return 'time';
  if (/^threshold-ladder\./.test(rule)) return 'ladder';
  if (/^looms\./.test(rule)) return 'looms';
  const own = ofRule[rule];
  if (own !== undefined) return own;
  return /^(low-voltage|twelve-volt|wire-12v)\./.test(rule) ? 'budget' : 'ac';
}
