import { list, number, record, orNull, text } from '../ground/shape';

/** Fields that bodies of several kinds have. */

/** Words that may be empty. */
export const words = (max: number) => text(max, { min: 0 });
export const remark = text.optional(2000, { min: 0 });
/** The number of an entry. */
export const seq = number({ min: 1, integer: true });
export const hash = text(64, { min: 64 });
export const ids = (maxRows: number) => list(text(160), { maxRows });
/** See `Detail`. */
export const detail = record({ label: words(200), value: orNull(number()), unit: words(20) });
