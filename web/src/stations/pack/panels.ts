import { panelOfPath, stationOfPath } from '@torvek/core/document';

export const panels = [
  { id: 'pack', title: 'Cells and devices' },
  { id: 'arrange', title: 'Boxes and arrangement' },
  { id: 'stock', title: 'Stock' },
  { id: 'intake', title: 'Intake' },
  { id: 'match', title: 'Match and group' },
  { id: 'balance', title: 'Balance' },
  { id: 'links', title: 'Links out' },
] as const;
export type PackPanel = (typeof panels)[number]['id'];

/** The panel that an address asks for: by name, or by a place of the design that is edited in it. */
export function packPanelOf(query: { panel?: unknown; at?: unknown }): PackPanel {
  const asked = panels.find(({ id }) => id === query.panel);
  if (asked !== undefined) return asked.id;
  const at = typeof query.at === 'string' ? query.at : '';
  const panel = at !== '' && stationOfPath(at) === 'pack' ? panelOfPath(at) : null;
  return panels.find(({ id }) => id === panel)?.id ?? 'pack';
}

const arranged = /^pack\.(anchors|no-access|vent|box-|link-pitch)/;

/** Rooms of rules that have a panel of their name. */
const named = ['stock', 'intake', 'balance'] as const;

/** The panel that shows what a rule is about. */
export const packPanelOfRule = (rule: string): PackPanel =>
  arranged.test(rule) ? 'arrange' : (named.find((one) => rule.startsWith(one)) ?? 'pack');
