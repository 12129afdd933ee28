/**
 * The rooms of the core in the order of the job. A room may import from itself and from earlier rooms
 * only; `eslint.config.mjs` turns this list into lint rules.
 */
export const rooms = [
  'quantity',
  'math',
  'working',
  'finding',
  'calculator',
  'figure',
  'parts',
  'document',
  'step',
  'vehicle',
  'pack',
  'balance',
  'network',
  'precharge',
  'fuse',
  'conductor',
  'contactor',
  'routing',
  'cooling',
  'charging',
  'low-voltage',
  'monitoring',
  'can',
  'safety',
  'build',
  'record',
  'commissioning',
  'design',
];
