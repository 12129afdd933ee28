import { ladderCheck, type LadderCheckResult } from '@torvek/core/monitoring';
import { parseQuantity } from '@torvek/core/quantity';

/** Readings as far as they are typed, one after another. */
export interface TypedTaps {
  taps: number[];
  /** The word that cannot be read. */
  problem: string | null;
}

export function typedTaps(text: string): TypedTaps {
  const taps: number[] = [];
  for (const word of text.split(/[\n\t; ]+/).filter((one) => one !== '' && !/^v$/i.test(one))) {
    const read = parseQuantity(word, 'V');
    if (!read.ok) return { taps, problem: `pin ${taps.length + 2}: ${word} ${read.message}` };
    taps.push(read.value);
  }
  return { taps, problem: null };
}

export interface LadderRung {
  pin: number;
  /** Against the reference; null: not read yet. */
  voltV: number | null;
  /** From the pin before; null: not known. */
  stepV: number | null;
  state: 'waits' | 'good' | 'wrong' | 'tie';
}

/** The picture of a ladder that grows with each reading: a step is right by itself, faults are named when all are there. */
export function rungs(
  taps: readonly number[],
  shape: { cells: number; tied: number; minV: number; maxV: number },
): LadderRung[] {
  const { cells, tied, minV, maxV } = shape;
  return Array.from({ length: cells + tied }, (_, i): LadderRung => {
    const voltV = taps[i] ?? null;
    const stepV = voltV === null ? null : voltV - (i === 0 ? 0 : taps[i - 1]!);
    const isTie = i >= cells;
    const good =
      stepV !== null &&
      (isTie ? Math.abs(voltV! - taps[cells - 1]!) <= 0.02 : stepV >= minV && stepV <= maxV);
    return {
      pin: i + 2,
      voltV,
      stepV,
      state: voltV === null ? 'waits' : good ? (isTie ? 'tie' : 'good') : 'wrong',
    };
  });
}

/** What the readings say once all are there; null: some are missing, or they cannot be judged. */
export function verdictOf(
  taps: readonly number[],
  { cells, tied, minV, maxV }: { cells: number; tied: number; minV: number; maxV: number },
): LadderCheckResult | null {
  if (taps.length !== cells + tied) return null;
  const parsed = ladderCheck.parse({ cells, cellMinV: minV, cellMaxV: maxV, tied, measuredV: [...taps] });
  return parsed.ok ? ladderCheck.calculate(parsed.input).result : null;
}
