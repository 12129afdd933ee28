import type { Design } from '@torvek/core/document';
import type { Instrument } from '@torvek/core/record';

/** Something recorded in the demo's past. */
export type StoryEntry =
  | { kind: 'result'; step: string; value: number; instrument: Instrument; remark?: string }
  /** A captured pre-charge rise, made by the plant's own model with this seed. */
  | { kind: 'rise'; step: string; seed: number; instrument: Instrument }
  | {
      kind: 'position';
      linksOut: number;
      serviceDisconnect: 'out' | 'in';
      mains: 'open' | 'closed';
      remark?: string;
    }
  | { kind: 'work'; what: string; subjects: string[] }
  /** Corrects the entry just before. */
  | { kind: 'correction'; ofLast: true; reason: string }
  /** Accepts the raised finding of a rule. */
  | { kind: 'acceptance'; rule: string; reason: string };

export type StoryLine = { at: string; by: string } & (
  { entry: StoryEntry } | { label: string; change: (draft: Design) => void }
);

/** An invented job: its first design and what happened to it, in order. */
export interface DemoJob {
  id: string;
  name: string;
  design: Design;
  story: StoryLine[];
}
