import { gapText } from '../../ground/figure';
import { gates } from '../../record';
import { precautions, type Hazard, type ProcedureStep } from '../commissioning';
import { plate, type SheetContext } from './context';
import type { Sheet, SheetBlock } from './sheet';

/** The blank procedure, gate by gate: expectations, precautions, and room to write by hand. */
export function blankProcedure(context: SheetContext, gate: string | null): Sheet {
  const chosen = gates.filter(({ id }) => gate === null || id === gate);
  const blocks: SheetBlock[] = [plate(context)];
  let first = true;
  for (const { id, title, hv, needs } of chosen) {
    const steps = context.procedure.filter((step) => step.gate === id);
    if (steps.length === 0) continue;
    if (!first) blocks.push({ kind: 'break' });
    first = false;
    blocks.push({ kind: 'heading', text: title });
    if (needs.length > 0)
      blocks.push({
        kind: 'text',
        text: `Opens when these are passed: ${needs.map((one) => gates.find((other) => other.id === one)!.title).join('; ')}.`,
        tone: 'soft',
      });
    for (const hazard of [...new Set(steps.map((step) => step.hazard))]) blocks.push(...careAt(hazard));
    if (hv) blocks.push({ kind: 'hand', labels: ['second person', 'day and time', 'signed'] });
    blocks.push(...stepTable(steps));
    for (const step of steps) blocks.push(...readings(step));
  }
  if (first) blocks.push({ kind: 'text', text: 'This design has no step here yet.' });
  return {
    id: 'procedure',
    title: gate === null ? 'Procedure' : `Procedure: ${chosen[0]?.title ?? gate}`,
    about:
      'What to do and what is expected, with room to write. What is written here is typed into the record.',
    blocks,
  };
}

function careAt(hazard: Hazard): SheetBlock[] {
  const { title, lines } = precautions[hazard];
  return [
    { kind: 'text', text: title, tone: 'warn' },
    { kind: 'list', items: [...lines], tone: 'warn' },
  ];
}

const expectationOf = (step: ProcedureStep) =>
  step.expected === null ? `not computed: ${step.gaps.map(gapText).join('; ')}` : step.expectedText;

/** Several at a step: they are written in a table of their own. */
const hasTable = ({ expected, walk }: ProcedureStep) =>
  walk !== undefined || expected?.kind === 'list' || expected?.kind === 'ladder';

function stepTable(steps: readonly ProcedureStep[]): SheetBlock[] {
  return [
    {
      kind: 'table',
      columns: [
        { title: 'no.', align: 'right' },
        { title: 'step' },
        { title: 'do' },
        { title: 'expected' },
        { title: 'read', handMm: 22 },
        { title: 'by, day', handMm: 22 },
      ],
      rows: steps.map((step, i) => [
        String(i + 1),
        step.title,
        step.do,
        expectationOf(step),
        hasTable(step) ? 'see its table' : '',
        '',
      ]),
    },
  ];
}

/** Where a step asks for many readings: one row for each. */
function readings(step: ProcedureStep): SheetBlock[] {
  const { expected, walk, title } = step;
  const rows =
    walk !== undefined
      ? walk.items.map(({ tag }) => tag)
      : expected?.kind === 'list'
        ? expected.items
        : expected?.kind === 'ladder'
          ? Array.from({ length: expected.cells + expected.tied }, (_, i) =>
              i < expected.cells ? `pin ${i + 2}, cell ${i + 1}` : `pin ${i + 2}, tie`,
            )
          : [];
  if (rows.length === 0) return [];
  return [
    { kind: 'text', text: `${title}: ${expectationOf(step)}`, tone: 'soft' },
    inColumns(rows, expected?.unit ?? ''),
  ];
}

/** Short rows side by side, so that a long list takes no pages: three names and three places to write. */
function inColumns(names: readonly string[], unit: string): SheetBlock {
  const most = Math.max(...names.map(({ length }) => length)) > 40 ? 1 : 3;
  const down = Math.ceil(names.length / most);
  const across = Math.ceil(names.length / down);
  return {
    kind: 'table',
    columns: Array.from({ length: across }, () => [
      { title: 'at' },
      { title: unit === '' ? 'read' : `read, ${unit}`, handMm: 20 },
    ]).flat(),
    rows: Array.from({ length: down }, (_, i) =>
      Array.from({ length: across }, (_none, j) => [names[i + j * down] ?? '', '']).flat(),
    ),
  };
}
