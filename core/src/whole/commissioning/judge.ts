import { formatNumber, formatQuantity } from '../../ground/quantity';
import { medianOf } from '../../trade/balance';
import { leakTest } from '../../trade/cooling';
import { ladderCheck } from '../../trade/monitoring';
import { faultText } from '../../trade/monitoring';
import { loadWords, prechargeFit } from '../../trade/precharge';
import type { Detail, Measured, Verdict } from '../../record';
import type { Expectation } from '../../model/procedure';

export interface Judgement {
  verdict: Verdict;
  /** Why not, when it fails. */
  reasons: string[];
  details: Detail[];
}

export type JudgementOrRefusal = { ok: true; judgement: Judgement } | { ok: false; message: string };

/**
 * The verdict on a measurement. Limits that are met exactly pass.
 *
 * @returns a refusal when the measurement is not of the kind that is expected, or cannot be fitted
 */
export function judgeMeasurement(expected: Expectation, measured: Measured): JudgementOrRefusal {
  if (expected.kind === 'range') {
    if (measured.kind !== 'value') return { ok: false, message: 'a single value is expected' };
    if (measured.unit !== expected.unit)
      return { ok: false, message: `the unit is ${expected.unit}, not ${measured.unit}` };
    return measured.over === true
      ? judgeOver(expected, measured.value)
      : { ok: true, judgement: judgeRange(expected, measured.value) };
  }
  if (expected.kind === 'hold') return judgeHold(expected, measured);
  if (expected.kind === 'ladder') return judgeLadder(expected, measured);
  if (expected.kind === 'list') return judgeList(expected, measured);
  if (measured.kind !== 'trace') return { ok: false, message: 'a trace of time and voltage is expected' };
  return judgeRise(expected, measured);
}

/**
 * A reading beyond the top of an instrument’s range: it is that or more. Enough where a least value is asked that lies
 * below; a fail where a most value is asked; otherwise the instrument does not tell.
 */
function judgeOver(expected: Extract<Expectation, { kind: 'range' }>, topValue: number): JudgementOrRefusal {
  const { min, max, unit } = expected;
  const q = (x: number) => formatQuantity(x, unit, 4);
  if (max !== undefined)
    return topValue > max
      ? {
          ok: true,
          judgement: {
            verdict: 'fail',
            reasons: [`more than ${q(topValue)} is above ${q(max)}`],
            details: [],
          },
        }
      : { ok: false, message: `the range ends at ${q(topValue)}: take one that reaches beyond ${q(max)}` };
  if (min !== undefined && topValue < min)
    return {
      ok: false,
      message: `the range ends at ${q(topValue)}, ${q(min)} are asked: take one that reaches further`,
    };
  return { ok: true, judgement: { verdict: 'pass', reasons: [], details: [] } };
}

function judgeRange(expected: Extract<Expectation, { kind: 'range' }>, value: number): Judgement {
  const { min, max, unit } = expected;
  const reasons: string[] = [];
  const q = (x: number) => formatQuantity(x, unit, 4);
  if (min !== undefined && value < min) reasons.push(`${q(value)} is below ${q(min)}`);
  if (max !== undefined && value > max) reasons.push(`${q(value)} is above ${q(max)}`);
  return { verdict: reasons.length === 0 ? 'pass' : 'fail', reasons, details: [] };
}

/** The fewest faults that explain the readings; one that leaves the plug unplugged fails, and a cell beyond its window as well. */
function judgeLadder(
  { cells, cellMinV, cellMaxV, tied }: Extract<Expectation, { kind: 'ladder' }>,
  measured: Measured,
): JudgementOrRefusal {
  if (measured.kind !== 'ladder') return { ok: false, message: 'a reading of every pin is expected' };
  if (measured.taps.length !== cells + tied)
    return {
      ok: false,
      message: `${cells + tied} readings are expected, ${measured.taps.length} are given`,
    };
  const parsed = ladderCheck.parse({ cells, cellMinV, cellMaxV, tied, measuredV: measured.taps });
  if (!parsed.ok) {
    const issue = parsed.issues[0]!;
    return { ok: false, message: `${issue.path} ${issue.message}` };
  }
  const { result } = ladderCheck.calculate(parsed.input);
  const inside = result.steps.slice(0, cells);
  return {
    ok: true,
    judgement: {
      verdict: result.ok ? 'pass' : 'fail',
      reasons: [
        ...result.faults.map((fault) => faultText(fault)),
        ...(result.doNotConnect ? ['do not plug it in'] : []),
      ],
      details: [
        { label: 'lowest step', value: Math.min(...inside), unit: 'V' },
        { label: 'highest step', value: Math.max(...inside), unit: 'V' },
      ],
    },
  };
}

/** Of readings there is at least one. */
const middleOf = (values: readonly number[]): number => medianOf(values)!;

