import { Pchip } from '../../ground/math';
import type { Fluid } from './fluid';

/** Something that coolant flows through, from node to node. */
export type LoopElement = { id: string; from: string; to: string } & (
  | { kind: 'pump'; curve: [flowLPerMin: number, headKPa: number][] }
  | PipeElement
  | { kind: 'fixed'; kPaPerLpm?: number; kPaPerLpm2?: number }
  | { kind: 'valve'; kv: number; openFraction?: number }
);

export interface PipeElement {
  kind: 'pipe';
  innerMm: number;
  lengthM: number;
  minorK?: number;
  roughnessMm?: number;
}

export const pipeDefaults = { minorK: 0, roughnessMm: 0.0015 };

/** Up to here a flow is laminar, from there on turbulent. */
export const laminarBelowRe = 2300;
export const turbulentAboveRe = 4000;

/** kPa that an element takes from the coolant at a flow, and how that rises with it. A pump takes less than nothing. */
export interface Law {
  /** Flows both ways are allowed; kPa from `from` to `to`, and kPa per L/min. */
  at(flowLPerMin: number): { dropKPa: number; slope: number };
}

export type FluidOfPipes = Pick<Fluid, 'densityKgM3' | 'viscosityMPaS'>;

/** Head of a pump at a flow, kPa, and its slope. */
export class PumpCurve {
  private readonly inside: Pchip;
  private readonly last: readonly [number, number];
  private readonly lastSlope: number;
  readonly shutOffKPa: number;

  constructor(readonly points: readonly (readonly [number, number])[]) {
    this.inside = new Pchip(points);
    this.last = points[points.length - 1]!;
    const before = points[points.length - 2]!;
    this.lastSlope = (this.last[1] - before[1]) / (this.last[0] - before[0]);
    this.shutOffKPa = points[0]![1];
  }

  get lastFlowLPerMin(): number {
    return this.last[0];
  }

  at(flowLPerMin: number): { value: number; slope: number } {
    if (flowLPerMin < 0) return { value: this.shutOffKPa - flowLPerMin, slope: -1 };
    if (flowLPerMin > this.last[0])
      return { value: this.last[1] + this.lastSlope * (flowLPerMin - this.last[0]), slope: this.lastSlope };
    return this.inside.at(flowLPerMin);
  }
}

/** Friction factor by Haaland, for turbulent flow. */
export const haaland = (re: number, relativeRoughness: number): number =>
  (-1.8 * Math.log10((relativeRoughness / 3.7) ** 1.11 + 6.9 / re)) ** -2;

/** Friction factor at a Reynolds number above 0: laminar, turbulent by Haaland, and a straight line between. */
export function frictionFactor(re: number, relativeRoughness: number): number {
  if (re < laminarBelowRe) return 64 / re;
  if (re > turbulentAboveRe) return haaland(re, relativeRoughness);
  const from = 64 / laminarBelowRe;
  const to = haaland(turbulentAboveRe, relativeRoughness);
  return from + ((to - from) * (re - laminarBelowRe)) / (turbulentAboveRe - laminarBelowRe);
}

/** Area of a bore, m². */
export const boreM2 = (innerMm: number): number => (Math.PI * (innerMm / 1000) ** 2) / 4;

/** Reynolds number over |flow|, 1 per L/min. */
export const rePerLPerMin = (innerMm: number, { densityKgM3, viscosityMPaS }: FluidOfPipes): number =>
  (densityKgM3 * (innerMm / 1000)) / (60_000 * boreM2(innerMm) * (viscosityMPaS / 1000));

function pipeLaw(pipe: PipeElement, fluid: FluidOfPipes): Law {
  const minorK = pipe.minorK ?? pipeDefaults.minorK;
  const relative = (pipe.roughnessMm ?? pipeDefaults.roughnessMm) / pipe.innerMm;
  const slender = pipe.lengthM / (pipe.innerMm / 1000);
  const reBy = rePerLPerMin(pipe.innerMm, fluid);
  /** kPa of one velocity head at 1 L/min. */
  const headBy = fluid.densityKgM3 / (2000 * (60_000 * boreM2(pipe.innerMm)) ** 2);
  const laminar = (64 / reBy) * slender * headBy;
  const [from, to] = [64 / laminarBelowRe, haaland(turbulentAboveRe, relative)];
  const rise = (to - from) / (turbulentAboveRe - laminarBelowRe);
  return {
    at(flow) {
      const q = Math.abs(flow);
      const re = q * reBy;
      let drop = minorK * headBy * q * q;
      let slope = 2 * minorK * headBy * q;
      if (re < laminarBelowRe) {
        drop += laminar * q;
        slope += laminar;
      } else if (re <= turbulentAboveRe) {
        const f = from + rise * (re - laminarBelowRe);
        drop += f * slender * headBy * q * q;
        slope += slender * headBy * q * (2 * f + rise * re);
      } else {
        const inside = (relative / 3.7) ** 1.11 + 6.9 / re;
        const root = -1.8 * Math.log10(inside);
        const f = root ** -2;
        drop += f * slender * headBy * q * q;
        // d(1/√f)/dRe = 1.8·6.9/(ln 10·Re²·inside)
        const rootSlope = (1.8 * 6.9) / (Math.LN10 * re * re * inside);
        slope += slender * headBy * q * (2 * f - 2 * f * (rootSlope / root) * re);
      }
      return { dropKPa: flow < 0 ? -drop : drop, slope };
    },
  };
}

/** Drop of one velocity head and of friction in a pipe, for its working. */
export function pipeAt(
  pipe: PipeElement,
  fluid: FluidOfPipes,
  flowLPerMin: number,
): { velocityMPerS: number; reynolds: number; friction: number | null } {
  const q = Math.abs(flowLPerMin);
  const reynolds = q * rePerLPerMin(pipe.innerMm, fluid);
  const relative = (pipe.roughnessMm ?? pipeDefaults.roughnessMm) / pipe.innerMm;
  return {
    velocityMPerS: q / (60_000 * boreM2(pipe.innerMm)),
    reynolds,
    friction: reynolds > 0 ? frictionFactor(reynolds, relative) : null,
  };
}

const quadratic = (a: number, b: number): Law => ({
  at: (flow) => ({ dropKPa: flow * (a + b * Math.abs(flow)), slope: a + 2 * b * Math.abs(flow) }),
});

/** A closed valve has no law: it carries nothing. */
export const isClosed = (element: LoopElement): boolean =>
  element.kind === 'valve' && (element.openFraction ?? 1) === 0;

/** The law of an element that is open. */
export function lawOf(element: LoopElement, fluid: FluidOfPipes): Law {
  switch (element.kind) {
    case 'pump': {
      const curve = new PumpCurve(element.curve);
      return {
        at(flow) {
          const { value, slope } = curve.at(flow);
          return { dropKPa: -value, slope: -slope };
        },
      };
    }
    case 'pipe':
      return pipeLaw(element, fluid);
    case 'fixed':
      return quadratic(element.kPaPerLpm ?? 0, element.kPaPerLpm2 ?? 0);
    case 'valve': {
      const open = element.kv * (element.openFraction ?? 1);
      return quadratic(0, 100 * (fluid.densityKgM3 / 1000) * (0.06 / open) ** 2);
    }
  }
}
