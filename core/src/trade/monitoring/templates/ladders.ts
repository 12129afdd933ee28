import { formatQuantity } from '../../../ground/quantity';
import { touchLimitOf, type Id } from '../../../model/document';
import type { BmsMapResult } from '../bms-map';
import type { explain } from '../explain-ladder';
import { faultWords } from '../ladder-check';
import { harnessOf } from '../map-inputs';
import { plugOrderOf } from '../order-step';
import type { PlugMove } from '../plug-order';
import { packLayout } from '../../pack';
import { defineTemplates, type Builder, type Procedure } from '../../../model/procedure';

const templates = defineTemplates({ 'sense-continuity': {}, 'sense-thermistors': {}, 'sense-ladder': {} });

/** One ladder for each plug of a board, before anything is plugged in. */
function senseLadders(builder: Builder): void {
  for (const string of Object.keys(builder.design.strings)) {
    const run = builder.evaluation.runs[`monitoring.map:${string}`];
    const result = (run?.result ?? null) as BmsMapResult | null;
    if (result === null) continue;
    const { moves } = plugOrderOf(builder.design, string, result.boards);
    for (const board of result.boards) {
      continuity(builder, board);
      thermistors(builder, board.id);
    }
    for (const board of result.boards)
      ladderOf(
        builder,
        board,
        closedFirst(builder, string, moves.find((move) => move.board === board.id) ?? null),
      );
  }
}

/** A wire from tap to pin shows no more than this, Ω. */
const wireOhm = 1;

/** Every wire of a board from its tap to its pin, before either end is connected. */
function continuity(builder: Builder, board: BmsMapResult['boards'][number]): void {
  const { design } = builder;
  if (board.cells.length === 0) return;
  const tag = design.boards?.[board.id]?.tag ?? board.id;
  const wires = harnessOf([board]).filter(({ what }) => what === 'tap' || what === 'reference');
  builder.add({
    gate: 'sense',
    hazard: 'part',
    instrument: 'meter',
    template: templates['sense-continuity'],
    of: board.id,
    title: `Wires of ${tag} from tap to pin`,
    do: `The loom of ${tag} connected at neither end, fuses in, the terminals of modules beside it covered: an ohmmeter never meets a cell. Read each wire from its tap to its pin, and from that pin to the pins beside it, which must show none: the sheet of the sense harness has a column for that.`,
    why: 'A wire in the wrong cavity is found with an ohmmeter before there is a voltage behind it.',
    subjects: [{ id: board.id, tag }],
    touchedBy: [board.id],
    range: {
      kind: 'list',
      items: wires.map(
        ({ pin, module, tap }) => `pin ${pin}, ${design.modules[module]?.tag ?? module} tap ${tap}`,
      ),
      max: wireOhm,
      unit: 'Ω',
    },
    gaps: [],
    basis: [
      builder.row(`sense:${board.id}:cells`, `cells of ${tag}`, board.cells.length, ''),
      builder.row(`sense:${board.id}:first`, `first cell of ${tag}`, board.cells[0]!.cell, ''),
      builder.row(`sense:${board.id}:wires`, `wires of ${tag}`, wires.length, ''),
    ],
  });
}

/** A thermistor in a shop lies between these shares of its value at 25 °C: from about 3 °C to 45 °C; of one board, no further apart. */
const thermistorShare = { least: 0.4, most: 3, apart: 0.2 };

/** The sensors of a board at its plug, before anything is plugged in. */
function thermistors(builder: Builder, board: Id): void {
  const { design } = builder;
  const own = Object.entries(design.sensors ?? {}).filter(([, sensor]) => sensor.board === board);
  if (own.length === 0) return;
  const tag = design.boards?.[board]?.tag ?? board;
  const ohm = design.sensing?.sensorOhm;
  const items = own.map(([, sensor]) => sensor.tag);
  builder.add({
    gate: 'sense',
    hazard: 'part',
    instrument: 'meter',
    template: templates['sense-thermistors'],
    of: board,
    title: `Sensors of ${tag} at its plug`,
    do: `The pack rested at one temperature. Plug of ${tag} not plugged in: read the resistance of each sensor at its pins, in this order: ${items.join(', ')}; then, on a range for volts, each to the reference of the plug: no voltage that holds, for a sensor touches no cell.`,
    why: 'A sensor that is open, shorted or pinched to a tap is found before the monitor hears of it, or burns of it.',
    subjects: [{ id: board, tag }],
    touchedBy: [board, ...own.map(([id]) => id)],
    range: {
      kind: 'list',
      items,
      min: (ohm ?? 0) * thermistorShare.least,
      max: (ohm ?? 0) * thermistorShare.most,
      withinOfMiddle: (ohm ?? 0) * thermistorShare.apart,
      unit: 'Ω',
    },
    gaps:
      ohm === undefined
        ? [
            {
              kind: 'not-given',
              path: 'sensing.sensorOhm',
              label: 'resistance of the temperature sensors at 25 °C',
            },
          ]
        : [],
    basis: [
      builder.row(`sense:${board}:sensors`, `sensors of ${tag}`, own.length, ''),
      builder.row(`sense:${board}:sensorOhm`, 'sensors at 25 °C', ohm ?? 0, 'Ω'),
    ],
  });
}

