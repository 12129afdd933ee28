import { panelOfPath, stationOfPath } from '@torvek/core/document';

export const panels = [
  { id: 'runs', title: 'Runs' },
  { id: 'lines', title: 'Lines, zones and places' },
  { id: 'walls', title: 'Through walls' },
  { id: 'card', title: 'Bend card and pull' },
  { id: 'cuts', title: 'Cut list' },
] as const;
export type RoutePanel = (typeof panels)[number]['id'];

/** The panel that an address asks for: by name, or by a place of the design that is edited in it. */
export function routePanelOf(query: { panel?: unknown; at?: unknown }): RoutePanel {
  const asked = panels.find(({ id }) => id === query.panel);
  if (asked !== undefined) return asked.id;
  const at = typeof query.at === 'string' ? query.at : '';
  const panel = at !== '' && stationOfPath(at) === 'route' ? panelOfPath(at) : null;
  if (panel === 'walls') return 'walls';
  return panel === 'lines' || panel === 'places' ? 'lines' : 'runs';
}

/** The panel that shows what a rule is about. */
export const routePanelOfRule = (rule: string, [subject = '']: readonly string[] = []): RoutePanel =>
  /^run\.device/.test(rule) || (rule === 'run.unusual' && !subject.startsWith('run-'))
    ? 'lines'
    : /^(bend-card|conduit-fit|pull)\./.test(rule)
      ? 'card'
      : rule.startsWith('cut-plan.')
        ? 'cuts'
        : rule.startsWith('wall.')
          ? 'walls'
          : 'runs';
