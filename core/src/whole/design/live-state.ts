import { touchLimitOf, type Design, type Id } from '../../model/document';
import {
  deriveNetwork,
  liveMap,
  storedAtMost,
  type DerivedElement,
  type LiveMapResult,
  type Network,
} from '../../trade/network';
import type { ProcedureStep } from '../commissioning';
import { isStepOf } from '../../model/procedure';
import { boardMapOf, spanOf } from '../../trade/monitoring';
import { provesDead } from '../../trade/precharge';
import { formatNumber } from '../../ground/quantity';
import { positionText, type Entry, type EntryOf, type PositionBody, type PositionSum } from '../../record';

/** Sums up which elements stand open: joints of strings, disconnects, mains. */
export function sumOfPosition(network: Network, open: readonly string[]): PositionSum {
  const isOpen = new Set(open);
  const joints = new Set<string>();
  let disconnects = 0;
  for (const { id, kind, owner, joint } of network.elements) {
    if (!isOpen.has(id) || joint === undefined) continue;
    if (kind === 'service-disconnect') disconnects += 1;
    else joints.add(`${owner}/${joint}`);
  }
  const contactors = network.elements.filter(({ kind }) => kind === 'contactor');
  const mains = contactors.filter(({ duty }) => duty === 'main');
  const judged = mains.length > 0 ? mains : contactors.filter(({ duty }) => duty === 'string');
  return {
    linksOut: joints.size,
    serviceDisconnect: disconnects > 0 ? 'out' : 'in',
    mains: judged.some(({ id }) => !isOpen.has(id)) ? 'closed' : 'open',
  };
}

/** Which elements a position leaves open; what it does not name is taken as closed, the worse case. */
export function openElements(network: Network, body: PositionBody): string[] {
  if (body.open !== undefined) return body.open;
  return network.elements
    .filter(
      ({ kind, duty }) =>
        (kind === 'service-disconnect' && body.serviceDisconnect === 'out') ||
        (kind === 'contactor' && (body.mains === 'open' || duty === 'precharge')),
    )
    .map(({ id }) => id);
}

/** The live map of a network with these elements open. */
export function liveMapOf(
  network: Network,
  open: Iterable<string>,
  storedV: Record<string, number> = {},
): LiveMapResult {
  const isOpen = new Set(open);
  const elements = network.elements.map((element) => ({ ...element, closed: !isOpen.has(element.id) }));
  return liveMap.calculate({ elements, storedV }).result;
}

/** Devices with voltage across them, above the touch limit. */
function chargedLoads(network: Network, map: LiveMapResult, limitV: number): Id[] {
  return network.elements
    .filter(
      (element): element is DerivedElement => element.kind === 'load' && (element.capacitanceF ?? 0) > 0,
    )
    .filter(({ a, b }) => {
      const from = map.terminals[a]?.potentialV ?? null;
      const to = map.terminals[b]?.potentialV ?? null;
      return from !== null && to !== null && Math.abs(to - from) > limitV;
    })
    .map(({ id }) => id);
}

/** Results that prove the bus dead. */
const provedDead = ({ body }: Entry) =>
  body.kind === 'result' &&
  body.verdict === 'pass' &&
  provesDead.some((template) => isStepOf(template, body.step));

/**
 * Devices that may still hold charge when a new position is recorded: what was live or charged before, and has not
 * been proved dead since.
 */
export function storedAfter(
  design: Design,
  network: Network,
  before: EntryOf<PositionBody> | null,
  entries: readonly Entry[],
): Id[] {
  if (before === null) return [];
  if (entries.some((entry) => entry.seq > before.seq && provedDead(entry))) return [];
  const map = liveMapOf(network, openElements(network, before.body));
  const charged = chargedLoads(network, map, touchLimitOf(design));
  return [...new Set([...(before.body.stored ?? []), ...charged])];
}

export type LiveShape = 'unknown' | 'open' | 'pack' | 'bus' | 'stored';

/** The vehicle as last recorded, and what follows from it. */
export interface LiveState {
  shape: LiveShape;
  text: string;
  /** The highest voltage within one box or outside, in words; empty where none is computed. */
  detail: string;
  /** Ids of open elements. */
  open: string[];
  stored: Id[];
  /** Elements of the record that the design no longer has. */
  gone: number;
  /** Boards whose sense plugs are in; null: nobody said. */
  plugged: Id[] | null;
  /** Of these, those that read on both sides of something that stands open. */
  pluggedOver: { board: Id; joint: number }[];
  /** Boxes whose lids are off; null: nobody said. */
  lidsOff: Id[] | null;
}

const shapeOf = (body: PositionSum): LiveShape => {
  if (body.linksOut > 0 || body.serviceDisconnect === 'out') return 'open';
  return body.mains === 'open' ? 'pack' : 'bus';
};

