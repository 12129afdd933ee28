import type { Gap } from '../../ground/figure';

/** What the design does not say. */
export const notGiven = (path: string, label: string): Gap => ({ kind: 'not-given', path, label });
