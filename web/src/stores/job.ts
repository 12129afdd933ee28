import { asBuilt } from '@torvek/core/built';
import { createEvaluator, everyCheck, liveStateOf, type Assessment, assess } from '@torvek/core/design';
import { procedureFor, type ProcedureStep } from '@torvek/core/commissioning';
import {
  applyOperations,
  blankDesign,
  edit,
  setAt,
  type Design,
  type Operation,
} from '@torvek/core/document';
import type { Figure, FigureId } from '@torvek/core/figure';
import { asPresent, standing, type Entry } from '@torvek/core/record';
import type { Evaluation } from '@torvek/core/step';
import { useNow } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import { api, isPassing, newId } from '../api/client';
import { useLibrary } from './library';
import { createAfterPaint } from './after-paint';
import { createSender, type Sender } from './sender';
import { useSession } from './session';

interface JobAnswer {
  id: string;
  name: string;
  demo: boolean;
  version: number;
  design: Design;
}

interface Done {
  label: string;
  forward: Operation[];
  inverse: Operation[];
}

/** What the server tells of a job while it is open. */
export type News = { job: string } & (
  | { kind: 'change'; version: number; id: string; label: string; by: string; forward: Operation[] }
  | { kind: 'entry'; entry: RecordedEntry }
  | { kind: 'entries'; entries: RecordedEntry[] }
  /** How far it has come, at the moment the line began to listen. */
  | { kind: 'here'; name: string; version: number; entries: number }
  | { kind: 'progress'; task: string; fraction: number }
);

export type RecordedEntry = Entry & { sha256: string };

/** The open job: its design with history and autosave, what follows from it, and its record. */
/** Readings in one request. */
const readingsAtOnce = 300;

