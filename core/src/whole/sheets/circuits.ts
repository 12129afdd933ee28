import { figureId } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import type { Design, Id } from '../../model/document';
import { bare, findings, hvWord, plate, type SheetContext } from './context';
import type { Sheet, SheetBlock } from './sheet';

const partOf = ({ parts }: Pick<Design, 'parts'>, key: string | undefined) =>
  key === undefined ? 'none' : (parts[key]?.label ?? key);
const n = (value: number | undefined, digits = 3) =>
  value === undefined ? '—' : formatNumber(value, digits);

const installWords = (context: SheetContext, id: Id): string => {
  const { install, stretches = [] } = context.design.circuits[id]!;
  if (stretches.length > 1) return `${stretches.length} parts`;
  return (stretches[0]?.install ?? install ?? '—').replace('-', ' ');
};

/** Less than the paper tells is nothing. */
function percent(context: SheetContext, id: Id): string {
  const value = context.evaluation.figures[figureId('conductor.cable', id, 'dropFraction')]?.value;
  return value == null ? '?' : value < 5e-5 ? '< 0.01' : formatNumber(value * 100, 2);
}

/** Every circuit with load, cable, fuse and contactors: what hangs beside the bench while the car is wired. */
export function circuitSchedule(context: SheetContext): Sheet {
  const { design } = context;
  const ids = Object.keys(design.circuits);
  const tags = (id: Id) => design.circuits[id]!.tag;
  const deviceOf = (id: Id) => {
    const { device, role } = design.circuits[id]!;
    return device === undefined ? (role === 'main' ? 'inverter' : '—') : (design.devices[device]?.tag ?? '—');
  };
  const blocks: SheetBlock[] = [
    plate(context),
    hvWord,
    { kind: 'heading', text: 'Loads and cables' },
    {
      kind: 'table',
      columns: [
        { title: 'circuit' },
        { title: 'feeds' },
        { title: 'load, A', align: 'right' },
        { title: 'peak, A', align: 'right' },
        { title: 'cable' },
        { title: 'one way, m', align: 'right' },
        { title: 'laid' },
        { title: 'carries, A', align: 'right' },
        { title: 'conductor, °C', align: 'right' },
        { title: 'drop, %', align: 'right' },
      ],
      rows: ids.map((id) => [
        tags(id),
        deviceOf(id),
        bare(context, figureId('network.load', id, 'rmsA')),
        bare(context, figureId('network.load', id, 'peakA')),
        partOf(design, design.circuits[id]!.cable),
        n(design.circuits[id]!.lengthM),
        installWords(context, id),
        bare(context, figureId('conductor.cable', id, 'ampacityA')),
        bare(context, figureId('conductor.cable', id, 'conductorTemperatureC')),
        percent(context, id),
      ]),
    },
    { kind: 'heading', text: 'Fuses, contactors and ends' },
    {
      kind: 'table',
      columns: [
        { title: 'circuit' },
        { title: 'fuse' },
        { title: 'most it breaks, A', align: 'right' },
        { title: 'clears least fault, s', align: 'right' },
        { title: 'contactors' },
        { title: 'sits in' },
        { title: 'lugs' },
        { title: 'gland' },
        { title: 'plug' },
      ],
      rows: ids.map((id) => {
        const { fuse, contactor, box, lug, gland, plug } = design.circuits[id]!;
        const boxId = box ?? design.pack.mainsBox;
        return [
          tags(id),
          partOf(design, fuse),
          bare(context, figureId('fuse.fault', `${id}/largest`, 'prospectiveA')),
          bare(context, figureId('fuse.main', id, 'clearAtMinS')),
          partOf(design, contactor),
          boxId === undefined ? '—' : (design.boxes[boxId]?.tag ?? '—'),
          partOf(design, lug),
          partOf(design, gland),
          partOf(design, plug),
        ];
      }),
    },
    ...findings(context, ['network', 'protect']),
  ];
  return {
    id: 'circuits',
    title: 'Circuit schedule',
    about: 'Every circuit with its load, cable, fuse, contactors and ends.',
    blocks,
  };
}
