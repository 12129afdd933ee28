import { storedAfter, sumOfPosition } from '@torvek/core/design';
import { canOpen, deriveNetwork } from '@torvek/core/network';
import type { Entry, PositionBody } from '@torvek/core/record';
import { invalidInput } from '../http/errors';
import type { Bench } from './ledger';
import type { EntryRequest } from './request';

/** What stands open on the vehicle: element by element, judged by the network of the saved design, or in sum. */
export function judgePosition(
  {
    open,
    linksOut = 0,
    serviceDisconnect = 'out',
    mains = 'open',
    remark,
  }: Extract<EntryRequest, { kind: 'position' }>,
  { job: { design }, entries }: Bench,
): PositionBody {
  const network = deriveNetwork(design);
  const before = entries.findLast((entry): entry is (typeof entries)[number] & { body: PositionBody } =>
    isPosition(entry),
  );
  const stored = storedAfter(design, network, before ?? null, entries);
  const rest = {
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
