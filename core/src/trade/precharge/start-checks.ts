import { type Check, type Gap } from '../../ground/figure';
import { formatNumber, formatQuantity } from '../../ground/quantity';
import { judge, type Reader } from '../../model/step';
import { devicesOn } from './bus-step';
import type { InrushLoop } from './inrush';
import { loadDivision, type PrechargeInput } from './precharge';
import { activeOn, bareTimer, timerWelds } from './rules';
import { timerAgainstVoltage, trialLoadOhm, type BusCase } from './sequence';

/** What a bare timer would close on, where one is chosen. */
export function judgeTimer(
  subject: string,
  read: Reader,
  input: PrechargeInput | null,
  runGaps: Gap[],
  loop: InrushLoop | null,
): Check[] {
  const { completion, timerS, contactor } = read.at('circuits', subject)!;
  const neither = (gaps: Gap[]) => [bareTimer, timerWelds].map((rule) => judge(rule, [subject], gaps, null));
  if (completion !== 'timer') return neither(runGaps);
  const missing: Gap[] =
    timerS === undefined || !(timerS > 0)
      ? [{ kind: 'not-given', path: `circuits.${subject}.timerS`, label: 'timer' }]
      : [];
  const gaps = [...runGaps, ...missing];
  if (gaps.length > 0 || input === null || loop === null) return neither(gaps);
  const [designed, , loaded] = timerAgainstVoltage(input, timerS!, loop) as [BusCase, BusCase, BusCase];
  const n = formatNumber;
  const message = `After ${n(timerS!)} s the bus as designed is at ${n(designed.timer.voltageV)} V; with ${loaded.label} it is at ${n(loaded.timer.voltageV)} V, and ${formatQuantity(loaded.timer.inrushA, 'A')} flow when the main closes.`;
  const part = read.at('parts', contactor ?? '');
  const makeA = part?.kind === 'contactor' ? part.data.makeA : null;
  const noPart: Gap[] =
    makeA === null ? [{ kind: 'not-given', path: `circuits.${subject}.contactor`, label: 'contactors' }] : [];
  const welds = judge(
    timerWelds,
    [subject],
    noPart,
    makeA !== null && designed.timer.inrushA > makeA
      ? `After ${n(timerS!)} s the bus as designed is at ${n(designed.timer.voltageV)} V: ${formatQuantity(designed.timer.inrushA, 'A')} flow when the main closes, and it makes ${n(makeA)} A.`
      : null,
    [
      { label: 'timer', value: timerS!, unit: 's' },
      { label: 'bus at the timer', value: designed.timer.voltageV, unit: 'V' },
      { label: 'flow when the main closes', value: designed.timer.inrushA, unit: 'A' },
      { label: 'making capacity', value: makeA ?? 0, unit: 'A' },
    ],
    { parts: contactor === undefined ? [] : [contactor] },
  );
  const bare = judge(bareTimer, [subject], [], message, [
    { label: 'timer', value: timerS!, unit: 's' },
    { label: 'bus at the timer', value: designed.timer.voltageV, unit: 'V' },
    { label: 'load left on', value: trialLoadOhm(input), unit: 'Ω' },
    { label: 'bus at the timer with that load', value: loaded.timer.voltageV, unit: 'V' },
    { label: 'then flow', value: loaded.timer.inrushA, unit: 'A' },
  ]);
  return [bare, welds];
}

/** An active discharge has to be off while the bus fills. */
export function judgeActive(
  subject: string,
  read: Reader,
  bus: string,
  input: PrechargeInput | null,
  runGaps: Gap[],
): Check[] {
  const active = devicesOn(bus, read).filter(([, { activeOhm }]) => activeOhm !== undefined);
  const unsaid = active
    .filter(([, { activeWhileFilling }]) => activeWhileFilling === undefined)
    .map(([id, { tag }]): Gap => ({
      kind: 'not-given',
      path: `devices.${id}.activeWhileFilling`,
      label: `whether the active discharge of ${tag} is off while the bus fills`,
    }));
  const on = active.filter(
    ([, { activeWhileFilling, activeOhm }]) => activeWhileFilling === true && activeOhm! > 0,
  );
  const gaps = on.length > 0 ? runGaps : [...unsaid, ...runGaps];
  if (active.length === 0) return [];
  if (on.length === 0 || gaps.length > 0 || input === null) return [judge(activeOn, [subject], gaps, null)];
  const conductance = on.reduce(
    (sum, [, { activeOhm }]) => sum + 1 / activeOhm!,
    input.parallelLoadOhm === undefined ? 0 : 1 / input.parallelLoadOhm,
  );
  const ohm = 1 / on.reduce((sum, [, { activeOhm }]) => sum + 1 / activeOhm!, 0);
  const endsV = loadDivision({ ...input, parallelLoadOhm: 1 / conductance }) * input.packVoltageV;
  const n = formatNumber;
  return [
    judge(
      activeOn,
      [subject],
      [],
      `The active discharge of ${on.map(([, { tag }]) => tag).join(' and ')}, ${formatQuantity(ohm, 'Ω')}, stays on the bus while it fills: it would end at ${n(endsV)} V of ${n(input.packVoltageV)} V.`,
      [
        { label: 'active discharge', value: ohm, unit: 'Ω' },
        { label: 'the bus would end at', value: endsV, unit: 'V' },
        { label: 'highest pack voltage', value: input.packVoltageV, unit: 'V' },
      ],
    ),
  ];
}