/** What is asked before a plug that reads on both sides of a joint which stays out until the end. */
interface ClosedFirst {
  words: string;
  /** All that hangs together then, at the cells’ highest. */
  segmentV: number;
  joints: number[];
}

/** Which closures come first, what hangs together then, and what holds until one is opened again; null: no joint lies between. */
function closedFirst({ design }: Builder, string: Id, move: PlugMove | null): ClosedFirst | null {
  if (move === null || move.waitedFor.length === 0) return null;
  const { modules, disconnectAt } = design.strings[string]!;
  const tag = (place: number) => design.modules[modules[place - 1]!]?.tag ?? `${place}`;
  const [from, to] = move.segment;
  const segmentV = modules.slice(from - 1, to).reduce((sum, id) => {
    const part = design.parts[design.modules[id]?.part ?? ''];
    return sum + (part?.kind === 'module' ? part.data.cell.maxV * part.data.cellsInSeries : 0);
  }, 0);
  const joints = move.waitedFor.map(
    (joint) =>
      `${joint === disconnectAt ? 'the service disconnect' : `link ${joint}`} between ${tag(joint)} and ${tag(joint + 1)}`,
  );
  return {
    segmentV,
    joints: move.waitedFor,
    words: `Its cells lie on both sides of ${joints.join(' and ')}: ${joints.length === 1 ? 'that is' : 'those are'} closed first, ${
      segmentV > touchLimitOf(design)
        ? `in rated gloves with a second person; from then on ${tag(from)} to ${tag(to)} hang together, up to ${formatQuantity(segmentV, 'V')}`
        : `then ${tag(from)} to ${tag(to)} hang together`
    }; what is still out stays out. Then the ladder, then the plug; before ${joints.length === 1 ? 'that one is' : 'one of those is'} opened again this plug is out.`,
  };
}

function ladderOf(builder: Builder, board: BmsMapResult['boards'][number], first: ClosedFirst | null): void {
  const { design } = builder;
  const { layout } = packLayout(design);
  if (layout === null || board.cells.length === 0) return;
  const item = design.boards?.[board.id];
  const tag = item?.tag ?? board.id;
  const cells = board.cells.length;
  const { minV, maxV } = layout.part.data.cell;
  const wires = harnessOf([board]);
  const modules = [...new Set(board.cells.map(({ module }) => module))];
  builder.add({
    gate: 'sense',
    hazard: Math.max(cells * maxV, first?.segmentV ?? 0) > touchLimitOf(design) ? 'part-hv' : 'part',
    instrument: 'meter',
    template: templates['sense-ladder'],
    of: board.id,
    title: `Ladder of ${tag}`,
    do: `${first === null ? '' : `${first.words} `}Plug of ${tag} not plugged in, the links of its segment closed as they will be. Black lead on pin 1, its reference; read every pin from 2 on in order, ${cells} cells${board.tiedChannels.length === 0 ? '' : ` and ${board.tiedChannels.length} ties`}. Never across a link that is open.`,
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
      builder.row(`sense:${board.id}:first`, `first cell of ${tag}`, board.cells[0]!.cell, ''),
      ...(first?.joints ?? []).map((joint) =>
        builder.row(
          `sense:${board.id}:joint-${joint}`,
          `joint that is closed before ${tag} goes in`,
          joint,
          '',
        ),
      ),
      builder.row(`sense:${board.id}:wires`, `wires of ${tag}`, wires.length, ''),
      builder.row(`sense:${board.id}:minV`, 'cell at least', minV, 'V'),
      builder.row(`sense:${board.id}:maxV`, 'cell at most', maxV, 'V'),
    ],
  });
}

export const laddersProcedure: Procedure = { templates, steps: senseLadders };

/** A fault in words, by pins of the plug: its reference is pin 1. */
export function faultText({ kind, taps }: ReturnType<typeof explain>[number]): string {
  if (kind === 'unknown') return faultWords.unknown;
  const pins = taps.map((tap) => tap + 1).join(' and ');
  if (kind === 'low-cell' || kind === 'high-cell') return `cell ${taps.join(', ')}: ${faultWords[kind]}`;
  if (kind === 'reversed') return faultWords.reversed;
  return `pin ${pins}: ${faultWords[kind]}`;
}
