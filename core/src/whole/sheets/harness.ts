import { formatNumber } from '../../ground/quantity';
import { continuitySheet } from '../../trade/low-voltage';
import { harnessOf, senseLengthM, type BmsMapResult } from '../../trade/monitoring';
import { findings, hvWord, type SheetContext } from './context';
import type { Sheet, SheetBlock } from './sheet';

const n = (value: number | null) => (value === null ? '—' : formatNumber(value, 3));

/** Every wire of the looms from pin to pin, with what it must be parted from. */
export function loomSheet(context: SheetContext): Sheet {
  const lines = continuitySheet(context.design);
  return {
    id: 'looms',
    title: 'Continuity of the looms',
    about:
      'Nothing plugged in: below 1 Ω from pin to pin; no path to the neighbours named, and none to the chassis but through a ground.',
    blocks: [
      {
        kind: 'table',
        columns: [
          { title: 'wire' },
          { title: 'from' },
          { title: 'pin', align: 'right' },
          { title: 'to' },
          { title: 'pin', align: 'right' },
          { title: 'colour' },
          { title: 'mm²', align: 'right' },
          { title: 'm', align: 'right' },
          { title: 'parted from' },
          { title: 'joined', handMm: 13 },
          { title: 'parted', handMm: 13 },
        ],
        rows: lines.map((line) => [
          line.tag,
          line.from,
          line.fromPin === null ? '' : String(line.fromPin),
          line.to,
          line.toPin === null ? '' : String(line.toPin),
          line.colour,
          n(line.areaMm2),
          n(line.lengthM),
          line.apartFrom.join(', '),
          '',
          '',
        ]),
      },
      { kind: 'hand', labels: ['meter and calibration', 'day', 'signed'] },
      ...findings(context, ['charge']),
    ],
  };
}

/** Every sense wire from its tap to its pin, and the links between boards. */
export function senseSheet(context: SheetContext): Sheet {
  const { design, evaluation } = context;
  const blocks: SheetBlock[] = [hvWord];
  for (const string of Object.keys(design.strings)) {
    const result = (evaluation.runs[`monitoring.map:${string}`]?.result ?? null) as BmsMapResult | null;
    if (result === null) continue;
    for (const board of result.boards) {
      const tag = design.boards?.[board.id]?.tag ?? board.id;
      blocks.push({ kind: 'heading', text: `${tag}, string ${design.strings[string]!.tag}` });
      blocks.push({
        kind: 'table',
        columns: [
          { title: 'pin', align: 'right' },
          { title: 'from' },
          { title: 'what' },
          { title: 'colour' },
          { title: 'm', align: 'right' },
          { title: 'joined', handMm: 14 },
          { title: 'apart from pin', align: 'right' },
          { title: 'V, to pin 1', handMm: 22 },
        ],
        rows: harnessOf([board]).map((wire, i, all) => {
          const said = design.senseWires?.[wire.id];
          return [
            String(wire.pin),
            `${design.modules[wire.module]?.tag ?? wire.module}, tap ${wire.tap}`,
            wire.what,
            said?.colour ?? '',
            n(
              wire.what === 'tap' || wire.what === 'reference'
                ? senseLengthM(design, wire.id)
                : (said?.lengthM ?? null),
            ),
            '',
            [all[i - 1]?.pin, all[i + 1]?.pin].filter((pin) => pin !== undefined).join(', '),
            wire.pin === 1 ? 'reference' : '',
          ];
        }),
      });
    }
  }
  if (blocks.length === 1)
    blocks.push({
      kind: 'text',
      text: 'No board reads a cell yet; donor boards in their modules need no harness.',
    });
  blocks.push({ kind: 'hand', labels: ['meter and calibration', 'day', 'signed'] });
  blocks.push(...findings(context, ['sense']));
  return {
    id: 'sense',
    title: 'Sense harness',
    about:
      'Every wire from tap to pin: continuity before it is at the modules, then the ladder before it is at the boards.',
    blocks,
  };
}