/** Each reading by its name: against the limits, against the middle of all, and against the recorded ladder. */
function judgeList(expected: Extract<Expectation, { kind: 'list' }>, measured: Measured): JudgementOrRefusal {
  const { items, min, max, withinOfMiddle, ladder, unit } = expected;
  if (measured.kind !== 'list') return { ok: false, message: 'a reading for each is expected' };
  if (measured.unit !== unit) return { ok: false, message: `the unit is ${unit}, not ${measured.unit}` };
  if (measured.values.length !== items.length)
    return {
      ok: false,
      message: `${items.length} readings are expected, ${measured.values.length} are given`,
    };
  if (ladder !== undefined && ladder.recordedV?.length !== items.length)
    return { ok: false, message: 'no ladder that passed is recorded for it: it is read first' };
  const { values } = measured;
  const q = (x: number) => formatQuantity(x, unit, 4);
  // What cannot be is no part of the middle.
  const possible = values.filter((value) => value >= (min ?? -Infinity) && value <= (max ?? Infinity));
  const middle = middleOf(possible.length === 0 ? values : possible);
  const moved = ladder === undefined ? [] : values.map((value, i) => value - ladder.recordedV![i]!);
  const movedBy = ladder === undefined ? 0 : middleOf(moved);
  const reasons = items.flatMap((item, i) => {
    const value = values[i]!;
    if (min !== undefined && value < min) return [`${item}: ${q(value)} is below ${q(min)}`];
    if (max !== undefined && value > max) return [`${item}: ${q(value)} is above ${q(max)}`];
    if (withinOfMiddle !== undefined && Math.abs(value - middle) > withinOfMiddle + 1e-9)
      return [`${item}: ${q(value)} is ${q(Math.abs(value - middle))} from the middle of all`];
    if (ladder !== undefined && Math.abs(moved[i]! - movedBy) > ladder.within + 1e-9)
      return [`${item}: ${q(value)}, ${q(Math.abs(moved[i]! - movedBy))} off its step in the ladder`];
    return [];
  });
  return {
    ok: true,
    judgement: {
      verdict: reasons.length === 0 ? 'pass' : 'fail',
      reasons,
      details: [
        { label: 'lowest', value: Math.min(...values), unit },
        { label: 'highest', value: Math.max(...values), unit },
        ...(ladder === undefined ? [] : [{ label: 'all moved since the ladder by', value: movedBy, unit }]),
      ],
    },
  };
}

/** A hold counts only with the pressure and for the time that are asked. */
function judgeHold(expected: Extract<Expectation, { kind: 'hold' }>, measured: Measured): JudgementOrRefusal {
  if (measured.kind !== 'hold')
    return { ok: false, message: 'pressure and temperature at the beginning and at the end are expected' };
  const { kind: _kind, unit: _unit, ...held } = measured;
  const { volumeL, allowedDropKPa, testKPa, minutes } = expected;
  const parsed = leakTest.parse({ ...held, volumeL, allowedDropKPa });
  if (!parsed.ok) {
    const issue = parsed.issues[0]!;
    return { ok: false, message: `${issue.path} ${issue.message}` };
  }
  const { result, findings } = leakTest.calculate(parsed.input);
  const reasons = findings.filter(({ rule }) => rule.grade !== 'note').map(({ message }) => message);
  if (measured.startKPaGauge < testKPa * (1 - holdWithin))
    reasons.push(
      `began at ${formatQuantity(measured.startKPaGauge, 'kPa')}; ${formatQuantity(testKPa, 'kPa')} are asked`,
    );
  if (measured.minutes < minutes)
    reasons.push(
      `held for ${formatQuantity(measured.minutes, 'min')}; ${formatQuantity(minutes, 'min')} are asked`,
    );
  return {
    ok: true,
    judgement: {
      verdict: reasons.length === 0 ? 'pass' : 'fail',
      reasons,
      details: [
        { label: 'corrected drop', value: result.correctedDropKPa, unit: 'kPa' },
        { label: 'raw drop', value: result.rawDropKPa, unit: 'kPa' },
        { label: 'expected at the end', value: result.expectedEndKPaGauge, unit: 'kPa' },
        { label: 'leak', value: result.leakPaM3PerS, unit: 'Pa·m³/s' },
      ],
    },
  };
}

/** A gauge is set no nearer than this. */
const holdWithin = 0.05;

