import type { Design } from '@torvek/core/document';
import type { StageId } from '@torvek/core/network';
import type { BalanceGear, ItemState, JointWork, Look, SoloMeasure } from '@torvek/core/record';

/** Something recorded in the demo's past. */
export type StoryEntry =
  /** A vessel under pressure, at the beginning and at the end. */
  | {
      kind: 'hold';
      step: string;
      from: [kPa: number, c: number];
      to: [kPa: number, c: number];
      minutes: number;
      instrument: { id: string };
      remark?: string;
    }
  /** Every pin of a sense plug against its reference. */
  | { kind: 'ladder'; step: string; taps: number[]; instrument: { id: string }; remark?: string }
  /** One reading for each of what a step names. */
  | {
      kind: 'list';
      step: string;
      values: number[];
      unit: string;
      instrument: { id: string };
      remark?: string;
    }
  | { kind: 'result'; step: string; value: number; instrument: { id: string }; remark?: string }
  /** A captured pre-charge rise, made by the plant's own model with this seed. */
  | { kind: 'rise'; step: string; seed: number; instrument: { id: string } }
  | {
      kind: 'position';
      /** The stage of the build that the vehicle stands at. */
      stage: StageId;
      remark?: string;
    }
  | { kind: 'work'; what: string; subjects: string[] }
  | { kind: 'note'; text: string }
  | { kind: 'intake'; module: string; serial?: string; look?: Look; remark?: string }
  /** A crate; its things have ids by the number of this entry and their row. */
  | {
      kind: 'arrival';
      items: { part?: string; serial?: string; donor?: string; note?: string; lengthM?: number }[];
    }
  | { kind: 'fit'; item: string; place: string; reason?: string }
  | { kind: 'remove'; item: string; state: ItemState; reason?: string }
  | { kind: 'item-state'; item: string; state: ItemState; reason?: string }
  | { kind: 'part-fitted'; place: string; part?: string; serial?: string; reason?: string }
  | { kind: 'cable-cut'; place: string; lengthM: number; batch?: string; reel?: string; count?: number }
  | { kind: 'balance'; act: 'on' | 'off'; gear: BalanceGear; cells: string[]; place?: number }
  | {
      kind: 'cell-voltages';
      entered: 'typed' | 'pasted' | 'logged';
      instrument: { id: string };
      cells: { cell: string; samples: [hours: number, voltageV: number][] }[];
    }
  | {
      kind: 'joints';
      work: JointWork;
      currentA?: number;
      instrument: { id: string };
      joints: { joint: string; value: number }[];
      remark?: string;
    }
  /** Corrects the entry just before. */
  | { kind: 'correction'; ofLast: true; reason: string }
  /** Opens an HV gate, with the shop's witness by name or alone. */
  | { kind: 'gate'; gate: string; witness: string; alone?: undefined }
  | { kind: 'gate'; gate: string; witness?: undefined; alone: { replacedBy: SoloMeasure[]; how: string } }
  /** What was tried after the last failed result of a step. */
  | {
      kind: 'deviation';
      ofStep: string;
      tried: string;
      cause: string;
      cured: boolean;
      subjects: string[];
    }
  | { kind: 'hunt-try'; begins: boolean; out: string[]; starts: number; restarts: number }
  | { kind: 'snag'; what: string; gate: string; subjects: string[] }
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
  /** As it has gone by now; always of the same length. */
  story: (now: Date) => StoryLine[];
}
