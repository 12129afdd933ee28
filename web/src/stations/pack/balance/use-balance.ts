import { balanceDefaults, bleedOf } from '@torvek/core/document';
import {
  balanceCells,
  balanceTime,
  benchParallel,
  firstPlannedEndMs,
  outlookOf,
  planDraws,
  planTogether,
  type BalanceSchedule,
  type BenchParallelResult,
  type Outlook,
  type PlanCell,
} from '@torvek/core/balance';
import { balanceStates, type CellState } from '@torvek/core/balance';
import { interpolate } from '@torvek/core/math';
import { useNow } from '@vueuse/core';
import { wrap, type Remote } from 'comlink';
import { computed, onBeforeUnmount, shallowRef, watch } from 'vue';
import { useJob } from '../../../stores/job';
import type { RestsDoor } from '../../../workers/rests.worker';

/** A cell with its state and how its rest will end. */
export interface BalanceRow extends CellState {
  name: string;
  outlook: Outlook;
}

const noOutlook = outlookOf([], { targetV: 1, toleranceV: 0, restHours: Infinity });
const keyOf = ({ samples }: CellState, target: string) =>
  `${target}|${samples.length}|${samples.at(-1)?.[0] ?? ''}|${samples.at(-1)?.[1] ?? ''}|${samples[0]?.[0] ?? ''}`;

