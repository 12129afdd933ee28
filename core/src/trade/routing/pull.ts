import { defineCalculator } from '../../ground/calculator';
import { list, number, oneOf, record } from '../../ground/shape';
import { rulesOf } from '../../ground/finding';
import { formatNumber, formatQuantity } from '../../ground/quantity';
import type { Worksheet } from '../../ground/working';

export type PullSection =
  | { kind: 'straight'; lengthM: number; riseDeg?: number }
  | { kind: 'bend'; angleDeg: number; radiusMm: number };

export interface PullInput {
  sections: PullSection[];
  cableKgPerM: number;
  friction: number;
  incomingN: number;
  maxTensionN: number;
  maxSidewallNPerM: number;
}

export interface Pulled {
  tensionN: number;
  worstSidewallNPerM: number;
  ok: boolean;
}

export interface PullResult {
  /** Fed in at the first section, pulled out at the last. */
  forward: Pulled;
  backward: Pulled;
  better: 'forward' | 'backward' | 'either';
}

const rule = rulesOf('pull');
const source = 'Weight and friction on straights, capstan equation in bends';

export const pullRules = {
  tension: rule(
    'tension',
    'stop',
    'The cable is pulled harder than it stands',
    'Strands stretch, and the screen tears, where nobody sees it.',
    'Pull from the other end, feed in by hand while pulling, a lubricant made for it, or a pull point on the way.',
    'Cable maker’s greatest pulling tension',
  ),
  sidewall: rule(
    'sidewall',
    'stop',
    'The cable is pressed too hard against a bend',
    'Insulation and screen are crushed on the inside of the bend.',
    'A larger radius, or pull from the end that has the bends.',
    'Cable maker’s greatest side-wall pressure',
  ),
};

const gravity = 9.80665;
const sameWithin = 0.02;
/** No cable is pulled with more, N: beyond it there is no use in numbers. */
const beyond = 1e12;

interface Run extends Pulled {
  highestN: number;
}

function pulled(sections: readonly PullSection[], input: PullInput, sheet?: Worksheet): Run {
  const { cableKgPerM: w, friction, incomingN, maxTensionN, maxSidewallNPerM } = input;
  let tensionN = incomingN;
  let highestN = 0;
  let worst = 0;
  sections.forEach((section, i) => {
    const before = tensionN;
    if (section.kind === 'straight') {
      const rise = ((section.riseDeg ?? 0) * Math.PI) / 180;
      tensionN = Math.max(
        0,
        before + w * gravity * section.lengthM * (friction * Math.cos(rise) + Math.sin(rise)),
      );
      sheet?.add({
        symbol: `T_${i + 1}`,
        label: `After straight ${i + 1}`,
        formula: 'T + w·g·L·(μ·cos β + sin β)',
        inputs: [
          { symbol: 'T', value: before, unit: 'N' },
          { symbol: 'w', value: w, unit: 'kg/m', from: 'cableKgPerM' },
          { symbol: 'g', value: gravity, unit: 'm/s²' },
          { symbol: 'L', value: section.lengthM, unit: 'm' },
          { symbol: 'μ', value: friction, unit: '', from: 'friction' },
          { symbol: 'β', value: section.riseDeg ?? 0, unit: '°' },
        ],
        value: tensionN,
        unit: 'N',
        source,
      });
    } else {
      const angle = (section.angleDeg * Math.PI) / 180;
      tensionN = before * Math.exp(friction * angle);
      worst = Math.max(worst, tensionN / (section.radiusMm / 1000));
      sheet?.add({
        symbol: `T_${i + 1}`,
        label: `After bend ${i + 1}`,
        formula: 'T·e^(μ·θ)',
        inputs: [
          { symbol: 'T', value: before, unit: 'N' },
          { symbol: 'μ', value: friction, unit: '', from: 'friction' },
          { symbol: 'θ', value: angle, unit: 'rad' },
        ],
        value: tensionN,
        unit: 'N',
        source,
      });
    }
    highestN = Math.max(highestN, tensionN);
  });
  return {
    tensionN,
    worstSidewallNPerM: worst,
    ok: highestN <= maxTensionN + 1e-9 && worst <= maxSidewallNPerM + 1e-9,
    highestN,
  };
}

