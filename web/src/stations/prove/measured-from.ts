import { doubtAbout, type ProcedureStep } from '@torvek/core/commissioning';
import { parseQuantity } from '@torvek/core/quantity';
import type { Measured } from '@torvek/core/record';
import { readReading } from '../../parts/reading';
import { readHold, type HoldText } from './hold';
import { ladderDoubt, readLadder, readList } from './ladder';
import { readTrace } from './paste';

type Expected = NonNullable<ProcedureStep['expected']>;

/** What stands in the fields of a measurement. */
export interface TypedMeasurement {
  text: string;
  /** Of a trace: the pack’s own voltage by a meter. */
  packVoltage: string;
  hold: HoldText;
}

export type TakenMeasurement =
  { ok: true; measured: Measured; entered: 'typed' | 'pasted' } | { ok: false; message: string };

const wrong = (message: string): TakenMeasurement => ({ ok: false, message });

/** What was measured, as the step expects it: a value, a hold, a trace, a ladder or a list; or what cannot be read. */
export function measuredFrom(
  expected: Expected,
  { text, packVoltage, hold }: TypedMeasurement,
): TakenMeasurement {
  const unit = expected.unit ?? '';
  switch (expected.kind) {
    case 'hold': {
      const read = readHold(hold);
      return read.ok ? { ok: true, measured: read.measured, entered: 'typed' } : wrong(read.message);
    }
    case 'rise': {
      const trace = readTrace(text);
      if (!trace.ok) return wrong(`Trace: ${trace.message}.`);
      const pack = parseQuantity(packVoltage, 'V');
      if (!pack.ok || pack.value <= 0)
        return wrong('Pack voltage: the pack’s own voltage by a meter, above 0 V.');
      return {
        ok: true,
        measured: { kind: 'trace', samples: trace.samples, packVoltageV: pack.value, unit: 'V' },
        entered: 'pasted',
      };
    }
    case 'ladder': {
      const read = readLadder(text, expected.cells + expected.tied);
      return read.ok
        ? { ok: true, measured: { kind: 'ladder', taps: read.taps, unit: 'V' }, entered: 'pasted' }
        : wrong(`Ladder: ${read.message}.`);
    }
    case 'list': {
      const read = readList(text, expected.items, unit);
      return read.ok
        ? { ok: true, measured: { kind: 'list', values: read.values, unit }, entered: 'pasted' }
        : wrong(`Readings: ${read.message}.`);
    }
    default: {
      const read = readReading(text, unit);
      if (!read.ok) return wrong(`Value: ${read.message}.`);
      const { value, over } = read;
      return {
        ok: true,
        measured: { kind: 'value', value, unit, ...(over && { over: true }) },
        entered: 'typed',
      };
    }
  }
}

/** What is asked before something unlikely is recorded; null: nothing is. */
export function doubtAboutMeasured(expected: Expected, measured: Measured): string | null {
  if (measured.kind === 'value') return measured.over === true ? null : doubtAbout(expected, measured.value);
  if (measured.kind === 'ladder' && expected.kind === 'ladder')
    return ladderDoubt(measured.taps, expected.cells, expected.cellMinV, expected.cellMaxV);
  return null;
}