function judgeRise(
  expected: Extract<Expectation, { kind: 'rise' }>,
  { samples, packVoltageV }: Extract<Measured, { kind: 'trace' }>,
): JudgementOrRefusal {
  const parsed = prechargeFit.parse({ packVoltageV, resistanceOhm: expected.resistanceOhm, samples });
  if (!parsed.ok) {
    const issue = parsed.issues[0];
    return {
      ok: false,
      message: `the trace cannot be fitted: ${issue?.path ?? ''} ${issue?.message ?? ''}`.trim(),
    };
  }
  const { result, findings } = prechargeFit.calculate(parsed.input);
  const ratio = result.capacitanceF / expected.capacitanceF;
  const tolerance = expected.capacitanceToleranceFraction;
  const reasons = findings.map(({ message }) => message);
  const fitted = formatQuantity(result.capacitanceF, 'F');
  const designed = formatQuantity(expected.capacitanceF, 'F');
  if (ratio > 1 + tolerance)
    reasons.push(
      `fits ${fitted}, ${formatNumber((ratio - 1) * 100, 2)} % more than the ${designed} designed`,
    );
  if (ratio < 1 - tolerance)
    reasons.push(
      `fits ${fitted}, ${formatNumber((1 - ratio) * 100, 2)} % less than the ${designed} designed`,
    );
  const load = loadWords(result.parallelLoadOhm, expected);
  if (load !== null) reasons.push(`the bus ends at ${formatNumber(result.finalVoltageV)} V: ${load}`);
  return {
    ok: true,
    judgement: {
      verdict: reasons.length === 0 ? 'pass' : 'fail',
      reasons,
      details: [
        { label: 'capacitance fitted', value: result.capacitanceF, unit: 'F' },
        { label: 'time constant fitted', value: result.timeConstantS, unit: 's' },
        { label: 'final voltage fitted', value: result.finalVoltageV, unit: 'V' },
        { label: 'load on the bus', value: result.parallelLoadOhm, unit: 'Ω' },
        { label: 'rms error of the fit', value: result.rmsErrorV, unit: 'V' },
      ],
    },
  };
}

/** A value may be this many times what is asked, or a part of it, before its unit is asked about. */
const unlikelyTimes = 10_000;

/**
 * Asks about a value that would be right with its sign turned or its decimal point moved by one or three places, and about
 * one that lies a thousandfold off what the maker or the design says.
 *
 * @returns a question for the person, or null when the value needs none
 */
export function doubtAbout(expected: Expectation, value: number): string | null {
  if (expected.kind !== 'range') return null;
  const passes = judgeRange(expected, value).verdict === 'pass';
  return (passes ? null : slipOf(expected, value)) ?? thousandfold(expected, value, passes);
}

type Range = Extract<Expectation, { kind: 'range' }>;

const ask = (expected: Range, value: number, how: string, other: number) =>
  `${formatQuantity(value, expected.unit, 4)} is out, but ${how} (${formatQuantity(other, expected.unit, 4)}) would fit. Is the value right as it stands?`;

function slipOf(expected: Range, value: number): string | null {
  const slips: [number, string][] = [
    [-value, 'with its sign turned'],
    [value * 10, 'ten times as large'],
    [value / 10, 'a tenth of it'],
    [value * 1000, 'a thousand times as large'],
    [value / 1000, 'a thousandth of it'],
  ];
  // A range without both ends says nothing about scale: almost any factor would fit.
  const { min, max, nominal } = expected;
  if (min === undefined || max === undefined) return null;
  // Neither does one that reaches down to nothing, unless the slip lands near what is expected.
  const lands = (other: number) =>
    judgeRange(expected, other).verdict === 'pass' &&
    (min > 0 || (nominal !== undefined && nominal !== 0 && Math.abs(other / nominal - 1) <= 0.5));
  const slip = slips.find(([other]) => lands(other));
  return slip === undefined ? null : ask(expected, value, slip[1], slip[0]);
}

/** Kilo, milli or nothing: a value a thousandfold off, whatever the range says of it. */
function thousandfold(expected: Range, value: number, passes: boolean): string | null {
  const { min, max, nominal, unit } = expected;
  const size = Math.abs(value);
  const q = (x: number) => formatQuantity(x, unit, 4);
  const about = (times: number, of: string) =>
    `${q(value)} is ${times > 1 ? `${formatNumber(times)} times` : `1/${formatNumber(1 / times)} of`} ${of}. Is its unit right?`;
  if (size === 0) return null;
  if (nominal !== undefined && nominal !== 0) {
    const times = size / Math.abs(nominal);
    return times > 300 || times < 1 / 300 ? about(times, `the ${q(nominal)} expected`) : null;
  }
  if (min !== undefined && max === undefined && min > 0) {
    const times = size / min;
    if (passes) return times > unlikelyTimes ? about(times, `the ${q(min)} asked`) : null;
    return times < 0.1 && value > 0 ? ask(expected, value, 'a thousand times as large', value * 1000) : null;
  }
  if (max !== undefined && max > 0) {
    const times = size / max;
    if (!passes) return times > 10 ? ask(expected, value, 'a thousandth of it', value / 1000) : null;
    return times < 1 / unlikelyTimes && nominal === undefined ? about(times, `the ${q(max)} allowed`) : null;
  }
  return null;
}
