import { settingsDefaults } from '../../model/document';
import { defineCalculator } from '../../ground/calculator';
import { list, number, record } from '../../ground/shape';
import { rulesOf } from '../../ground/finding';
import { formatNumber } from '../../ground/quantity';

export interface SegmentsInput {
  /** Highest voltage of each module, V, in series order. */
  moduleMaxV: number[];
  /** 60 V by default: the usual DC touch limit. */
  limitV: number;
  /** Links that must stay; link i lies between module i and i + 1, from 1. */
  keepClosed: number[];
}

export interface Segment {
  /** First and last module, from 1. */
  from: number;
  to: number;
  voltageV: number;
}

export interface SegmentsResult {
  feasible: boolean;
  linksToOpen: number[];
  segments: Segment[];
}

const rule = rulesOf('segments');

export const segmentRules = {
  moduleOver: rule(
    'module-over-limit',
    'stop',
    'A single module is above the touch limit',
    'No link that is left out brings a module below its own voltage: it is live to touch as long as it exists.',
    'Work on it as on high voltage at every stage of the build, covered, with gloves and a second person.',
    'Sum of the modules between two open links',
  ),
  runOver: rule(
    'kept-run-over-limit',
    'stop',
    'Links that must stay hold a run above the touch limit',
    'The run between two links that can be left out is above the limit as soon as it is assembled.',
    'Let one of the links in the run be taken out, or treat the run as high voltage from its first link on.',
    'Sum of the modules between two open links',
  ),
};

/** Voltages that differ by less are the same: 3 × 16.8 is not above 50.4. */
const sameV = 1e-6;

/** Modules that no link can part: `first` to `last`, 0-based. */
interface Block {
  first: number;
  last: number;
  voltageV: number;
}

/** Joins modules over links that must stay. */
function blocksOf({ moduleMaxV, keepClosed }: SegmentsInput): Block[] {
  const kept = new Set(keepClosed);
  const blocks: Block[] = [];
  moduleMaxV.forEach((voltageV, i) => {
    const before = blocks.at(-1);
    if (before !== undefined && kept.has(i)) {
      before.last = i;
      before.voltageV += voltageV;
    } else blocks.push({ first: i, last: i, voltageV });
  });
  return blocks;
}

/** How many segments blocks from each place on need at least, each within a cap; Infinity where it cannot be. */
function fewestFrom(blocks: readonly Block[], capV: number): number[] {
  const fewest = new Array<number>(blocks.length + 1).fill(Infinity);
  fewest[blocks.length] = 0;
  // The farther a first segment reaches the better: the greedy reach from each place, by two pointers.
  let end = blocks.length;
  let sum = 0;
  for (let start = blocks.length - 1; start >= 0; start -= 1) {
    sum += blocks[start]!.voltageV;
    while (end > start && sum > capV) {
      end -= 1;
      sum -= blocks[end]!.voltageV;
    }
    fewest[start] = end > start ? 1 + fewest[end]! : Infinity;
    if (end === start) sum = 0;
  }
  return fewest;
}

/** The largest segment of the partition that always reaches as far as it can. */
function largestOfGreedy(blocks: readonly Block[], capV: number): number {
  let largest = 0;
  let sum = 0;
  for (const { voltageV } of blocks) {
    if (sum > 0 && sum + voltageV > capV) sum = 0;
    sum += voltageV;
    largest = Math.max(largest, sum);
  }
  return largest;
}

/** The lowest largest segment with which the fewest segments still suffice. */
function lowestLargest(blocks: readonly Block[], limitV: number): number {
  const count = fewestFrom(blocks, limitV + sameV)[0]!;
  let low = Math.max(...blocks.map(({ voltageV }) => voltageV)) * (1 - 1e-15) - sameV;
  let high = limitV + sameV;
  for (let i = 0; i < 100 && high - low > 1e-12 * high; i += 1) {
    const middle = (low + high) / 2;
    if (fewestFrom(blocks, middle)[0]! <= count) high = middle;
    else low = middle;
  }
  return largestOfGreedy(blocks, high);
}

