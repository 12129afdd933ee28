import { panelOfPath as placePanel, stationOfPath } from '@torvek/core/document';

export const panels = [
  { id: 'circuits', title: 'Circuits' },
  { id: 'start', title: 'Start and stop' },
  { id: 'strings', title: 'Strings' },
  { id: 'leads', title: 'Inside the pack' },
  { id: 'joints', title: 'Joints and bars' },
  { id: 'bonds', title: 'Bonds and distances' },
] as const;
export type PanelId = (typeof panels)[number]['id'];

/** The panel in which a place of the design is edited; null: none is asked for. */
export function panelOfPath(path: string): PanelId | null {
  const panel = path !== '' && stationOfPath(path) === 'protect' ? placePanel(path) : null;
  return panels.find(({ id }) => id === panel && id !== 'circuits')?.id ?? null;
}

/** The panel that an address asks for: by name, or by a place of the design that is edited in it. */
export const protectPanelOf = (query: { panel?: unknown; at?: unknown }): PanelId =>
  panels.find(({ id }) => id === query.panel)?.id ??
  panelOfPath(typeof query.at === 'string' ? query.at : '') ??
  'circuits';

const rooms: [PanelId, RegExp][] = [
  ['start', /^(precharge|bus-discharge)\./],
  ['strings', /^strings\./],
  ['leads', /^(sense\.|cable\.pack-cable)/],
  ['joints', /^(joints|busbar)\./],
  ['bonds', /^(bonding|marking|charging|distances)\./],
];

/** The panel that shows what a rule is about; what is said of a cable of the pack is said where those are. */
export const panelOfRule = (rule: string, subjects: readonly string[] = []): PanelId =>
  subjects.some((id) => id.startsWith('lead-'))
    ? 'leads'
    : (rooms.find(([, pattern]) => pattern.test(rule))?.[0] ?? 'circuits');

/** Panels that show one circuit and nothing of the others. */
export const showsOneCircuit = (panel: string): boolean => panel === 'circuits' || panel === 'start';