/** The same way from its other end. */
export const reversed = (sections: readonly PullSection[]): PullSection[] =>
  [...sections]
    .reverse()
    .map((section) =>
      section.kind === 'straight' ? { ...section, riseDeg: -(section.riseDeg ?? 0) } : section,
    );

const sectionShapes = {
  bend: {
    kind: oneOf(['straight', 'bend']),
    angleDeg: number({ min: 0, max: 360 }),
    radiusMm: number({ above: 0 }),
  },
  straight: {
    kind: oneOf(['straight', 'bend']),
    lengthM: number({ min: 0 }),
    riseDeg: number.optional({ min: -90, max: 90 }),
  },
};

/**
 * The pull that a cable needs through a conduit, from either end, and which is better.
 *
 * Source: T += w·g·L·(μ·cos β + sin β) on straights, T·e^(μθ) in bends; side-wall pressure T/r behind each bend.
 */
export const pull = defineCalculator<PullInput, PullResult>({
  name: 'pull',
  version: 1,
  title: 'Pulling a cable',
  rules: Object.values(pullRules),
  door: {
    schema: record({
      sections: list(
        record.by(sectionShapes, ({ kind }) => (kind === 'bend' ? 'bend' : 'straight')),
        { minRows: 1, maxRows: 1000 },
      ),
      cableKgPerM: number({ above: 0 }),
      friction: number.optional({ min: 0, max: 5 }),
      incomingN: number.optional({ min: 0 }),
      maxTensionN: number({ above: 0 }),
      maxSidewallNPerM: number({ above: 0 }),
    }),
    defaults: { friction: 0.5, incomingN: 0 },
    cross(input: PullInput, issue) {
      const both = [input.sections, reversed(input.sections)].map((one) => pulled(one, input));
      if (
        both.some(({ highestN, worstSidewallNPerM }) => !(highestN < beyond && worstSidewallNPerM < beyond))
      )
        issue('sections', 'take more tension than any cable or rope has');
    },
  },
  compute(input, { sheet, raise }) {
    const forwardRun = pulled(input.sections, input, sheet);
    const backwardRun = pulled(reversed(input.sections), input);
    const better = betterOf(forwardRun, backwardRun);
    const taken = better === 'backward' ? backwardRun : forwardRun;
    if (taken.highestN > input.maxTensionN + 1e-9)
      raise(
        pullRules.tension,
        `${formatQuantity(taken.highestN, 'N')} even from the better end; the cable stands ${formatQuantity(input.maxTensionN, 'N')}.`,
      );
    if (taken.worstSidewallNPerM > input.maxSidewallNPerM + 1e-9)
      raise(
        pullRules.sidewall,
        `${formatNumber(taken.worstSidewallNPerM)} N/m even from the better end; ${formatNumber(input.maxSidewallNPerM)} N/m are allowed.`,
      );
    const shown = ({ tensionN, worstSidewallNPerM, ok }: Run): Pulled => ({
      tensionN,
      worstSidewallNPerM,
      ok,
    });
    return { forward: shown(forwardRun), backward: shown(backwardRun), better };
  },
});

function betterOf(forward: Run, backward: Run): PullResult['better'] {
  if (forward.ok !== backward.ok) return forward.ok ? 'forward' : 'backward';
  const larger = Math.max(forward.tensionN, backward.tensionN);
  if (Math.abs(forward.tensionN - backward.tensionN) <= sameWithin * larger) return 'either';
  return forward.tensionN < backward.tensionN ? 'forward' : 'backward';
}
