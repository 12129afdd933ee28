import type { BendCardResult, RouteResult } from '@torvek/core/routing';
import type { Rows } from '../../parts/csv';

const mm = (value: number) => Math.round(value * 10) / 10;
const m = (value: number) => Math.round(value * 10_000) / 10_000;

/** Where clips go, along the run and in the vehicle frame. */
export const clipRows = (run: string, clips: RouteResult['clips']): Rows =>
  clips.map(({ atM, position: [x, y, z] }, i) => ({
    run,
    clip: i + 1,
    'along, m': m(atM),
    'ahead, m': m(x),
    'left, m': m(y),
    'up, m': m(z),
  }));

/** A bend card as rows. */
export const bendRows = (tube: string, card: BendCardResult): Rows =>
  card.bends.map((bend) => ({
    tube,
    bend: bend.number,
    'mark at, mm': mm(bend.startMarkMm),
    'middle, mm': mm(bend.centreMarkMm),
    'ends, mm': mm(bend.endMarkMm),
    'set to, °': mm(bend.setAngleDeg),
    'comes out at, °': mm(bend.angleDeg),
    'turn first, ° clockwise': mm(bend.rotationDeg),
    'straight before, mm': mm(bend.straightBeforeMm),
    'tube to cut, mm': mm(card.cutLengthMm),
  }));

/** What is to be cut, piece by piece. */
export const cutTable = (
  rows: readonly {
    tag: string;
    partLabel: string;
    count: number;
    lengthM: number | null;
    now: boolean;
    cutM: number | null;
  }[],
): Rows =>
  rows.map(({ tag, partLabel, count, lengthM, now, cutM }) => ({
    run: tag,
    cable: partLabel,
    pieces: count,
    'each, m': lengthM === null ? '' : m(lengthM),
    when: now ? 'cut now' : 'measure in place',
    'cut, m': cutM === null ? '' : m(cutM),
  }));
