import { touchLimitOf } from '../../model/document';
import type { explain } from '../../trade/monitoring';
import { faultWords, harnessOf, type BmsMapResult } from '../../trade/monitoring';
import { packLayout } from '../../trade/pack';
import type { Builder } from './procedure-builder';

/** One ladder for each plug of a board, before anything is plugged in. */
export function senseLadders(builder: Builder): void {
  for (const string of Object.keys(builder.design.strings)) {
    const run = builder.evaluation.runs[`monitoring.map:${string}`];
    const result = (run?.result ?? null) as BmsMapResult | null;
    if (result === null) continue;
    for (const board of result.boards) ladderOf(builder, board);
  }
}

function ladderOf(builder: Builder, board: BmsMapResult['boards'][number]): void {
  const { design } = builder;
  const { layout } = packLayout(design);
  if (layout === null || board.cells.length === 0) return;
  const item = design.boards?.[board.id];
  const tag = item?.tag ?? board.id;
  const cells = board.cells.length;
  const { minV, maxV } = layout.part.data.cell;
  const wires = harnessOf([board]);
  const modules = [...new Set(board.cells.map(({ module }) => module))];
  const first = board.cells[0]!;
  builder.add({
    gate: 'sense',
    hazard: cells * maxV > touchLimitOf(design) ? 'part-hv' : 'part',
    instrument: 'meter',
    id: `sense-ladder:${board.id}`,
    title: `Ladder of ${tag}`,
    do: `Plug of ${tag} not plugged in, the links of its segment closed as they will be. Black lead on pin 1, its reference; read every pin from 2 on in order, ${cells} cells${board.tiedChannels.length === 0 ? '' : ` and ${board.tiedChannels.length} ties`}. Never across a link that is open.`,
    why: 'A wire one pin off puts the voltage of several cells on one input: the board is gone, or burns.',
    subjects: [{ id: board.id, tag }],
    touchedBy: [board.id, ...modules],
    range: {
      kind: 'ladder',
      cells,
      cellMinV: minV,
      cellMaxV: maxV,
      tied: board.tiedChannels.length,
      unit: 'V',
    },
    gaps: [],
    basis: [
      builder.row(`sense:${board.id}:cells`, `cells of ${tag}`, cells, ''),
      builder.row(`sense:${board.id}:first`, `first cell of ${tag}`, first.cell, ''),
      builder.row(`sense:${board.id}:wires`, `wires of ${tag}`, wires.length, ''),
      builder.row(`sense:${board.id}:minV`, 'cell at least', minV, 'V'),
      builder.row(`sense:${board.id}:maxV`, 'cell at most', maxV, 'V'),
    ],
  });
}

/** A fault in words, by pins of the plug: its reference is pin 1. */
export function faultText({ kind, taps }: ReturnType<typeof explain>[number]): string {
  if (kind === 'unknown') return faultWords.unknown;
  const pins = taps.map((tap) => tap + 1).join(' and ');
  if (kind === 'low-cell' || kind === 'high-cell') return `cell ${taps.join(', ')}: ${faultWords[kind]}`;
  if (kind === 'reversed') return faultWords.reversed;
  return `pin ${pins}: ${faultWords[kind]}`;
}