/** Everything the Balance panel shows: cells from the record, fits from a worker, what is left to do from the plan. */
export function useBalance() {
  const job = useJob();
  const now = useNow({ interval: 30_000 });
  const plan = computed(() => job.design.pack.balance ?? {});
  const school = computed(() => plan.value.school);
  const zone = computed(() => job.design.settings.zone ?? 'UTC');
  const toleranceV = computed(() => plan.value.toleranceV ?? balanceDefaults.toleranceV);
  const restHours = computed(() => plan.value.restHours ?? balanceDefaults.restHours);
  const shape = computed(() => {
    const { modules, strings, parts } = job.design;
    return { modules, strings, parts };
  });
  const states = computed(() => balanceStates(shape.value, job.present));

  /** Fits are kept until a reading or the target changes; the worker makes what is new. */
  const fits = shallowRef(new Map<string, Outlook>());
  const fitting = shallowRef(false);
  let worker: Worker | null = null;
  let door: Remote<RestsDoor> | null = null;
  const keyed = computed(() => {
    const { targetV } = plan.value;
    const target = `${targetV}|${toleranceV.value}|${restHours.value}`;
    return states.value.map((state) => ({
      state,
      key: targetV === undefined || state.phase !== 'resting' ? null : `${state.id}|${keyOf(state, target)}`,
    }));
  });
  watch(
    keyed,
    async (list) => {
      const { targetV } = plan.value;
      const due = list.filter(({ key }) => key !== null && !fits.value.has(key));
      if (due.length === 0 || targetV === undefined) return;
      if (door === null) {
        worker = new Worker(new URL('../../../workers/rests.worker.ts', import.meta.url), { type: 'module' });
        door = wrap<RestsDoor>(worker);
      }
      fitting.value = true;
      const found = await door.outlooks(
        due.map(({ state }) => state.samples.map(([hours, volts]): [number, number] => [hours, volts])),
        { targetV, toleranceV: toleranceV.value, restHours: restHours.value },
      );
      const wanted = new Set(keyed.value.map(({ key }) => key));
      fits.value = new Map([
        ...[...fits.value].filter(([key]) => wanted.has(key)),
        ...due.map(({ key }, i): [string, Outlook] => [key!, found[i]!]),
      ]);
      fitting.value = keyed.value.some(({ key }) => key !== null && !fits.value.has(key));
    },
    { immediate: true },
  );
  onBeforeUnmount(() => worker?.terminate());

  const rows = computed((): BalanceRow[] =>
    keyed.value.map(({ state, key }) => ({
      ...state,
      name: state.tag,
      outlook: (key === null ? undefined : fits.value.get(key)) ?? noOutlook,
    })),
  );

  /** State of charge of cells by their newest reading: what bleeding and joining start from. */
  const levels = computed(() =>
    rows.value.flatMap((row) => {
      if (row.last === null) return [];
      const turned = row.data.cell.ocvTable.map(([soc, v]): [number, number] => [v, soc]);
      return [{ row, socFraction: interpolate(turned, row.last.voltageV) }];
    }),
  );

  /** Hours of bleeding; null while something is missing. */
  const bleeding = computed(() => {
    const { bleedDutyFraction } = plan.value;
    const bleedCurrentA = bleedOf(job.design)?.currentA;
    const data = rows.value[0]?.data;
    if (data === undefined || bleedCurrentA === undefined || levels.value.length === 0) return null;
    const parsed = balanceTime.parse({
      cells: levels.value.map(({ row, socFraction }) => ({ id: row.id, socFraction })),
      capacityAh: data.cell.capacityAh * data.cellsInParallel,
      school: school.value === 'bottom' ? 'bottom' : 'top',
      bleedCurrentA,
      dutyFraction: bleedDutyFraction ?? balanceDefaults.bleedDutyFraction,
      leadLimitA: data.senseLeadLimitA,
    });
    return parsed.ok ? balanceTime.calculate(parsed.input).result : null;
  });

  /** Modules side by side on common bars, from their newest voltages; words say what is missing. */
  const joining = computed((): { result: BenchParallelResult | null; because: string } => {
    const { leadOhm, leadLimitA } = plan.value;
    if (leadOhm === undefined) return { result: null, because: 'the resistance of the leads is not given' };
    const cells = balanceCells(shape.value);
    const first = cells[0];
    if (first === undefined) return { result: null, because: 'there are no modules' };
    const modules = [...new Map(cells.map((cell) => [cell.module, cell])).values()];
    if (modules.some(({ data }) => data.cellsInSeries !== first.data.cellsInSeries))
      return { result: null, because: 'modules of unlike cells in series are never joined side by side' };
    const missing: string[] = [];
    const made = modules.flatMap(({ module, moduleTag, data }) => {
      const measured = job.assessment.steps.find(({ step }) => step.id === `intake-voltage:${module}`)?.entry
        ?.body.measured;
      if (measured?.kind !== 'value') {
        missing.push(moduleTag);
        return [];
      }
      const { cell, cellsInSeries, cellsInParallel, continuousA } = data;
      return [
        {
          id: module,
          voltageV: measured.value,
          capacityAh: cell.capacityAh * cellsInParallel,
          resistanceOhm: (cell.resistanceOhm * cellsInSeries) / cellsInParallel,
          limitA: Math.min(continuousA, leadLimitA ?? Infinity),
        },
      ];
    });
    if (missing.length > 0)
      return {
        result: null,
        because: `the intake voltage of ${missing.slice(0, 3).join(', ')}${missing.length > 3 ? ` and ${missing.length - 3} more` : ''} is not recorded`,
      };
    return {
      result: benchParallel({
        modules: made,
        series: first.data.cellsInSeries,
        leadOhm,
        ocvTable: first.data.cell.ocvTable,
        toleranceV: toleranceV.value,
      }),
      because: '',
    };
  });

  const planCells = computed((): PlanCell[] =>
    rows.value.map(({ id, phase, place, sinceMs, round, outlook, samples }) => ({
      id,
      phase,
      place,
      sinceMs,
      round,
      verdict: outlook.verdict,
      settledAtMs:
        sinceMs === null || outlook.settledAfterH === null ? null : sinceMs + outlook.settledAfterH * 3.6e6,
      lastReadingMs: sinceMs === null || samples.length === 0 ? null : sinceMs + samples.at(-1)![0] * 3.6e6,
    })),
  );
  const schedule = computed((): BalanceSchedule => {
    const at = now.value.getTime();
    if (school.value === 'bottom') return planDraws(planCells.value, plan.value, zone.value, at);
    const hours = school.value === 'bench' ? joining.value.result?.hours : bleeding.value?.totalHours;
    return planTogether(planCells.value, hours ?? null, plan.value, zone.value, at);
  });
  /** The end as it was planned when the first cell was put on, or today. */
  const firstEndMs = computed(() => {
    if (school.value !== 'bottom') return null;
    const begun = rows.value.flatMap(({ stretches }) => stretches.map(({ fromMs }) => fromMs));
    if (begun.length === 0) return null;
    return firstPlannedEndMs(
      rows.value.map(({ id }) => id),
      plan.value,
      zone.value,
      Math.min(...begun),
    );
  });
  const counts = computed(() => {
    const of = (verdict: Outlook['verdict']) =>
      rows.value.filter(({ phase, outlook }) => phase === 'resting' && outlook.verdict === verdict).length;
    return {
      inside: of('will settle inside'),
      high: of('will settle too high'),
      low: of('will settle too low'),
      early: of('too early to tell'),
      on: rows.value.filter(({ phase }) => phase === 'on').length,
      waiting: rows.value.filter(({ phase }) => phase === 'waiting').length,
    };
  });

  return {
    now,
    plan,
    school,
    zone,
    toleranceV,
    restHours,
    rows,
    fitting,
    levels,
    bleeding,
    joining,
    schedule,
    firstEndMs,
    counts,
  };
}

export type Balance = ReturnType<typeof useBalance>;
