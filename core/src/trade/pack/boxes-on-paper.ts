import { arrange, fitModules, rankOf, type ArrangeInput, type ArrangeResult } from '.';

export const size = { lengthMm: 590, widthMm: 225, heightMm: 108 };
export const roomy = { lengthM: 1.3, widthM: 0.75, heightM: 0.4, marginMm: 20 };

export function run(input: ArrangeInput): ArrangeResult {
  const search = arrange(input);
  for (;;) {
    const step = search.next();
    if (step.done === true) return step.value;
  }
}

export function permutations(of: number[]): number[][] {
  if (of.length < 2) return [of];
  return of.flatMap((one) => permutations(of.filter((other) => other !== one)).map((rest) => [one, ...rest]));
}

/** Every single module into every box: the search must find nothing better and nothing worse. */

export function bruteForce(input: ArrangeInput): { ranks: string[]; feasible: number } {
  const kinds = Object.keys(input.kinds);
  const modules = input.strings.flatMap(({ counts }, s) =>
    kinds.flatMap((kind) => Array.from({ length: counts[kind] ?? 0 }, () => ({ kind, s }))),
  );
  const divisions = new Map<string, number[]>();
  const known = new Map<string, number | null>();
  const spareOf = (b: number, counts: number[]) => {
    const key = `${b}|${counts.join(',')}`;
    if (!known.has(key)) {
      const sizes = kinds.map((kind, k) => ({ size: input.kinds[kind]!, count: counts[k]! }));
      known.set(key, fitModules(input.boxes[b]!, sizes)?.spareFraction ?? null);
    }
    return known.get(key)!;
  };
  const total = input.boxes.length ** modules.length;
  for (let code = 0; code < total; code += 1) {
    let rest = code;
    const places = modules.map(() => {
      const box = rest % input.boxes.length;
      rest = Math.floor(rest / input.boxes.length);
      return box;
    });
    let spare = Infinity;
    let front = input.frontKg;
    let all = input.frontKg + input.rearKg;
    const fits = input.boxes.every((_, b) => {
      const counts = kinds.map(
        (kind) => modules.filter((one, i) => one.kind === kind && places[i] === b).length,
      );
      if (counts.every((count) => count === 0)) return true;
      const free = spareOf(b, counts);
      spare = Math.min(spare, free ?? 0);
      return free !== null;
    });
    if (!fits) continue;
    modules.forEach(({ kind }, i) => {
      const { massKg } = input.kinds[kind]!;
      front += massKg * (1 + input.boxes[places[i]!]!.xM / input.wheelbaseM);
      all += massKg;
    });
    const before = input.frontKg / (input.frontKg + input.rearKg);
    const linksBetween = input.strings.reduce(
      (sum, _, s) => sum + Math.max(new Set(places.filter((_box, i) => modules[i]!.s === s)).size - 1, 0),
      0,
    );
    const rank = rankOf({
      shiftPoints: (front / all - before) * 100,
      linksBetween,
      spareFraction: Number.isFinite(spare) ? spare : 1,
    });
    const division = input.boxes
      .flatMap((_, b) =>
        kinds.map((kind) => modules.filter((one, i) => one.kind === kind && places[i] === b).length),
      )
      .join(',');
    const earlier = divisions.get(division);
    if (earlier === undefined || rank[1] < earlier[1]!) divisions.set(division, rank);
  }
  const ranks = [...divisions.values()].sort((a, b) => a[0]! - b[0]! || a[1]! - b[1]! || a[2]! - b[2]!);
  return { ranks: ranks.slice(0, input.keep ?? 8).map(String), feasible: divisions.size };
}

export const box = (id: string, xM: number, lengthM: number, heightM = 0.3) => ({
  id,
  tag: id,
  xM,
  yM: 0,
  zM: 0.6,
  lengthM,
  widthM: 0.7,
  heightM,
  marginMm: 20,
});

export const vehicle = {
  wheelbaseM: 4.2,
  frontKg: 2480,
  rearKg: 3520,
  changes: [],
  mains: { xM: 0, yM: 0, zM: 0.6 },
};
