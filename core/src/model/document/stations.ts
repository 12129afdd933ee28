export const stations = [
  'brief',
  'pack',
  'network',
  'protect',
  'route',
  'cool',
  'charge',
  'prove',
  'book',
] as const;
export type Station = (typeof stations)[number];
