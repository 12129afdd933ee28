import { interpolate } from '../../ground/math';
import { figureId, type Figure, type Gap } from '../../ground/figure';
import type { CheckValue } from '../../ground/finding';
import { formatNumber } from '../../ground/quantity';
import type { Design, Id } from '../../model/document';
import { judge, type Reader, type StepDefinition } from '../../model/step';
import { monitoringRules } from './rules';
import { spinFuse, spinOf, type Spin } from './spin';

const n = formatNumber;

/** A first spin of a device on a part of the pack: with what, and what goes with it. */
export interface SpinAnswer extends Spin {
  string: Id;
  /** Cells of these modules, and what the monitor is set to for them; null: its limits are not given. */
  cells: number;
  cutLowV: number | null;
  cutHighV: number | null;
  currentA: number | null;
  /** A part of the library; null: no current is given, or no fuse fits. */
  fuse: { id: string; label: string; ratedA: number } | null;
  /** The cell voltage was taken from the module’s data at half charge. */
  usualCellV: boolean;
  cellV: number;
}

/** Kinds of devices that wake by the voltage of the pack. */
const wokenByPack: readonly string[] = ['inverter', 'dc-dc', 'charger'];

/** Devices that wake by the pack’s voltage. */
export const spunDevices = ({ devices, sensing }: Pick<Design, 'devices' | 'sensing'>): Id[] =>
  sensing?.spinA === undefined && sensing?.spinCellV === undefined
    ? []
    : Object.keys(devices).filter((id) => wokenByPack.includes(devices[id]!.kind));

function answerFor(subject: Id, read: Reader): { answer: SpinAnswer | null; gaps: Gap[] } {
  const device = read.at('devices', subject)!;
  const gaps: Gap[] = [];
  const strings = read.at('strings');
  const string = Object.keys(strings).find((id) => strings[id]!.modules.length > 0);
  if (string === undefined) gaps.push({ kind: 'not-given', path: 'strings', label: 'modules in series' });
  if (device.minV === undefined)
    gaps.push({ kind: 'not-given', path: `devices.${subject}.minV`, label: `${device.tag}: works from` });
  const modules = read.at('modules');
  const parts = read.at('parts');
  const kinds = (string === undefined ? [] : strings[string]!.modules).map((id) => {
    const part = parts[modules[id]?.part ?? ''];
    if (part?.kind === 'module') return part.data;
    gaps.push({
      kind: 'not-given',
      path: `modules.${id}.part`,
      label: `kind of ${modules[id]?.tag ?? id}`,
    });
    return null;
  });
  if (gaps.length > 0 || string === undefined) return { answer: null, gaps };
  const sensing = read.at('sensing') ?? {};
  const data = kinds.flatMap((one) => (one === null ? [] : [one]));
  const cellV = sensing.spinCellV ?? interpolate(data[0]!.cell.ocvTable, 0.5);
  const spin = spinOf({
    modulesV: data.map((one) => one.cellsInSeries * cellV),
    modulesMaxV: data.map((one) => one.cellsInSeries * one.cell.maxV),
    modulesOhm: data.map((one) => (one.cellsInSeries * one.cell.resistanceOhm) / one.cellsInParallel),
    minV: device.minV!,
    maxV: device.maxV ?? Infinity,
  });
  const limits = read.at('limits');
  const cells = data.slice(0, spin.modules ?? data.length).reduce((sum, one) => sum + one.cellsInSeries, 0);
  const currentA = sensing.spinA ?? null;
  const fuse =
    currentA === null || spin.modules === null ? null : spinFuse(read.parts('fuse'), currentA, spin);
  return {
    gaps: [],
    answer: {
      ...spin,
      string,
      cells,
      cutLowV: limits?.cutLowV === undefined ? null : cells * limits.cutLowV,
      cutHighV: limits?.cutHighV === undefined ? null : cells * limits.cutHighV,
      currentA,
      fuse: fuse === null ? null : { id: fuse.id, label: fuse.label, ratedA: fuse.data.ratedA },
      usualCellV: sensing.spinCellV === undefined,
      cellV,
    },
  };
}

/** The fewest modules that wake each device for a first spin, with the limits and the fuse that go with them. */
export const spinStep: StepDefinition = {
  id: 'monitoring.spin',
  version: 1,
  subjects: (design) => spunDevices(design),
  compute(subject, read) {
    const { tag, minV = 0, maxV } = read.at('devices', subject)!;
    const { answer, gaps } = answerFor(subject, read);
    const spinA = read.at('sensing')?.spinA;
    const told = (
      name: 'modules' | 'voltageV' | 'highestV' | 'shortA',
      label: string,
      unit: string,
      value: number | null,
    ): Figure => ({
      id: figureId('monitoring.spin', subject, name),
      label,
      unit,
      value,
      gaps:
        answer?.modules === null ? [{ kind: 'never', label: `${tag}: all modules do not wake it` }] : gaps,
      working: [],
    });
    const v = (label: string, value: number, unit = ''): CheckValue => ({ label, value, unit });
    return {
      figures: [
        told('modules', `Fewest modules that wake ${tag}`, '', answer?.modules ?? null),
        told(
          'voltageV',
          `Voltage of a first spin of ${tag}`,
          'V',
          answer?.modules == null ? null : answer.voltageV,
        ),
        told(
          'highestV',
          `The same, cells full, for ${tag}`,
          'V',
          answer?.modules == null ? null : answer.highestV,
        ),
        told(
          'shortA',
          `Short at the posts, first spin of ${tag}`,
          'A',
          answer?.modules == null ? null : answer.shortA,
        ),
      ],
      ...(answer !== null && { run: { calculator: 'first-spin', input: null, result: answer } }),
      checks: [
        judge(
          monitoringRules.asleep,
          [subject],
          gaps,
          answer !== null && answer.modules === null
            ? `${tag} works from ${n(minV)} V; all modules of a string together stand at ${n(answer.voltageV)} V.`
            : null,
          [v('works from', minV, 'V'), v('all modules', answer?.voltageV ?? 0, 'V')],
        ),
        judge(
          monitoringRules.spinHigh,
          [subject],
          gaps,
          answer?.tooHigh === true
            ? `${n(answer.modules!)} modules reach ${n(answer.highestV)} V when full; ${tag} stands ${n(maxV ?? 0)} V.`
            : null,
          [
            v('modules', answer?.modules ?? 0),
            v('when full', answer?.highestV ?? 0, 'V'),
            v('works up to', maxV ?? 0, 'V'),
          ],
        ),
        judge(
          monitoringRules.spinFuse,
          [subject],
          [
            ...gaps,
            ...(spinA === undefined
              ? [{ kind: 'not-given' as const, path: 'sensing.spinA', label: 'current of a first spin' }]
              : []),
          ],
          answer !== null && answer.modules !== null && answer.currentA !== null && answer.fuse === null
            ? `For ${n(answer.currentA)} A at up to ${n(answer.highestV)} V, with ${n(answer.shortA)} A to break.`
            : null,
          [
            v('current of the spin', answer?.currentA ?? 0, 'A'),
            v('highest voltage', answer?.highestV ?? 0, 'V'),
            v('to break', answer?.shortA ?? 0, 'A'),
          ],
        ),
      ],
    };
  },
};
