/** Levels of nesting that an input may have. */
export const deepest = 32;

/** Goes no deeper than asked: the nesting may be 10 000 deep. */
export function isDeeperThan(value: unknown, levels: number): boolean {
  if (typeof value !== 'object' || value === null) return false;
  if (levels === 0) return true;
  if (Array.isArray(value)) {
    for (const child of value) if (isDeeperThan(child, levels - 1)) return true;
    return false;
  }
  for (const key in value) if (isDeeperThan((value as Record<string, unknown>)[key], levels - 1)) return true;
  return false;
}
