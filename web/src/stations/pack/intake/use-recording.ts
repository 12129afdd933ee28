import { doubtAbout } from '@torvek/core/commissioning';
import type { Id } from '@torvek/core/document';
import { arrivedId } from '@torvek/core/record';
import { computed, onMounted, ref, type Ref } from 'vue';
import { newId } from '../../../api/client';
import { useInstruments } from '../../../stores/instruments';
import { useJob } from '../../../stores/job';
import type { ThingRow } from '../stock/things';
import { seenNames, type IntakeRow, type ToRecord } from './sheet';

interface Recording {
  /** What was typed comes to these entries. */
  waiting: Readonly<Ref<readonly ToRecord[]>>;
  typed: Ref<Record<Id, IntakeRow>>;
  /** Things on the shelf. */
  things: Readonly<Ref<readonly ThingRow[]>>;
  nameOf(id: Id): string;
  /** Called when something was recorded: it is taken back in the record from then on. */
  recorded(): void;
}

/** Records what was typed at intake, one entry after the other; what is doubtful is asked about first. */
export function useRecording({ waiting, typed, things, nameOf, recorded }: Recording) {
  const job = useJob();
  const register = useInstruments();
  onMounted(() => {
    if (register.all.length === 0) void register.load();
  });
  /** Readings that would be right with their decimal point or sign moved: asked about before they are recorded. */
  const doubts = computed(() =>
    waiting.value.flatMap((one) => {
      if (one.kind !== 'reading' || one.over || one.step.expected === null) return [];
      const question = doubtAbout(one.step.expected, one.value);
      return question === null ? [] : [{ key: `${one.step.id}=${one.value}`, module: one.module, question }];
    }),
  );
  const sure = ref<Set<string>>(new Set());
  const open = computed(() => doubts.value.filter(({ key }) => !sure.value.has(key)));

  /** Another serial for a place that has one: it was misread, or another module was put in. Nobody but who typed it knows. */
  const meant = ref<Record<string, 'misread' | 'other'>>({});
  const renamed = computed(() =>
    waiting.value.flatMap((one) =>
      one.kind === 'intake' && one.was !== undefined
        ? [{ key: `${one.module} ${one.was} ${one.serial}`, ...one, was: one.was }]
        : [],
    ),
  );
  const unsaid = computed(() => renamed.value.filter(({ key }) => meant.value[key] === undefined));
  const blocked = computed(() => open.value.length > 0 || unsaid.value.length > 0);

  const meters = computed(() => register.ofKind('meter'));
  const testers = computed(() => register.ofKind('insulation-tester'));
  const meter = ref('');
  const tester = ref('');
  const busy = ref(false);
  const done = ref(0);
  const said = ref<string | null>(null);

  function bodyOf(one: ToRecord): {
    body: { id: string; kind: string } & Record<string, unknown>;
    title: string;
  } {
    const tag = nameOf(one.module);
    if (one.kind === 'intake') {
      const { kind, module, serial, look, was, dateCode, drained, seals, terminals } = one;
      const seen = { dateCode, drained, seals, terminals };
      const same = was !== undefined && meant.value[`${module} ${was} ${serial}`] === 'misread';
      const body = { id: newId('entry'), kind, module, ...seen, ...(same && { same }) };
      return {
        body: { ...body, ...(serial !== undefined && { serial }), ...(look !== undefined && { look }) },
        title: `Intake of ${tag}`,
      };
    }
    const isTester = one.step.instrument === 'insulation-tester';
    const chosen = isTester ? tester.value || testers.value[0]?.id : meter.value || meters.value[0]?.id;
    return {
      body: {
        id: newId('entry'),
        kind: 'result',
        step: one.step.id,
        entered: 'typed',
        measured: {
          kind: 'value',
          value: one.value,
          unit: one.step.expected?.unit ?? '',
          ...(one.over && { over: true }),
        },
        instrument:
          chosen === undefined
            ? {
                kind: one.step.instrument,
                name: isTester ? 'insulation tester, not registered' : 'meter, not registered',
                standIn: false,
              }
            : { id: chosen },
      },
      title: one.step.title,
    };
  }

  /** @param only the module at the bench; otherwise all that was typed */
  async function record(only?: Id): Promise<boolean> {
    if (blocked.value || busy.value) return false;
    busy.value = true;
    said.value = null;
    done.value = 0;
    const stays = job.staysOpen();
    const list = waiting.value.filter(({ module }) => only === undefined || module === only);
    try {
      const readings = list.filter(({ kind }) => kind === 'reading');
      for (const one of list.filter(({ kind }) => kind !== 'reading')) {
        if (
          one.kind === 'intake' &&
          one.was !== undefined &&
          meant.value[`${one.module} ${one.was} ${one.serial}`] === 'other'
        )
          await swap(one.module, one.serial, stays);
        stays();
        const { body, title } = bodyOf(one);
        await job.record(body, title);
        forget(one);
        done.value += 1;
      }
      // Many at once where the server is there; else one by one, each as the line allows.
      const bodies = readings.map((one) => bodyOf(one));
      stays();
      const atOnce = readings.length > 1 ? await job.recordReadings(bodies.map(({ body }) => body)) : 0;
      for (const [i, one] of readings.entries()) {
        if (i >= atOnce) {
          stays();
          await job.record(bodies[i]!.body, bodies[i]!.title);
        }
        forget(one);
        done.value += 1;
      }
      said.value = `${list.length} ${list.length === 1 ? 'entry' : 'entries'} recorded.`;
      return true;
    } catch (error) {
      said.value = `Stopped after ${done.value}: ${error instanceof Error ? error.message : 'not recorded'}`;
      return false;
    } finally {
      busy.value = false;
    }
  }

  /** Another module is in a place: it arrives, and is fitted there; what was there goes onto the shelf with all that was measured of it. */
  async function swap(place: Id, serial: string | undefined, stays: () => void): Promise<void> {
    const known = things.value.find(({ item }) => item.serial === serial);
    let thing = known?.id;
    if (thing === undefined) {
      const { part } = job.design.modules[place]!;
      const arrived = await job.record(
        { id: newId('entry'), kind: 'arrival', items: [{ part, ...(serial !== undefined && { serial }) }] },
        `${serial ?? 'A module'} arrived`,
      );
      if (arrived === null) throw new Error('a swap needs the server at once');
      thing = arrivedId(arrived.seq, 0);
    }
    stays();
    await job.record(
      { id: newId('entry'), kind: 'fit', item: thing, place, reason: 'Another serial number at intake.' },
      `${serial ?? thing} fitted`,
    );
  }

  /** What is on its way stands in the record, or waits in the outbox: it is typed no more. */
  function forget(one: ToRecord): void {
    const row = { ...typed.value[one.module] };
    if (one.kind === 'intake') for (const name of ['serial', 'look', ...seenNames] as const) delete row[name];
    else {
      delete row[one.measure.field];
      const { [one.measure.field]: _gone, ...over } = row.over ?? {};
      if (Object.keys(over).length === 0) delete row.over;
      else row.over = over;
    }
    recorded();
    const next = { ...typed.value, [one.module]: row };
    if (Object.keys(row).length === 0) delete next[one.module];
    typed.value = next;
  }
  return {
    open,
    confirm: (key: string) => (sure.value = new Set([...sure.value, key])),
    unsaid,
    mean: (key: string, what: 'misread' | 'other') => (meant.value = { ...meant.value, [key]: what }),
    blocked,
    meters,
    testers,
    meter,
    tester,
    busy,
    done,
    said,
    record,
  };
}
