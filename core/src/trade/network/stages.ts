import { touchLimitOf, type Design } from '../../model/document';
import { packLayout, segments } from '../pack';
import { isConductor } from './elements';
import type { DerivedElement, Network } from './network-builder';

/** Moments of the build and of the use, in their order. */
export const stageIds = [
  'bench',
  'boxes',
  'closing',
  'last-link',
  'precharging',
  'driving',
  'charging',
  'dc-charging',
  'shut-down',
  'locked-off',
  'welded-plus',
  'welded-minus',
] as const;
export type StageId = (typeof stageIds)[number];

export interface Stage {
  id: StageId;
  title: string;
  /** What it is, in one sentence. */
  what: string;
  /** Ids of the elements that are open. */
  open: string[];
  /** True when capacitors may hold what they held before. */
  stored: boolean;
}

/** Elements that a person or a coil can open. */
export const canOpen = ({ kind }: Pick<DerivedElement, 'kind'>) => isConductor(kind) && kind !== 'cable';

/** Links to leave out of each string so that no segment exceeds the touch limit, by element id. */
export function linksLeftOut(design: Design, network: Network): string[] {
  return Object.entries(design.strings).flatMap(([id, { modules }]) => {
    const volts = modules.map((module) => {
      const part = design.parts[design.modules[module]?.part ?? ''];
      return part?.kind === 'module' ? part.data.cell.maxV * part.data.cellsInSeries : 0;
    });
    if (volts.length === 0) return [];
    const parsed = segments.parse({ moduleMaxV: volts, limitV: touchLimitOf(design) });
    if (!parsed.ok) return [];
    const joints = new Set(segments.calculate(parsed.input).result.linksToOpen);
    return network.elements
      .filter((one) => one.owner === id && one.joint !== undefined && joints.has(one.joint) && canOpen(one))
      .filter((one, i, all) => all.findIndex((other) => other.joint === one.joint) === i)
      .map((one) => one.id);
  });
}

/** Presets of the what-if: which elements stand open at each stage. */
export function stagesOf(design: Design, network: Network): Stage[] {
  const { elements } = network;
  const open = (test: (element: DerivedElement) => boolean) =>
    elements.filter((element) => canOpen(element) && test(element)).map(({ id }) => id);
  const contactors = open(({ kind }) => kind === 'contactor');
  const withDuty = (...duties: (DerivedElement['duty'] | undefined)[]) =>
    open(({ kind, duty }) => kind === 'contactor' && duties.includes(duty));
  const without = (list: string[], ...taken: string[][]) => {
    const gone = new Set(taken.flat());
    return list.filter((id) => !gone.has(id));
  };
  const disconnects = open(({ kind }) => kind === 'service-disconnect');
  const strings = new Set(Object.keys(design.strings));
  const joints = open(({ owner, joint }) => strings.has(owner) && joint !== undefined);
  const plugs = open(
    ({ kind, owner, joint }) => kind === 'connector' && !(strings.has(owner) && joint !== undefined),
  );
  const links = linksLeftOut(design, network);
  const running = withDuty('precharge', 'inlet');
  const inlet = withDuty('inlet');
  const main = (pole: '+' | '-') => open(({ duty, id }) => duty === 'main' && id.endsWith(pole));
  const strung = withDuty('string').length > 0;
  const stages: Stage[] = [
    {
      id: 'bench',
      title: 'Parts on the bench',
      what: 'Modules by themselves: no link in, nothing plugged, fuses out.',
      open: [
        ...new Set([
          ...joints,
          ...plugs,
          ...disconnects,
          ...contactors,
          ...open(({ kind }) => kind === 'fuse'),
        ]),
      ],
      stored: false,
    },
    {
      id: 'boxes',
      title: 'Boxes in the car, links out',
      what: 'Modules linked in segments below the touch limit; leads not plugged, disconnects out.',
      open: [...new Set([...links, ...plugs, ...disconnects, ...contactors])],
      stored: false,
    },
    {
      id: 'closing',
      title: 'Plugged, links out',
      what: 'Everything plugged; the last links and the disconnects still out.',
      open: [...new Set([...links, ...disconnects, ...contactors])],
      stored: false,
    },
    {
      id: 'last-link',
      title: 'Last link in, mains open',
      what: 'Links and disconnects in, every contactor open.',
      open: contactors,
      stored: false,
    },
    {
      id: 'precharging',
      title: 'First power: pre-charge',
      what: `${strung ? 'String contactors and the' : 'The'} negative main closed; the pre-charge fills the bus.`,
      open: without(
        contactors,
        withDuty('string'),
        main('-'),
        withDuty('precharge').filter((id) => id.startsWith('circuit-main/')),
        main('+').length > 0 ? [] : main('-'),
      ),
      stored: false,
    },
    {
      id: 'driving',
      title: 'Driving',
      what: 'Mains and branches closed; pre-charge and DC inlet open.',
      open: running,
      stored: false,
    },
    {
      id: 'charging',
      title: 'Charging on AC',
      what: 'As driving: the charger feeds the bus through its branch.',
      open: running,
      stored: false,
    },
    ...(inlet.length === 0
      ? []
      : [
          {
            id: 'dc-charging' as const,
            title: 'Charging on DC',
            what: 'The inlet’s contactors are closed too: the station’s cable is live.',
            open: withDuty('precharge'),
            stored: false,
          },
        ]),
    {
      id: 'shut-down',
      title: 'Shut down',
      what: 'Every contactor open; capacitors not yet proved discharged.',
      open: contactors,
      stored: true,
    },
    {
      id: 'locked-off',
      title: 'Locked off',
      what: 'Disconnects out and locked, every contactor open; capacitors not yet proved discharged.',
      open: [...disconnects, ...contactors],
      stored: true,
    },
    ...(['+', '-'] as const)
      .filter((pole) => main(pole).length > 0)
      .map((pole) => ({
        id: pole === '+' ? ('welded-plus' as const) : ('welded-minus' as const),
        title: `Shut down, main ${pole === '+' ? '+' : '−'} welded`,
        what: `${strung ? 'String contactors still closed, one' : 'One'} main has not opened.`,
        open: without(contactors, main(pole), withDuty('string')),
        stored: true,
      })),
  ];
  return stages;
}

/** Voltage that capacitors may still hold: the pack’s highest, by load; for what is live it changes nothing. */
export function storedAtMost(design: Design, network: Network): Record<string, number> {
  const { layout } = packLayout(design);
  if (layout === null) return {};
  const volts = layout.seriesCells * layout.part.data.cell.maxV;
  return Object.fromEntries(
    network.elements
      .filter(({ kind, capacitanceF }) => kind === 'load' && (capacitanceF ?? 0) > 0)
      .map(({ id }) => [id, volts]),
  );
}
