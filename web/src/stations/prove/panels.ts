export const panels = [
  { id: 'procedure', title: 'Procedure' },
  { id: 'built', title: 'As built' },
] as const;
export type ProvePanel = (typeof panels)[number]['id'];

/** The panel that an address asks for. */
export const provePanelOf = (query: { panel?: unknown }): ProvePanel =>
  query.panel === 'built' ? 'built' : 'procedure';

/** The panel that shows what a rule is about. */
export const provePanelOfRule = (rule: string): ProvePanel =>
  rule.startsWith('built.') ? 'built' : 'procedure';
