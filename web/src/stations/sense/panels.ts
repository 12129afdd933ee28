import { panelOfPath, stationOfPath } from '@torvek/core/document';

export const panels = [
  { id: 'topology', title: 'Topology' },
  { id: 'map', title: 'Map' },
  { id: 'harness', title: 'Harness' },
  { id: 'ladder', title: 'Ladder' },
  { id: 'limits', title: 'Limits' },
  { id: 'power', title: 'First power-up' },
] as const;
export type SensePanel = (typeof panels)[number]['id'];

const isPanel = (id: unknown): id is SensePanel => panels.some((one) => one.id === id);

/** The panel that an address asks for: by name, or by a place of the design that is edited in it. */
export function sensePanelOf(query: { panel?: unknown; at?: unknown }): SensePanel {
  if (isPanel(query.panel)) return query.panel;
  const at = typeof query.at === 'string' ? query.at : '';
  if (/^sensing\.(strategy|mayStraddle)$/.test(at)) return 'map';
  if (/^(currentSensors|sensing\.(spin|channelMv|reactionS|coldStarts))/.test(at)) return 'power';
  const panel = at !== '' && stationOfPath(at) === 'sense' ? panelOfPath(at) : null;
  return isPanel(panel) ? panel : 'topology';
}

/** The panel that shows what a rule is about. */
export function sensePanelOfRule(rule: string, [subject = '']: readonly string[] = []): SensePanel {
  if (rule === 'monitoring.unusual')
    return subject === 'sensing' || subject.startsWith('current-') ? 'power' : 'map';
  if (/^(topology-compare\.|monitoring\.donor)/.test(rule)) return 'topology';
  if (/^ladder-check\./.test(rule)) return 'ladder';
  if (rule === 'monitoring.bleeds-full') return 'limits';
  if (/^monitoring\.(end-at-link|no-spin|spin-|current-)/.test(rule)) return 'power';
  if (rule === 'monitoring.plugs-alike') return 'harness';
  return 'map';
}