/**
 * What the last position entry means for the design as it is now.
 *
 * @param entries the entries that still matter, in order
 */
export function liveStateOf(
  design: Design,
  position: EntryOf<PositionBody> | null,
  entries: readonly Entry[],
): LiveState {
  if (position === null)
    return {
      shape: 'unknown',
      text: 'State not recorded',
      detail: 'treat as live',
      open: [],
      stored: [],
      gone: 0,
      plugged: null,
      pluggedOver: [],
      lidsOff: null,
    };
  const { body } = position;
  const network = deriveNetwork(design);
  const open = openElements(network, body);
  const known = new Set(network.elements.map(({ id }) => id));
  const proved = entries.some((entry) => entry.seq > position.seq && provedDead(entry));
  const most = storedAtMost(design, network);
  const stored = proved ? [] : (body.stored ?? []).filter((id) => most[id] !== undefined);
  const map = liveMapOf(network, open, Object.fromEntries(stored.map((id) => [id, most[id]!])));
  const charged = stored.filter((id) => {
    const load = network.elements.find((one) => one.id === id);
    return load !== undefined && map.terminals[load.a]?.state === 'stored';
  });
  const shape = shapeOf(body);
  const plugged = body.plugged?.filter((id) => design.boards?.[id] !== undefined) ?? null;
  const lidsOff = body.lidsOff?.filter((id) => design.boxes[id] !== undefined) ?? null;
  const over = pluggedOverOpen(design, network, open, plugged ?? []);
  const overText =
    over.length === 0
      ? ''
      : `, ${design.boards![over[0]!.board]!.tag} plugged over the open link ${over[0]!.joint}${over.length > 1 ? ` and ${over.length - 1} more` : ''}`;
  const lidText =
    lidsOff === null || lidsOff.length === 0
      ? ''
      : `, lid of ${design.boxes[lidsOff[0]!]!.tag}${lidsOff.length > 1 ? ` and ${lidsOff.length - 1} more` : ''} off`;
  const also = `${overText}${lidText}`;
  return {
    plugged,
    pluggedOver: over,
    lidsOff,
    shape: charged.length > 0 && shape !== 'bus' ? 'stored' : shape,
    text:
      charged.length > 0 && shape !== 'bus'
        ? `${positionText(body)}, bus not proved dead${also}`
        : `${positionText(body)}${also}`,
    detail: highestText(design, map),
    open,
    stored: charged,
    gone: open.filter((id) => !known.has(id)).length,
  };
}

/** What the record says against a step that charges a live vehicle: a box stands open beside it; null: nothing. */
export function openBoxBeside(
  { gate, hazard }: Pick<ProcedureStep, 'gate' | 'hazard'>,
  design: Pick<Design, 'boxes'>,
  position: Pick<EntryOf<PositionBody>, 'body'> | null,
): string | null {
  if (gate !== 'charging' || hazard !== 'live') return null;
  const off = (position?.body.lidsOff ?? []).flatMap((id) => design.boxes[id]?.tag ?? []);
  return off.length === 0
    ? null
    : `By the record the lid of ${off.join(' and of ')} is off: nothing is charged beside an open box. Put it on, and record the state.`;
}

/** Boards in their sockets with something open between the cells that they read. */
function pluggedOverOpen(
  design: Design,
  network: Network,
  open: readonly string[],
  plugged: readonly Id[],
): LiveState['pluggedOver'] {
  if (plugged.length === 0) return [];
  const isOpen = new Set(open);
  return Object.keys(design.strings).flatMap((string) => {
    const joints = [
      ...new Set(
        network.elements.flatMap(({ id, owner, joint }) =>
          owner === string && joint !== undefined && isOpen.has(id) ? [joint] : [],
        ),
      ),
    ];
    const { boards } = boardMapOf(design, string);
    return (boards ?? [])
      .filter(({ id, cells }) => plugged.includes(id) && cells.length > 0)
      .flatMap((board) => {
        const [from, to] = spanOf(board, design.strings[string]!.modules);
        return joints
          .filter((joint) => joint >= from && joint < to)
          .map((joint) => ({ board: board.id, joint }));
      });
  });
}

function highestText(design: Design, map: LiveMapResult): string {
  const [reach, most] = Object.entries(map.reaches).reduce<[string, number]>(
    (best, [name, { maxVoltageV }]) => (maxVoltageV > best[1] + 1e-9 ? [name, maxVoltageV] : best),
    ['', 0],
  );
  if (most <= 0) return '';
  return `up to ${formatNumber(most, 3)} V ${design.boxes[reach] === undefined ? 'outside the boxes' : `in ${design.boxes[reach].tag}`}`;
}