export const useJob = defineStore('job', () => {
  const session = useSession();
  const shelf = useLibrary();
  const id = ref('');
  const name = ref('');
  const demo = ref(false);
  const loaded = ref(false);
  const failed = ref<string | null>(null);

  /** The design with every change made here; the draft is what is being typed and is no change yet. */
  const committed = shallowRef<Design>(blankDesign());
  const draft = shallowRef<Design | null>(null);
  const afterPaint = createAfterPaint();
  const design = computed(() => draft.value ?? committed.value);
  const undoable = shallowRef<Done[]>([]);
  const redoable = shallowRef<Done[]>([]);
  /** The entries that still matter, in order; Book reads the whole record page by page. */
  const entries = shallowRef<RecordedEntry[]>([]);

  /** The same as it tells of the places now: what was measured of a thing goes where the thing goes. */
  const present = computed(() => asPresent(entries.value) as RecordedEntry[]);

  /** Whose changes these are: what waits is sent as theirs, or not at all. */
  let owner = '';
  /** The last change of somebody else that arrived. */
  const heard = shallowRef<{ by: string; label: string; at: number } | null>(null);
  /** Counts what was recorded since the job was opened: whoever shows the record reads it again. */
  const recorded = ref(0);
  /** What sends for the open job; those of jobs left in a hurry go on until nothing waits. */
  const sender = shallowRef<Sender | null>(null);
  const senders = new Map<string, Sender>();

  function senderOf(job: string, version: number): Sender {
    const found = senders.get(job);
    if (found !== undefined) {
      found.resume(version);
      return found;
    }
    const made: Sender = createSender({
      job,
      owner,
      version,
      rebase(theirs) {
        if (sender.value !== made) return;
        noDraft();
        committed.value = withPending(theirs, made.autosave.queue.value);
      },
      taken: (entry) => take(entry, job),
    });
    senders.set(job, made);
    return made;
  }

  function closeSenders(): void {
    for (const one of senders.values()) one.close();
    senders.clear();
    sender.value = null;
  }

  let evaluator = createEvaluator();
  const evaluation = computed<Evaluation>(() => evaluator.evaluate(design.value, shelf.library));
  /** The vehicle that stands there: the design with what was fitted and cut laid over it. Gates and results go by it. */
  const built = computed(() => asBuilt(design.value, entries.value));
  /** Begins with what the other one knows: what was fitted differs in little. */
  let builtEvaluator: typeof evaluator | null = null;
  const builtEvaluation = computed<Evaluation>(() => {
    const asDesigned = evaluation.value;
    if (built.value.design === design.value) return asDesigned;
    builtEvaluator ??= evaluator.fork();
    return builtEvaluator.evaluate(built.value.design, shelf.library);
  });
  /** While something is typed or dragged it stays as it was: nobody goes by a step of what is no change yet. */
  const procedure = computed((before?: ProcedureStep[]) =>
    draft.value !== null && before !== undefined
      ? before
      : procedureFor(built.value.design, builtEvaluation.value),
  );
  const now = useNow({ interval: 600_000 });
  /** Every rule, by the design and by what the record says of what was measured. */
  const checks = computed(() =>
    everyCheck(evaluation.value, builtEvaluation.value, design.value, entries.value, now.value.getTime()),
  );
  const assessment = computed<Assessment>(() =>
    assess({ ...builtEvaluation.value, checks: checks.value }, procedure.value, entries.value, {
      practice: demo.value,
    }),
  );

  /** The vehicle as last recorded, for the design as it is saved. */
  const live = computed(() => liveStateOf(committed.value, assessment.value.position, entries.value));

  /** Counts openings: what is answered after another one began is of no use any more. */
  let openings = 0;

  async function open(jobId: string): Promise<void> {
    const opening = (openings += 1);
    loaded.value = false;
    failed.value = null;
    try {
      // What is on its way there belongs to what is about to be read.
      const before = senders.get(jobId)?.autosave;
      if (before?.state.value === 'saving') await before.settled();
      const [job, record] = await Promise.all([
        api.get<JobAnswer>(`/jobs/${jobId}`),
        api.get<RecordedEntry[]>(`/jobs/${jobId}/standing`),
        shelf.load(),
      ]);
      if (opening !== openings) return;
      evaluator = createEvaluator();
      builtEvaluator = null;
      id.value = job.id;
      owner = session.person?.id ?? '';
      name.value = job.name;
      demo.value = job.demo;
      noDraft();
      committed.value = job.design;
      entries.value = record;
      undoable.value = [];
      heard.value = null;
      redoable.value = [];
      const current = senderOf(job.id, job.version);
      sender.value = current;
      committed.value = withPending(job.design, current.autosave.queue.value);
      loaded.value = true;
    } catch (error) {
      if (opening !== openings) return;
      failed.value = error instanceof Error ? error.message : 'the job cannot be opened';
    }
  }

  // Somebody else, or nobody: what waits lies in the browser until its author is back.
  watch(
    () => session.person?.id,
    (now) => {
      if (owner === '' || now === owner) return;
      owner = '';
      id.value = '';
      loaded.value = false;
      openings += 1;
      closeSenders();
    },
  );

  /** The design with changes that are still on their way; one that no longer fits is left to the server to refuse. */
  function withPending(theirs: Design, changes: { forward: Operation[] }[]): Design {
    return changes.reduce((at, change) => {
      try {
        return applyOperations(at, change.forward);
      } catch {
        return at;
      }
    }, theirs);
  }

  function send(label: string, forward: Operation[], inverse: Operation[]): void {
    sender.value?.autosave.push({
      id: newId('change'),
      label,
      at: new Date().toISOString(),
      forward,
      inverse,
    });
  }

  /** Whether the signed-in person may change designs; otherwise they read them. */
  const editable = computed(() => session.isDesigner);

  /** One gesture, one change: edits the design, keeps it for undo, sends it. */
  function change(label: string, recipe: (draft: Design) => void): void {
    noDraft();
    if (!editable.value) return;
    const edited = edit(committed.value, (one) => recipe(one as Design));
    if (edited === null) return;
    committed.value = edited.design;
    undoable.value = [...undoable.value, { label, forward: edited.forward, inverse: edited.inverse }];
    redoable.value = [];
    send(label, edited.forward, edited.inverse);
  }

  /**
   * Shows what an edit would give while it is being typed, as soon as the browser has painted the typed character; null
   * takes the preview away at once.
   */
  function preview(recipe: ((draft: Design) => void) | null): void {
    if (recipe === null) noDraft();
    else
      afterPaint.ask(() => {
        draft.value = edit(committed.value, (one) => recipe(one as Design))?.design ?? null;
      });
  }

  function noDraft(): void {
    afterPaint.drop();
    draft.value = null;
  }

  /** Sets one field by its dotted path. */
  function set(path: string, value: unknown, label: string): void {
    change(label, (one) => setAt(one, path, value));
  }

  function undo(): void {
    const last = undoable.value.at(-1);
    if (last === undefined || !replay(`Undo: ${last.label}`, last.inverse, last.forward)) return;
    undoable.value = undoable.value.slice(0, -1);
    redoable.value = [...redoable.value, last];
  }

  function redo(): void {
    const last = redoable.value.at(-1);
    if (last === undefined || !replay(`Redo: ${last.label}`, last.forward, last.inverse)) return;
    redoable.value = redoable.value.slice(0, -1);
    undoable.value = [...undoable.value, last];
  }

  function replay(label: string, forward: Operation[], inverse: Operation[]): boolean {
    try {
      noDraft();
      committed.value = applyOperations(committed.value, forward);
    } catch {
      return false;
    }
    send(label, forward, inverse);
    return true;
  }

  /** Takes the server's design when a change was given up. */
  async function reload(): Promise<void> {
    sender.value?.autosave.drop();
    await open(id.value);
  }

  /**
   * Records something; the design is saved first, for the server judges against what it has.
   *
   * @param title what it is about, shown while it waits for the server
   * @returns null when it waits; what needs the server at once (a witness's password) never waits
   */
  async function record(
    body: { id: string; kind: string } & Record<string, unknown>,
    title = body.kind,
  ): Promise<RecordedEntry | null> {
    const of = id.value;
    const current = sender.value;
    if (current === null) throw new Error('no job is open');
    const { autosave, outbox } = current;
    const taken = { takenAt: new Date().toISOString(), ...body };
    if (body.kind === 'gate') {
      const entry = await api.post<RecordedEntry>(`/jobs/${of}/entries`, taken);
      await take(entry, of);
      return entry;
    }
    if (autosave.trouble.value !== null)
      throw new Error('a change of the design could not be saved; settle that first');
    const away = autosave.state.value === 'waiting';
    if (!away) await autosave.settled();
    return outbox.send(taken, title, away);
  }

  /** Takes up an entry that was recorded, here or elsewhere. */
  async function take(entry: RecordedEntry, of: string): Promise<void> {
    if (id.value !== of) return;
    recorded.value += 1;
    // A correction may bring an older entry back: only the server knows it.
    if (entry.body.kind === 'correction') {
      const found = await api.get<RecordedEntry[]>(`/jobs/${of}/standing`);
      if (id.value === of) entries.value = found;
    } else if (!entries.value.some((one) => one.id === entry.id))
      entries.value = standing([...entries.value, entry]);
  }

  /** The same of a batch. */
  function takeAll(made: readonly RecordedEntry[], of: string): void {
    if (id.value !== of) return;
    const known = new Set(entries.value.map((one) => one.id));
    const fresh = made.filter((one) => !known.has(one.id));
    const correction = fresh.find(({ body }) => body.kind === 'correction');
    if (correction !== undefined) return void take(correction, of);
    if (fresh.length === 0) return;
    recorded.value += 1;
    entries.value = standing([...entries.value, ...fresh]);
  }

  /**
   * Records readings that do not hang on each other, a few hundred in one request: a longer one would hold up the others.
   *
   * @returns how many stand in the record, from the first on; the server is away for the rest, or others wait before them
   * @throws ApiError when one of them is refused: of its request none was taken
   */
  async function recordReadings(
    bodies: readonly ({ id: string } & Record<string, unknown>)[],
  ): Promise<number> {
    const of = id.value;
    const current = sender.value;
    if (current === null) throw new Error('no job is open');
    const { autosave, outbox } = current;
    if (autosave.trouble.value !== null)
      throw new Error('a change of the design could not be saved; settle that first');
    if (autosave.state.value === 'waiting' || outbox.waiting.value.length > 0) return 0;
    await autosave.settled();
    const takenAt = new Date().toISOString();
    for (let at = 0; at < bodies.length; at += readingsAtOnce) {
      const readings = bodies.slice(at, at + readingsAtOnce).map((body) => ({ takenAt, ...body }));
      try {
        takeAll(await api.post<RecordedEntry[]>(`/jobs/${of}/readings`, { readings }), of);
      } catch (error) {
        if (isPassing(error)) return at;
        throw error;
      }
    }
    return bodies.length;
  }

  /**
   * For acts of several entries: throws once another job is open than at its beginning, for the rest would go to that one.
   */
  function staysOpen(): () => void {
    const of = id.value;
    return () => {
      if (id.value !== of) throw new Error('another job was opened meanwhile');
    };
  }

  /** What was missed while the line was down, or could not be put on top: the server's state, fetched. */
  async function catchUp(): Promise<void> {
    const of = id.value;
    const autosave = sender.value?.autosave;
    if (autosave === undefined || !(await autosave.settled())) return;
    try {
      const [job, record] = await Promise.all([
        api.get<JobAnswer>(`/jobs/${of}`),
        api.get<RecordedEntry[]>(`/jobs/${of}/standing`),
      ]);
      if (id.value !== of || autosave.queue.value.length > 0 || job.version < autosave.version.value) return;
      if (job.version > autosave.version.value) {
        committed.value = job.design;
        autosave.advance(job.version);
      }
      name.value = job.name;
      if (
        JSON.stringify(record.map(({ seq }) => seq)) !== JSON.stringify(entries.value.map(({ seq }) => seq))
      ) {
        entries.value = record;
        recorded.value += 1;
      }
    } catch {
      // The line is down again: the next connection tries anew.
    }
  }

  /** Something of the job has arrived over the line. */
  async function hear(news: News): Promise<void> {
    const autosave = sender.value?.autosave;
    if (news.job !== id.value || autosave === undefined) return;
    if (news.kind === 'entry') {
      if (!entries.value.some((one) => one.id === news.entry.id)) await take(news.entry, news.job);
      return;
    }
    if (news.kind === 'entries') return takeAll(news.entries, news.job);
    if (news.kind === 'here') {
      name.value = news.name;
      // The last entry of a job nearly always stands; where it does not, the record is read once more.
      if (news.version > autosave.version.value || news.entries !== (entries.value.at(-1)?.seq ?? 0))
        await catchUp();
      return;
    }
    if (news.kind !== 'change' || news.version <= autosave.version.value) return;
    if (autosave.queue.value.some((one) => one.id === news.id)) return;
    if (autosave.queue.value.length > 0 || news.version !== autosave.version.value + 1) return catchUp();
    committed.value = applyOperations(committed.value, news.forward);
    autosave.advance(news.version);
    heard.value = { by: news.by, label: news.label, at: Date.now() };
  }

  async function rename(to: string): Promise<void> {
    const of = id.value;
    const job = await api.patch<JobAnswer>(`/jobs/${of}`, { name: to });
    if (id.value === of) name.value = job.name;
  }

  const figure = (figureId: FigureId): Figure | undefined => evaluation.value.figures[figureId];

  return {
    id,
    name,
    demo,
    loaded,
    failed,
    editable,
    committed,
    design,
    evaluation,
    checks,
    procedure,
    assessment,
    live,
    entries,
    present,
    recordReadings,
    staysOpen,
    built,
    builtEvaluation,
    recorded,
    undoable,
    redoable,
    saveState: computed(() => sender.value?.autosave.state.value ?? 'saved'),
    pending: computed(() => sender.value?.autosave.queue.value ?? []),
    trouble: computed(() => sender.value?.autosave.trouble.value ?? null),
    version: computed(() => sender.value?.autosave.version.value ?? 0),
    open,
    change,
    preview,
    set,
    undo,
    redo,
    reload,
    insist: () => sender.value?.autosave.insist(),
    record,
    take,
    hear,
    heard,
    waiting: computed(() => sender.value?.outbox.waiting.value ?? []),
    retryEntry: (entry: string) => sender.value?.outbox.retry(entry),
    dropEntry: (entry: string) => sender.value?.outbox.drop(entry),
    rename,
    figure,
  };
});
