import { defineCalculator } from '../../ground/calculator';
import { list, number, record } from '../../ground/shape';
import { rulesOf } from '../../ground/finding';
import { explain, type Fault, type Ladder } from './explain-ladder';

export interface LadderCheckInput {
  cells: number;
  cellMinV: number;
  cellMaxV: number;
  /** Channels above the cells that are tied to the top. */
  tied: number;
  /** Each tap against the reference. */
  measuredV: number[];
}

export interface LadderCheckResult {
  ok: boolean;
  faults: Fault[];
  steps: number[];
  doNotConnect: boolean;
}

const rule = rulesOf('ladder-check');
const source =
  'Steps from tap to tap against what a cell can have; the fewest faults that explain all readings';

export const ladderCheckRules = {
  wiring: rule(
    'wiring',
    'stop',
    'A sense plug is not wired as it should be',
    'Plugged in, it puts the voltage of several cells on one input of the monitor.',
    'Leave it unplugged, mend what is named, and measure all taps again.',
    source,
  ),
  cell: rule(
    'cell',
    'mend',
    'A cell lies outside of its limits',
    'The wiring looks right; the cell does not.',
    'Measure it at its terminals, and bring it back by the maker’s rules or leave it out.',
    source,
  ),
};

/** What people call each kind of fault. */
export const faultWords: Record<Fault['kind'], string> = {
  swapped: 'neighbours exchanged',
  'swapped-far': 'exchanged',
  reversed: 'the plug is turned round',
  open: 'open',
  shifted: 'all from here on are one too high',
  'missing-tie': 'not tied to the top',
  'low-cell': 'low cell',
  'high-cell': 'high cell',
  unknown: 'no few faults explain these readings',
};

/**
 * The ladder of voltages at a sense plug: whether it is right, and if not, which miswire it is.
 *
 * Source: fewest faults that explain all readings.
 */
export const ladderCheck = defineCalculator<LadderCheckInput, LadderCheckResult>({
  name: 'ladder-check',
  version: 1,
  title: 'Ladder of a sense plug',
  rules: Object.values(ladderCheckRules),
  door: {
    schema: record({
      cells: number({ min: 1, max: 500, integer: true }),
      cellMinV: number({ above: 0 }),
      cellMaxV: number({ above: 0 }),
      tied: number.optional({ min: 0, max: 500, integer: true }),
      measuredV: list(number(), { minRows: 1, maxRows: 1000 }),
    }),
    defaults: { tied: 0 },
    cross({ cells, tied, cellMinV, cellMaxV, measuredV }: LadderCheckInput, issue) {
      if (!(cellMaxV > cellMinV)) issue('cellMaxV', 'must be above cellMinV');
      if (measuredV.length !== cells + tied)
        issue('measuredV', `must have ${cells + tied} readings: one for each cell and each tie`);
    },
  },
  compute(input, { sheet, raise }) {
    const { measuredV, cells } = input;
    const steps = measuredV.map((v, i) => v - (i === 0 ? 0 : measuredV[i - 1]!));
    steps.slice(0, cells).forEach((step, i) =>
      sheet.add({
        symbol: `s_${i + 1}`,
        label: `Step ${i + 1}`,
        formula: i === 0 ? 'v' : 'v − v_b',
        inputs: [
          { symbol: 'v', value: measuredV[i]!, unit: 'V', from: `measuredV.${i}` },
          ...(i === 0 ? [] : [{ symbol: 'v_b', value: measuredV[i - 1]!, unit: 'V' }]),
        ],
        value: step,
        unit: 'V',
        source,
      }),
    );
    const ladder: Ladder = {
      cells,
      minV: input.cellMinV,
      maxV: input.cellMaxV,
      taps: measuredV.slice(0, cells),
      ties: measuredV.slice(cells),
    };
    const faults = explain(ladder);
    const isCell = ({ kind }: Fault) => kind === 'low-cell' || kind === 'high-cell';
    const say = (those: readonly Fault[]) =>
      `${those
        .slice(0, 8)
        .map(({ kind, taps }) =>
          taps.length === 0 ? faultWords[kind] : `${taps.join(' and ')}: ${faultWords[kind]}`,
        )
        .join('; ')}${those.length > 8 ? ' and more' : ''}. ${measuredV.length} readings.`;
    const wiring = faults.filter((fault) => !isCell(fault));
    const odd = faults.filter(isCell);
    if (wiring.length > 0) raise(ladderCheckRules.wiring, say(wiring));
    if (odd.length > 0) raise(ladderCheckRules.cell, say(odd));
    return { ok: faults.length === 0, faults, steps, doNotConnect: wiring.length > 0 };
  },
});
