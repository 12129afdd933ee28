/**
 * The rooms of the core in the order of the job, by the folder they are in. A room may import from itself and from earlier
 * rooms only; `eslint.config.mjs` turns this list into lint rules.
 */
export const folders = {
  /** What any program of this kind stands on. */
  ground: ['quantity', 'math', 'space', 'working', 'finding', 'shape', 'calculator', 'figure'],
  /** What happened. Entries know nothing of designs; each room of the trade judges what is recorded of its own things. */
  record: ['.'],
  /** What a design is, and how things follow from it. */
  model: ['parts', 'document', 'step', 'procedure', 'room', 'library'],
  /** One room for each chapter of the job. */
  trade: [
    'vehicle',
    'pack',
    'balance',
    'network',
    'precharge',
    'fuse',
    'conductor',
    'contactor',
    'distances',
    'joints',
    'bonding',
    'norms',
    'built',
    'routing',
    // Charging warms what is cooled.
    'charging',
    'cooling',
    'low-voltage',
    'monitoring',
    'can',
    'safety',
    'build',
  ],
  /** What puts all of them together. */
  whole: ['commissioning', 'design', 'sheets'],
};

/** Each room with its folder: `trade/fuse`; a folder that is one room by its own name. */
export const rooms = Object.entries(folders).flatMap(([folder, names]) =>
  names.map((name) => (name === '.' ? folder : `${folder}/${name}`)),
);
