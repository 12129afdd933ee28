import {
  applyOperations,
  blankDesign,
  edit,
  setAt,
  type Design,
  type Operation,
} from '@torvek/core/document';
import type { Figure, FigureId } from '@torvek/core/figure';
import { asPresent } from '@torvek/core/record';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import { api, newId } from '../api/client';
import { useLibrary } from './library';
import { createAfterPaint } from './after-paint';
import { createSender, type Sender } from './sender';
import { useFollows } from './job/follows';
import { useNews } from './job/news';
import { useRecording } from './job/recording';
import type { Done, JobAnswer, RecordedEntry } from './job/types';
import { useSession } from './session';

export type { News, RecordedEntry } from './job/types';

/** The open job: its design with history and autosave, what follows from it, and its record. */
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

  const follows = useFollows({ design, committed, draft, entries, demo, library: () => shelf.library });
  const { evaluation, built, builtEvaluation, procedure, checks, assessment, live } = follows;
  const { record, take, takeAll, recordReadings } = useRecording({ id, entries, recorded, sender });
  const { heard, hear } = useNews({ id, name, committed, entries, recorded, sender, take, takeAll });

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
      follows.begin();
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
   * For acts of several entries: throws once another job is open than at its beginning, for the rest would go to that one.
   */
  function staysOpen(): () => void {
    const of = id.value;
    return () => {
      if (id.value !== of) throw new Error('another job was opened meanwhile');
    };
  }

  async function rename(to: string): Promise<void> {
    const of = id.value;
    const job = await api.patch<JobAnswer>(`/jobs/${of}`, { name: to });
    if (id.value === of) name.value = job.name;
  }

  /** Asked hundreds of times a picture: a value that is a function, and no action of the store, each call of which is told about. */
  const figure = computed(() => {
    const { figures } = evaluation.value;
    return (figureId: FigureId): Figure | undefined => figures[figureId];
  });

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
