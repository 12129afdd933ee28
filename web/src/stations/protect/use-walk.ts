import type { JointWork } from '@torvek/core/record';
import { parseQuantity } from '@torvek/core/quantity';
import { computed, ref, type ComputedRef } from 'vue';
import { newId } from '../../api/client';
import { ownSheet, typedInBrowser } from '../../parts/grid/own-sheet';
import { useInstruments } from '../../stores/instruments';
import { useJob } from '../../stores/job';
import { useSession } from '../../stores/session';
import { doubtsOf } from './walk-doubts';

type Typed = Record<JointWork, Record<string, number>>;
const nothing = (): Typed => ({ torque: {}, drop: {}, bond: {} });

/** A walk along joints or bonds: what is typed waits in the browser until it is recorded as one entry. */
export function useWalk(
  work: ComputedRef<JointWork>,
  known: ComputedRef<{ id: string; tag: string }[]>,
  /** What is expected of one, if anything is. */
  expected: (id: string) => number | null,
) {
  const job = useJob();
  const session = useSession();
  const register = useInstruments();
  if (register.all.length === 0) void register.load();
  const key = `torvek.walk.${session.person?.id ?? ''}.${job.id}`;
  const { typed, back } = typedInBrowser<Typed>(key, nothing());
  const sheet = ownSheet(
    () => ({ ...nothing(), ...typed.value }),
    () => session.mayRecord,
    back.take,
    back.undo,
  );
  const list = computed(() =>
    known.value.flatMap(({ id, tag }) => {
      const value = typed.value[work.value]?.[id];
      return value === undefined ? [] : [{ id, tag, value }];
    }),
  );

  const currentText = ref('');
  const currentA = computed(() => {
    const parsed = parseQuantity(currentText.value, 'A');
    return parsed.ok && parsed.value > 0 && parsed.value <= 10_000 ? parsed.value : null;
  });
  const doubts = computed(() => doubtsOf(list.value, work.value, currentA.value, expected));
  const sure = ref('');
  const asked = computed(() => JSON.stringify(doubts.value.map(({ id, value }) => [id, value])));
  const open = computed(() => (sure.value === asked.value ? [] : doubts.value));

  const kind = computed(() => (work.value === 'torque' ? 'torque-wrench' : 'meter'));
  const instruments = computed(() => register.ofKind(kind.value));
  const chosen = ref('');
  const busy = ref(false);
  const said = ref<string | null>(null);
  const problem = computed(() => {
    if (list.value.length === 0) return null;
    if (work.value !== 'torque' && currentA.value === null)
      return currentText.value.trim() === ''
        ? 'Say which current flowed.'
        : 'The current is no number above 0 A.';
    if (work.value === 'torque' && list.value.some(({ value }) => !(value > 0)))
      return 'A torque lies above 0 N·m.';
    return null;
  });
  const mayRecord = computed(
    () =>
      session.mayRecord &&
      list.value.length > 0 &&
      problem.value === null &&
      open.value.length === 0 &&
      !busy.value,
  );

  async function record(remark: string): Promise<void> {
    if (!mayRecord.value) return;
    busy.value = true;
    said.value = null;
    const done = list.value;
    const of = work.value;
    const id = chosen.value || instruments.value[0]?.id;
    try {
      await job.record(
        {
          id: newId('entry'),
          kind: 'joints',
          work: of,
          ...(of !== 'torque' && { currentA: currentA.value! }),
          instrument:
            id === undefined
              ? { kind: kind.value, name: `${kind.value.replace('-', ' ')}, not registered`, standIn: false }
              : { id },
          joints: done.map(({ id: joint, value }) => ({ joint, value })),
          ...(remark.trim() !== '' && { remark: remark.trim() }),
        },
        `${done.length} ${of === 'bond' ? 'bonds' : 'joints'}`,
      );
      const left = { ...typed.value[of] };
      for (const one of done) delete left[one.id];
      back.forget();
      typed.value = { ...typed.value, [of]: left };
      said.value = `${done.length} recorded.`;
    } catch (error) {
      said.value = `Not recorded: ${error instanceof Error ? error.message : 'unknown reason'}`;
    } finally {
      busy.value = false;
    }
  }

  return {
    sheet,
    list,
    currentText,
    currentA,
    open,
    setCurrent: (text: string) => (currentText.value = text),
    setInstrument: (id: string) => (chosen.value = id),
    takeBack: () => back.take({ ...typed.value, [work.value]: {} }),
    agree: () => (sure.value = asked.value),
    instruments,
    chosen,
    busy,
    said,
    problem,
    mayRecord,
    record,
  };
}

export type Walk = ReturnType<typeof useWalk>;
