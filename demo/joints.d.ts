import type { JointItem } from '@torvek/core/document';
/** Lugs on steel studs of one size: tinned copper on tinned copper. */
export declare const lugs: (studMm: number, torqueNm: number, engagementMm: number) => JointItem;
