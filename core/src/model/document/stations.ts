export const stations = ['brief', 'pack', 'network', 'protect', 'prove', 'book'] as const;
export type Station = (typeof stations)[number];
