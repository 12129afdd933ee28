/** A value a judgement read directly, and how far it may move before the judgement is stale. */
export interface Basis {
  figure: string;
  label: string;
  value: number;
  unit: string;
  toleranceFraction: number;
}

export type Measured =
  | {
      kind: 'value';
      value: number;
      unit: string;
      /** The instrument read beyond its range: the value is where that ends, and it was that or more. */
      over?: boolean;
    }
  | {
      kind: 'trace';
      samples: [timeS: number, voltageV: number][];
      /** The pack's own voltage just before the run, by a meter. */
      packVoltageV: number;
      unit: 'V';
    }
  | {
      /** Every pin of a sense plug against its reference, from the lowest. */
      kind: 'ladder';
      taps: number[];
      unit: 'V';
    }
  | {
      /** One reading for each thing that a step names, in its order. */
      kind: 'list';
      values: number[];
      unit: string;
    }
  | {
      /** A vessel under pressure, read at the beginning and at the end of a hold. */
      kind: 'hold';
      startKPaGauge: number;
      endKPaGauge: number;
      startC: number;
      endC: number;
      minutes: number;
      /** The weather, where it was read; absent: the same at both, and usual. */
      atmosphereKPa?: number;
      endAtmosphereKPa?: number;
      unit: 'kPa';
    };

export type Verdict = 'pass' | 'fail';

/** A detail the judgement found beside its verdict, such as a fitted capacitance. */
export interface Detail {
  label: string;
  value: number | null;
  unit: string;
}
