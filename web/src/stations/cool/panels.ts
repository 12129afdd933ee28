import { panelOfPath, stationOfPath } from '@torvek/core/document';

export const panels = [
  { id: 'loops', title: 'Loops' },
  { id: 'worst', title: 'Worst case' },
  { id: 'time', title: 'Over time' },
  { id: 'cold', title: 'Cold' },
  { id: 'fill', title: 'Fill and leak' },
] as const;
export type CoolPanel = (typeof panels)[number]['id'];

const isPanel = (id: unknown): id is CoolPanel => panels.some((one) => one.id === id);

/** The panel that an address asks for: by name, or by a place of the design that is edited in it. */
export function coolPanelOf(query: { panel?: unknown; at?: unknown }): CoolPanel {
  if (isPanel(query.panel)) return query.panel;
  const at = typeof query.at === 'string' ? query.at : '';
  const panel = at !== '' && stationOfPath(at) === 'cool' ? panelOfPath(at) : null;
  if (/^loops\.[^.]+\.(volumeL|tank|test|lost|fill)/.test(at)) return 'fill';
  if (/^cooling\.(repeats|startC|onAboveC|offBelowC|cellHeat)/.test(at)) return 'time';
  if (/^cooling\.(coldC|cellChargeMinC)/.test(at)) return 'cold';
  return isPanel(panel) ? panel : 'loops';
}

const ofRule: Record<string, CoolPanel> = {
  'cooling.drive-hot': 'time',
  'cooling.charge-hot': 'time',
  'cooling.cold-charge': 'cold',
  'cooling.heater-stops': 'cold',
  'cooling.cabin-cold': 'cold',
  'cooling.screen-mists': 'cold',
  'cooling.cabin-heat-said': 'cold',
  'cooling.vent-cabin': 'cold',
  'cooling.fan-sealed': 'worst',
  'cooling.no-bleed': 'fill',
  'cooling.tank-low': 'fill',
  'cooling.no-tank': 'fill',
  'cooling.freezes': 'fill',
  'cooling.flow-unnoticed': 'fill',
  'cooling.coolant-unnoticed': 'fill',
  'cooling.over-hv': 'fill',
  'cooling.coolant-hot': 'worst',
  'cooling.cells-hot': 'worst',
  'cooling.part-hot': 'worst',
  'cooling.no-way-out': 'worst',
};

/** The panel that shows what a rule is about. */
export function coolPanelOfRule(rule: string, [subject = '']: readonly string[] = []): CoolPanel {
  if (rule === 'cooling.unusual' && subject === 'cooling') return 'worst';
  if (rule === 'cooling.heater-no-branch') return subject.startsWith('box-') ? 'cold' : 'loops';
  if (/^(warm-up|heater-at-voltage)\./.test(rule)) return 'cold';
  if (/^(expansion|leak-test)\./.test(rule)) return 'fill';
  if (/^charge-curve\./.test(rule)) return 'time';
  return ofRule[rule] ?? 'loops';
}
