import { figureId, gapText } from '../../ground/figure';
import { formatQuantity } from '../../ground/quantity';
import { hvWord, findings, type SheetContext } from './context';
import type { Sheet, SheetBlock } from './sheet';

/** The way along every joint: what it is torqued to, a place for what was drawn, the mark, and who. */
export function torqueWalk(context: SheetContext): Sheet {
  const steps = context.procedure.filter(({ walk }) => walk?.work === 'torque');
  const blocks: SheetBlock[] = [hvWord];
  for (const step of steps) {
    const { expected, walk, gaps } = step;
    blocks.push({ kind: 'heading', text: step.title });
    blocks.push({
      kind: 'text',
      text:
        expected?.kind === 'range' && expected.nominal !== undefined
          ? `${formatQuantity(expected.nominal, 'N·m')} with a wrench in calibration: ${step.expectedText}.`
          : `Torque not given: ${gaps.map(gapText).join('; ')}. Nothing is tightened by guess.`,
      ...(expected === null && { tone: 'warn' as const }),
    });
    blocks.push(walkTable(walk!.items, ['N·m', 'marked', 'drop, mV', 'by, day']));
  }
  if (steps.length === 0) blocks.push({ kind: 'text', text: 'This design has no joint yet.' });
  blocks.push({
    kind: 'hand',
    labels: ['wrench, serial and calibration', 'current of the drops, A', 'signed'],
  });
  blocks.push(...findings(context, ['protect']));
  return {
    id: 'torques',
    title: 'Torque walk',
    about:
      'Every joint of high voltage, kind by kind; what is written here is recorded in Protect as a walk.',
    blocks,
  };
}

/** The way along every conductive body, measured to the chassis. */
export function bondWalk(context: SheetContext): Sheet {
  const step = context.procedure.find(({ id }) => id === 'bonds:chassis');
  const { design } = context;
  const blocks: SheetBlock[] = [hvWord];
  if (step?.walk === undefined || step.walk.items.length === 0)
    blocks.push({ kind: 'text', text: 'This design has no body to bond yet.' });
  else {
    blocks.push({ kind: 'text', text: `${step.do} Expected: ${step.expectedText}.` });
    blocks.push({
      kind: 'table',
      columns: [
        { title: 'body' },
        { title: 'to' },
        { title: 'computed', align: 'right' },
        { title: 'read, mΩ', handMm: 24 },
        { title: 'by, day', handMm: 28 },
      ],
      rows: step.walk.items.map(({ id, tag }) => {
        const bond = design.bonds?.[id];
        const to = bond?.to;
        const figure = context.evaluation.figures[figureId('bonding.body', id, 'pathOhm')];
        return [
          tag,
          to === undefined ? 'chassis' : (design.boxes[to]?.tag ?? design.devices[to]?.tag ?? to),
          figure?.value == null ? '—' : formatQuantity(figure.value, 'Ω'),
          '',
          '',
        ];
      }),
    });
  }
  blocks.push({ kind: 'hand', labels: ['instrument and calibration', 'current, A', 'signed'] });
  blocks.push(...findings(context, ['protect']));
  return {
    id: 'bonds',
    title: 'Bond walk',
    about: 'Every conductive body to the chassis; what is written here is recorded in Protect as a walk.',
    blocks,
  };
}

const walkTable = (items: readonly { tag: string }[], hand: string[]): SheetBlock => ({
  kind: 'table',
  columns: [{ title: 'joint' }, ...hand.map((title) => ({ title, handMm: title === 'by, day' ? 26 : 16 }))],
  rows: items.map(({ tag }) => [tag, ...hand.map(() => '')]),
});
