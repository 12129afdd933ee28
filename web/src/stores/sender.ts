import type { Design } from '@torvek/core/document';
import { createAutosave, type PendingChange } from './autosave';
import type { RecordedEntry } from './job';
import { browserKeeper } from './keeper';
import { createOutbox, type WaitingEntry } from './outbox';

interface Host {
  /** The job, and whose work it is: what waits is sent as theirs, or not at all. */
  job: string;
  owner: string;
  /** The server's version when the job was opened. */
  version: number;
  /** Called with the server's design when other changes came in between. */
  rebase(design: Design): void;
  /** Called with each entry the server has taken. */
  taken(entry: RecordedEntry): Promise<void>;
}

export type Sender = ReturnType<typeof createSender>;

/**
 * What one person's changes and entries of one job go through, on their way to the server. It takes up what an earlier page could not
 * send, and goes on while another job is open.
 */
export function createSender({ job, owner, version, rebase, taken }: Host) {
  const autosave = createAutosave({
    job,
    version,
    keeper: browserKeeper<PendingChange>((of) => `torvek.pending.${owner}.${of}`),
    rebase,
  });
  const outbox = createOutbox({
    job,
    ...browserKeeper<WaitingEntry>((of) => `torvek.waiting.${owner}.${of}`),
    ready: () => autosave.settled(),
    taken,
  });
  autosave.takeUp();
  outbox.takeUp();
  return {
    job,
    autosave,
    outbox,
    /** The job is opened again: what another page left is taken up, unless something of this one waits. */
    resume(at: number) {
      if (autosave.queue.value.length === 0) {
        autosave.advance(at);
        autosave.takeUp();
      }
      if (outbox.waiting.value.length === 0) outbox.takeUp();
    },
    close() {
      autosave.close();
      outbox.close();
    },
  };
}
