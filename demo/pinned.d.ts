import { type Part, type PartKey } from '@torvek/core/parts';
/** Parts of the catalogue as a design pins them. */
export declare function pinned(keys: PartKey[]): Record<PartKey, Part>;
