import { list, number, oneOf, text } from '../../ground/shape';
import { defineKind } from '../kind';
import { remark } from '../shapes';

/** What stands open or closed on the vehicle now; feeds the nameplate. */
export interface PositionBody {
  kind: 'position';
  linksOut: number;
  serviceDisconnect: 'out' | 'in';
  mains: 'open' | 'closed';
  /** Ids of the elements that stand open; absent: only the three above are known. */
  open?: string[];
  /** Ids of the devices whose capacitors may hold charge since they were last live. */
  stored?: string[];
  /** Boards whose sense plugs are in; absent: nobody said. */
  plugged?: string[];
  /** Boxes whose lids are off; absent: nobody said. */
  lidsOff?: string[];
  remark?: string;
}

/** What a position comes to in sum. */
export type PositionSum = Pick<PositionBody, 'linksOut' | 'serviceDisconnect' | 'mains'>;

/** The live state of the vehicle in one line. */
export function positionText(body: PositionSum): string {
  if (body.linksOut > 0) return `HV open at ${body.linksOut} ${body.linksOut === 1 ? 'link' : 'links'}`;
  if (body.serviceDisconnect === 'out') return 'HV open at the service disconnect';
  return body.mains === 'open' ? 'Pack closed, mains open' : 'Bus live: mains closed';
}

export const position = defineKind<PositionBody>({
  kind: 'position',
  many: 'states',
  fields: {
    linksOut: number({ min: 0, integer: true }),
    serviceDisconnect: oneOf(['out', 'in']),
    mains: oneOf(['open', 'closed']),
    open: list.optional(text(160), { maxRows: 5000 }),
    stored: list.optional(text(160), { maxRows: 5000 }),
    plugged: list.optional(text(160), { maxRows: 1000 }),
    lidsOff: list.optional(text(160), { maxRows: 1000 }),
    remark,
  },
  stands: 'newest',
  title: positionText,
});
