import { list, number, oneOf, text } from '@torvek/core/shape';
import { storedAfter, sumOfPosition } from '@torvek/core/design';
import { canOpen, deriveNetwork } from '@torvek/core/network';
import type { Entry, PositionBody } from '@torvek/core/record';
import { invalidInput } from '../../http/errors';
import { defineJudge, type Bench } from '../court';

export interface PositionRequest {
  kind: 'position';
  /** Either what stands open, element by element … */
  open?: string[];
  /** … or in sum. */
  linksOut?: number;
  serviceDisconnect?: 'out' | 'in';
  mains?: 'open' | 'closed';
  /** Boards whose sense plugs are in; absent: as they were. */
  plugged?: string[];
  /** Boxes whose lids are off; absent: as they were. */
  lidsOff?: string[];
  remark?: string;
}

export const position = defineJudge<PositionRequest>({
  fields: {
    open: list.optional(text(160), { maxRows: 5000 }),
    linksOut: number.optional({ min: 0, max: 10_000, integer: true }),
    serviceDisconnect: oneOf.optional(['out', 'in']),
    mains: oneOf.optional(['open', 'closed']),
    plugged: list.optional(text(160), { maxRows: 1000 }),
    lidsOff: list.optional(text(160), { maxRows: 1000 }),
    remark: text.optional(2000),
  },
  cross(request, issue) {
    for (const field of ['linksOut', 'serviceDisconnect', 'mains'] as const)
      if ((request[field] === undefined) !== (request.open !== undefined))
        issue(field, request.open === undefined ? 'is required' : 'follows from open: leave it out');
  },
  judge: ({ request, bench }) => ({ body: positionOf(request, bench) }),
});

/** What stands open on the vehicle: element by element, judged by the network of the saved design, or in sum. */
function positionOf(
  {
    open,
    linksOut = 0,
    serviceDisconnect = 'out',
    mains = 'open',
    plugged: asked,
    lidsOff: lids,
    remark,
  }: PositionRequest,
  { job: { design }, entries }: Bench,
): PositionBody {
  const network = deriveNetwork(design);
  const before = entries.findLast((entry): entry is (typeof entries)[number] & { body: PositionBody } =>
    isPosition(entry),
  );
  const stored = storedAfter(design, network, before ?? null, entries);
  const unknown = (asked ?? []).flatMap((id, i) =>
    design.boards?.[id] === undefined
      ? [{ path: `plugged.${i}`, message: 'is no board of this design' }]
      : [],
  );
  for (const [i, id] of (lids ?? []).entries())
    if (design.boxes[id] === undefined)
      unknown.push({ path: `lidsOff.${i}`, message: 'is no box of this design' });
  if (unknown.length > 0) throw invalidInput(unknown.slice(0, 100));
  const plugged = asked === undefined ? before?.body.plugged : [...new Set(asked)];
  const lidsOff = lids === undefined ? before?.body.lidsOff : [...new Set(lids)];
  const rest = {
    ...(lidsOff !== undefined && { lidsOff }),
    ...(plugged !== undefined && { plugged }),
    ...(stored.length > 0 && { stored }),
    ...(remark !== undefined && { remark }),
  };
  if (open === undefined) return { kind: 'position', linksOut, serviceDisconnect, mains, ...rest };
  const switches = new Set(network.elements.filter(canOpen).map(({ id }) => id));
  const issues = open.flatMap((id, i) =>
    switches.has(id) ? [] : [{ path: `open.${i}`, message: 'is nothing in this design that can be opened' }],
  );
  if (issues.length > 0) throw invalidInput(issues.slice(0, 100));
  const unique = [...new Set(open)];
  return { kind: 'position', ...sumOfPosition(network, unique), open: unique, ...rest };
}

const isPosition = ({ body }: Entry) => body.kind === 'position';
