import type { Id } from '../../model/document';
import { outsideReach, type Piece } from './network-builder';
import { reachOf } from './ratings';

/** A cable with a plug at each wall, or through glands. */
export function cablePieces(
  of: { id: string; tag: string; symbol: string; owner: Id; ends: Piece['ends'] },
  boxA: Id | null,
  boxB: Id | null,
  resistanceOhm?: number,
): Piece[] {
  const { id, tag, ...rest } = of;
  const cable: Piece = { ...rest, id, tag, kind: 'cable', reach: outsideReach, resistanceOhm };
  if (of.ends === 'gland') return [cable];
  const plug = (end: 'a' | 'b', box: Id | null): Piece => ({
    ...rest,
    id: `${id}/plug-${end}`,
    tag: `plug of ${tag}`,
    kind: 'connector',
    reach: reachOf(box),
  });
  return [plug('a', boxA), cable, plug('b', boxB)];
}

export function endsText(ends: Piece['ends']): string {
  if (ends === 'gland') return 'through glands';
  if (ends === undefined) return 'ends not given';
  return ends === 'plain' ? 'plain plugs' : 'interlocked';
}
