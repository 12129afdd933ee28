/** Every vector from the least to the limits; none where the least is above one. */
export function* counted(limits: readonly number[], least?: readonly number[]): Generator<number[]> {
  const from = limits.map((_, k) => least?.[k] ?? 0);
  if (from.some((one, k) => one > limits[k]!)) return;
  const own = [...from];
  for (;;) {
    yield [...own];
    let k = 0;
    while (k < limits.length && own[k] === limits[k]) {
      own[k] = from[k]!;
      k += 1;
    }
    if (k === limits.length) return;
    own[k]! += 1;
  }
}

/** Divides what each box holds among the strings so that as few joints as can be lead from box to box. */
export class Splitter {
  private readonly known = new Map<string, { links: number; parts: number[][][] }>();

  /** What string `s` and all later ones must have at least where they stay. */
  private readonly later: number[][];

  /**
   * @param strings modules of each kind, by string
   * @param stay of each string what stays where it is, by box and kind in one row
   */
  constructor(
    private readonly strings: number[][],
    private readonly boxes: number,
    private readonly stay: number[][],
  ) {
    const width = boxes * (strings[0]?.length ?? 0);
    this.later = [...strings.map(() => []), new Array<number>(width).fill(0)];
    for (let s = strings.length - 1; s >= 0; s -= 1)
      this.later[s] = this.later[s + 1]!.map((count, i) => count + stay[s]![i]!);
  }

  best(division: readonly number[]): { links: number; parts: number[][][] } {
    return this.from(0, [...division]);
  }

  /** The least joints of strings `s` and later, which take all that is left. */
  private from(s: number, left: number[]): { links: number; parts: number[][][] } {
    const kinds = this.strings[0]?.length ?? 0;
    if (s === this.strings.length) return { links: 0, parts: [] };
    if (s === this.strings.length - 1) {
      const own = this.boxesOf(left, kinds);
      return { links: joints(own), parts: [own] };
    }
    const key = `${s}|${left.join(',')}`;
    const before = this.known.get(key);
    if (before !== undefined) return before;
    let best: { links: number; parts: number[][][] } | null = null;
    for (const take of this.takes(s, this.strings[s]!, left, 0)) {
      const own = this.boxesOf(take, kinds);
      const links = joints(own);
      if (best !== null && links >= best.links) continue;
      const rest = this.from(
        s + 1,
        left.map((count, i) => count - take[i]!),
      );
      if (best === null || links + rest.links < best.links)
        best = { links: links + rest.links, parts: [own, ...rest.parts] };
      if (best.links === 0) break;
    }
    this.known.set(key, best!);
    return best!;
  }

  private boxesOf(flat: readonly number[], kinds: number): number[][] {
    return Array.from({ length: this.boxes }, (_, b) => flat.slice(b * kinds, (b + 1) * kinds));
  }

  /** Every way a string can take its modules from what is left. */
  private *takes(
    s: number,
    wanted: readonly number[],
    left: readonly number[],
    box: number,
  ): Generator<number[]> {
    const kinds = wanted.length;
    const here = (row: readonly number[]) => row.slice(box * kinds, (box + 1) * kinds);
    const least = here(this.stay[s]!);
    const most = here(left).map((count, k) => count - here(this.later[s + 1]!)[k]!);
    if (box === this.boxes - 1) {
      if (wanted.every((count, k) => count >= least[k]! && count <= most[k]!)) yield [...wanted];
      return;
    }
    const limits = wanted.map((count, k) => Math.min(count, most[k]!));
    for (const own of counted(limits, least))
      for (const rest of this.takes(
        s,
        wanted.map((count, k) => count - own[k]!),
        left,
        box + 1,
      ))
        yield [...own, ...rest];
  }
}

const joints = (own: number[][]) =>
  Math.max(own.filter((counts) => counts.some((count) => count > 0)).length - 1, 0);
