import { formatNumber } from '../../ground/quantity';
import type { Id } from '../../model/document';
import { deriveNetwork, type DerivedElement, type Network } from '../../trade/network';
import { findings, hvWord, type SheetContext } from './context';
import type { Sheet, SheetBlock } from './sheet';

const kindWords: Partial<Record<DerivedElement['kind'], string>> = {
  module: 'module',
  link: 'link',
  fuse: 'fuse',
  contactor: 'contactor',
  resistor: 'resistor',
  'service-disconnect': 'service disconnect',
  connector: 'plug',
  load: 'device',
};

/** Where an element’s other end goes: the neighbours that share a terminal with it. */
const beside = (network: Network, element: DerivedElement, terminal: string) =>
  network.elements
    .filter((one) => one.id !== element.id && (one.a === terminal || one.b === terminal))
    .map(({ tag }) => tag);

/** What sits in a box, in the order of its terminals, and what comes through its walls. */
export function boxSheet(context: SheetContext, box: Id): Sheet {
  const { design } = context;
  const network = deriveNetwork(design);
  const tag = design.boxes[box]?.tag ?? box;
  const inside = network.elements.filter(({ reach }) => reach === box);
  const terminals = new Set(inside.flatMap(({ a, b }) => [a, b]));
  const through = network.elements.filter(
    (one) => one.kind === 'cable' && one.reach !== box && (terminals.has(one.a) || terminals.has(one.b)),
  );
  const boards = Object.values(design.boards ?? {}).filter((board) => board.box === box);
  const partOf = (element: DerivedElement): string => {
    // A symbol may stand for several modules: their kind is said instead.
    if (element.kind === 'module') {
      const kind = design.parts[design.modules[element.id]?.part ?? ''];
      return kind === undefined ? 'kind not given' : kind.label;
    }
    const symbol = network.symbols.find(({ elements }) => elements.includes(element.id));
    return symbol?.rating ?? '';
  };
  const wallWords = { interlocked: 'plug, interlocked', plain: 'plug', gland: 'gland' };
  const blocks: SheetBlock[] = [
    hvWord,
    { kind: 'heading', text: 'Inside, from terminal to terminal' },
    {
      kind: 'table',
      columns: [
        { title: 'no.', align: 'right' },
        { title: 'what' },
        { title: 'name' },
        { title: 'rating' },
        { title: 'one end at' },
        { title: 'other end at' },
        { title: 'fitted', handMm: 18 },
      ],
      rows: inside.map((one, i) => [
        String(i + 1),
        kindWords[one.kind] ?? one.kind,
        one.tag,
        one.kind === 'link' ? '' : partOf(one),
        beside(network, one, one.a).join(', ') || 'nothing',
        beside(network, one, one.b).join(', ') || 'nothing',
        '',
      ]),
    },
    { kind: 'heading', text: 'Through its walls' },
  ];
  if (through.length === 0 && boards.length === 0)
    blocks.push({ kind: 'text', text: 'No high-voltage cable passes its walls.' });
  else
    blocks.push({
      kind: 'table',
      columns: [
        { title: 'cable' },
        { title: 'by' },
        { title: 'gland or plug' },
        { title: 'inside at' },
        { title: 'fitted', handMm: 18 },
      ],
      rows: [
        ...through.map((one) => {
          const circuit = design.circuits[one.owner];
          const part = one.ends === 'gland' ? circuit?.gland : circuit?.plug;
          return [
            one.tag,
            one.ends === undefined ? 'not said' : wallWords[one.ends],
            part === undefined ? '—' : (design.parts[part]?.label ?? part),
            [...new Set([one.a, one.b])]
              .filter((terminal) => terminals.has(terminal))
              .flatMap((terminal) => beside(network, one, terminal))
              .join(', '),
            '',
          ];
        }),
        ...boards.map((board) => [
          `supply and link of ${board.tag}`,
          'low voltage, apart from high voltage',
          '—',
          board.tag,
          '',
        ]),
      ],
    });
  const { lengthM, widthM, heightM } = design.boxes[box]!;
  const size = [lengthM, widthM, heightM].map((one) =>
    one === undefined ? '?' : formatNumber(one * 1000, 4),
  );
  blocks.unshift({
    kind: 'facts',
    rows: [
      ['box', tag],
      ['inside', `${size.join(' × ')} mm`],
      [
        'in it',
        `${inside.filter(({ kind }) => kind === 'module').length} modules, ${inside.length} pieces in all`,
      ],
    ],
  });
  blocks.push({ kind: 'hand', labels: ['closed by', 'day', 'signed'] });
  blocks.push(...findings(context, ['pack', 'protect']).filter((block) => mentions(block, tag)));
  return {
    id: 'box',
    title: `Box sheet: ${tag}`,
    about: 'What sits in it, in which order, and what comes in.',
    blocks,
  };
}

/** Of the findings only those that name the box. */
function mentions(block: SheetBlock, tag: string): boolean {
  if (block.kind !== 'table') return block.kind === 'heading';
  block.rows = block.rows.filter((row) => row.some((cell) => cell.includes(tag)));
  if (block.rows.length === 0) block.rows = [['—', 'None names this box.', '', '']];
  return true;
}
