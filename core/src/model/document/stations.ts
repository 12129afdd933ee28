export const stations = [
  'brief',
  'pack',
  'network',
  'protect',
  'route',
  'cool',
  'charge',
  'sense',
  'prove',
  'book',
] as const;
export type Station = (typeof stations)[number];