/** Partitions a run into the fewest segments, none above the cap, its links as early as can be. */
function earliest(blocks: readonly Block[], capV: number): Block[][] {
  const fewest = fewestFrom(blocks, capV);
  const parts: Block[][] = [];
  let left = fewest[0]!;
  for (let start = 0; start < blocks.length; left -= 1) {
    let end = start + 1;
    while (left - 1 < fewest[end]! && end < blocks.length) end += 1;
    parts.push(blocks.slice(start, end));
    start = end;
  }
  return parts;
}

/** Runs of blocks between those that are over the limit by themselves, which stand alone. */
function runsOf(blocks: readonly Block[], isOver: (block: Block) => boolean): Block[][] {
  const runs: Block[][] = [];
  let open = false;
  for (const block of blocks) {
    if (isOver(block)) {
      runs.push([block]);
      open = false;
    } else if (open) runs.at(-1)!.push(block);
    else {
      runs.push([block]);
      open = true;
    }
  }
  return runs;
}

/**
 * Which links of a string to leave out so that no segment exceeds the touch limit.
 *
 * Fewest links; among equals the lowest largest segment; then the earliest links. Source: partition of a sequence,
 * solved exactly by greedy reach and bisection over the largest segment.
 */
export const segments = defineCalculator<SegmentsInput, SegmentsResult>({
  name: 'segments',
  version: 1,
  title: 'Links to leave out',
  rules: Object.values(segmentRules),
  door: {
    schema: record({
      moduleMaxV: list(number({ above: 0 }), { minRows: 1, maxRows: 2000 }),
      limitV: number.optional({ above: 0 }),
      keepClosed: list.optional(number({ min: 1, integer: true }), { maxRows: 2000 }),
    }),
    defaults: { limitV: settingsDefaults.touchLimitV, keepClosed: [] },
    cross({ moduleMaxV, keepClosed }: SegmentsInput, issue) {
      keepClosed.forEach((link, i) => {
        if (link >= moduleMaxV.length)
          issue(`keepClosed.${i}`, `is no link: ${moduleMaxV.length} modules have ${moduleMaxV.length - 1}`);
      });
    },
  },
  compute(input, { sheet, raise }) {
    const { limitV, moduleMaxV } = input;
    const blocks = blocksOf(input);
    const isOver = ({ voltageV }: Block) => voltageV > limitV + sameV;
    const over = blocks.filter(isOver);
    const runs = runsOf(blocks, isOver);
    const free = runs.filter((run) => !isOver(run[0]!));
    // The largest segment of all decides among equals: what stands above the limit anyway leaves the others free.
    const capV = over.length > 0 ? limitV : Math.max(0, ...free.map((run) => lowestLargest(run, limitV)));
    const parts = runs.flatMap((run) =>
      isOver(run[0]!) ? [run] : earliest(run, Math.min(capV, limitV) + sameV),
    );
    const found = parts.map((part): Segment => ({
      from: part[0]!.first + 1,
      to: part.at(-1)!.last + 1,
      voltageV: part.reduce((sum, { voltageV }) => sum + voltageV, 0),
    }));
    const linksToOpen = found.slice(0, -1).map(({ to }) => to);
    for (const { first, last, voltageV } of over) {
      const volts = `${formatNumber(voltageV, 4)} V, the limit is ${formatNumber(limitV)} V`;
      if (first === last) raise(segmentRules.moduleOver, `Module ${first + 1} alone has ${volts}.`);
      else raise(segmentRules.runOver, `Modules ${first + 1} to ${last + 1} are held together at ${volts}.`);
    }
    sheet.add({
      symbol: 'U',
      label: 'The whole string',
      formula: 'Σ(U_i)',
      inputs: moduleMaxV
        .slice(0, 40)
        .map((value, i) => ({ symbol: `U_${i + 1}`, value, unit: 'V', from: `moduleMaxV.${i}` })),
      value: moduleMaxV.reduce((sum, value) => sum + value, 0),
      unit: 'V',
      source: 'Series connection',
    });
    sheet.add({
      symbol: 'U_s',
      label: 'Largest segment',
      formula: 'max(U_s)',
      inputs: found
        .slice(0, 40)
        .map(({ voltageV }, i) => ({ symbol: `U_s${i + 1}`, value: voltageV, unit: 'V' })),
      value: Math.max(...found.map(({ voltageV }) => voltageV)),
      unit: 'V',
      source: 'Fewest links, then the lowest largest segment, then the earliest links',
    });
    return { feasible: over.length === 0, linksToOpen, segments: found };
  },
});
