import {
  applyOperations,
  inverseOf,
  operationsMeet,
  type Design,
  type Operation,
} from '@torvek/core/document';
import { ref, shallowRef } from 'vue';
import { api, ApiError, isPassing } from '../api/client';

/** A change that is made and on its way to the server. */
export interface PendingChange extends MadeChange {
  /** The server's version it was made on, whatever has been saved since. */
  base: number;
  /** Own changes since that version that it was made on top of. */
  own: string[];
}

/** A change as it is made. */
export interface MadeChange {
  id: string;
  label: string;
  at: string;
  forward: Operation[];
  inverse: Operation[];
}

export type SaveState = 'saved' | 'saving' | 'waiting' | 'clash' | 'refused';

/** A change the server would not take as it stands. */
export interface Trouble {
  change: PendingChange;
  message: string;
  /** Others' design, when the change met theirs. */
  theirs: Design | null;
}

interface SaveAnswer {
  version: number;
  design?: Design;
}

/** Where changes are kept until the server has them: they outlive the page. */
export interface Keeper {
  read(job: string): PendingChange[];
  write(job: string, changes: PendingChange[]): void;
}

interface Host {
  /** The job whose changes these are, and of none other. */
  job: string;
  /** The server's version when the job was opened. */
  version: number;
  keeper: Keeper;
  /** Called with the server's design when other changes came in between. */
  rebase(design: Design): void;
}

const retryMs = 2000;

/** Sends the changes of one job one after another; keeps them until the server has them. */
export function createAutosave(host: Host) {
  const state = ref<SaveState>('saved');
  const queue = shallowRef<PendingChange[]>([]);
  const trouble = shallowRef<Trouble | null>(null);
  const version = ref(host.version);
  let running = false;
  let closed = false;
  let idle: (() => void)[] = [];
  /** Changes that were not taken while another one was in trouble already: their turn comes after it. */
  const refused = new Set<string>();

  /** The queue, and what is kept of it beyond this page. */
  function enqueue(changes: PendingChange[]): void {
    queue.value = changes;
    host.keeper.write(host.job, changes);
  }

  function push(change: MadeChange): void {
    const own = queue.value.map(({ id }) => id);
    enqueue([...queue.value, { ...change, base: version.value, own }]);
    void drain();
  }

  /** Takes up what an earlier page could not send, made on top of the design the server has now. */
  function takeUp(): PendingChange[] {
    queue.value = host.keeper.read(host.job);
    void drain();
    return queue.value;
  }

  async function drain(): Promise<void> {
    if (running || closed) return;
    running = true;
    for (let next = sendable(); next !== undefined && !closed; next = sendable()) await send(next);
    running = false;
    if (closed) return;
    if (queue.value.length === 0 && trouble.value === null) state.value = 'saved';
    if (queue.value.length === 0 || trouble.value !== null) {
      for (const done of idle) done();
      idle = [];
    }
  }

  /** The first change that touches no place of one that is held up before it: trouble in one place holds up no other. */
  function sendable(): PendingChange | undefined {
    const held: PendingChange[] = [];
    for (const change of queue.value) {
      const isHeld = change.id === trouble.value?.change.id || refused.has(change.id);
      if (!isHeld && !held.some((one) => operationsMeet(one.forward, change.forward))) return change;
      held.push(change);
    }
    return undefined;
  }

  async function send(change: PendingChange): Promise<void> {
    if (trouble.value === null && state.value !== 'waiting') state.value = 'saving';
    try {
      const answer = await api.post<SaveAnswer>(`/jobs/${host.job}/changes`, change);
      if (closed) return;
      version.value = answer.version;
      enqueue(queue.value.filter(({ id }) => id !== change.id));
      if (answer.design !== undefined) host.rebase(answer.design);
      const held = trouble.value;
      if (held === null) state.value = 'saving';
      // What theirs is has moved on by this one.
      else if (held.theirs !== null)
        trouble.value = { ...held, theirs: answer.design ?? applyOperations(held.theirs, change.forward) };
    } catch (error) {
      if (closed) return;
      if (isPassing(error)) {
        if (trouble.value === null) state.value = 'waiting';
        await new Promise((resolve) => setTimeout(resolve, retryMs));
        return;
      }
      if (!(error instanceof ApiError)) throw error;
      if (trouble.value !== null) {
        refused.add(change.id);
        return;
      }
      const clash = error.code === 'clash';
      state.value = clash ? 'clash' : 'refused';
      if (clash) version.value = error.extra.version as number;
      trouble.value = {
        change,
        message: error.message,
        theirs: clash ? (error.extra.design as Design) : null,
      };
    }
  }

  /** Drops the change that is in trouble, and what followed it in the same places; all else is sent. */
  function drop(): void {
    const current = trouble.value;
    const gone: PendingChange[] = current === null ? [...queue.value] : [current.change];
    const left = queue.value.filter((change) => {
      const goes = gone.some((one) => one.id === change.id || operationsMeet(one.forward, change.forward));
      if (goes && !gone.includes(change)) gone.push(change);
      return !goes;
    });
    enqueue(left);
    trouble.value = null;
    refused.clear();
    state.value = left.length === 0 ? 'saved' : 'saving';
    void drain();
  }

  /** Puts the change that met others' on top of theirs. */
  function insist(): void {
    const current = trouble.value;
    if (current?.theirs == null) return;
    const { theirs } = current;
    let at = theirs;
    const ahead: string[] = [];
    const onTop = queue.value.map((change) => {
      const inverse = inverseOf(at, change.forward);
      at = applyOperations(at, change.forward);
      const moved = { ...change, inverse, base: version.value, own: [...ahead] };
      ahead.push(change.id);
      return moved;
    });
    enqueue(onTop);
    trouble.value = null;
    refused.clear();
    host.rebase(theirs);
    void drain();
  }

  /** Resolves when nothing is left to send, or something is in trouble. */
  function settled(): Promise<boolean> {
    if (queue.value.length === 0) return Promise.resolve(true);
    if (trouble.value !== null || closed) return Promise.resolve(false);
    return new Promise((resolve) => idle.push(() => resolve(trouble.value === null && !closed)));
  }

  /** The server is further on by others' changes, and nothing of one's own is on its way. */
  function advance(to: number): void {
    version.value = to;
  }

  /** Sends nothing more: what is left lies where it is kept, for whoever takes it up. */
  function close(): void {
    closed = true;
    for (const done of idle) done();
    idle = [];
  }

  return { state, queue, trouble, version, push, takeUp, drop, insist, settled, advance, close };
}
