import type { JointItem } from '@torvek/core/document';

/** Lugs on steel studs of one size: tinned copper on tinned copper. */
export const lugs = (studMm: number, torqueNm: number, engagementMm: number): JointItem => ({
  tag: `Lugs on M${studMm}`,
  on: 'lugs',
  studMm,
  boltClass: '8.8',
  torqueNm,
  engagementMm,
  threadIn: 'steel',
  face: 'tin',
  otherFace: 'tin',
  preparation: 'brushed',
  stack: ['bar', 'lug', 'washer', 'spring', 'nut'],
  crimp: 'crimp',
  retorqueDays: 90,
});
