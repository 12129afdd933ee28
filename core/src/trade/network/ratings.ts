import type { Id, Poles, StringItem } from '../../model/document';
import { formatNumber } from '../../ground/quantity';
import type { NetworkSlices } from './feeding';
import { outsideReach } from './network-builder';

type Parts = Pick<NetworkSlices, 'parts'>;

export function fuseRating({ parts }: Parts, key: string | undefined): string {
  const part = parts[key ?? ''];
  return part?.kind === 'fuse' ? `${formatNumber(part.data.ratedA)} A` : '';
}

export function contactorRating({ parts }: Parts, key: string | undefined): string {
  const part = parts[key ?? ''];
  return part?.kind === 'contactor' ? `${formatNumber(part.data.continuousA)} A` : '';
}

export function disconnectRating({ parts }: Parts, key: string | undefined): string {
  const part = parts[key ?? ''];
  return part?.kind === 'disconnect' ? `${formatNumber(part.data.continuousA)} A` : '';
}

export function polesText(poles: Poles): string {
  return poles === 'both' ? '+ and −' : poles === 'plus' ? '+ only' : poles === 'minus' ? '− only' : 'none';
}

export const reachOf = (box: Id | null) => box ?? outsideReach;

/** Of its closed contacts, Ω; undefined: not known. */
export const disconnectOhm = ({ parts }: Pick<NetworkSlices, 'parts'>, { disconnect }: StringItem) => {
  const part = parts[disconnect ?? ''];
  return part?.kind === 'disconnect' ? part.data.contactOhm : undefined;
};
