import { figureId } from '../../ground/figure';
import { packCold, packLowest } from '../pack';
import { catalogueOf } from '../../model/parts';
import type { Reader } from '../../model/step';
import { defaultMaxClearS } from '../fuse';
import { cable } from './cable';
import { screensClamped } from './ends';
import { defaultContactOhm } from './loop';
import type { CableFuse, CablePlace } from './cable-place';
import { defaultMaxDropFraction } from './size';
import { circuitInputs, setCable, waysOf } from './ways';

/** Stands in for the cable to be tried, so that no place is refused for what another cable bears: the hottest, the thinnest. */
const toughest = catalogueOf('cable').reduce((most, one) =>
  one.data.conductorMaxC > most.data.conductorMaxC ? one : most,
);

/** The place of a circuit’s cable, for all cables to be tried in it; null while the way or the load is not given. */
export function cablePlace(subject: string, read: Reader): CablePlace | null {
  const circuit = read.at('circuits', subject)!;
  const inputs = waysOf(circuit, subject).map((way) => {
    const place = circuitInputs(way, circuit, subject, read);
    setCable(place, toughest);
    return place.run(cable).input;
  });
  const ways = inputs.filter((input) => input !== null);
  if (ways.length < inputs.length) return null;
  const [lug, gland] = [read.at('parts', circuit.lug ?? ''), read.at('parts', circuit.gland ?? '')];
  return {
    ways,
    profile: circuit.loadProfile ?? [],
    maxDropFraction: circuit.maxDropFraction ?? defaultMaxDropFraction,
    fuse: fuseOf(subject, read),
    lug: lug?.kind === 'lug' ? lug.data : null,
    gland: gland?.kind === 'gland' ? gland.data : null,
    studMm: circuit.studMm ?? null,
    screensClamped: screensClamped(circuit),
  };
}

/** The fuse of a circuit and what the smallest fault behind it follows from. */
function fuseOf(subject: string, read: Reader): CableFuse | null {
  const circuit = read.at('circuits', subject)!;
  const part = read.at('parts', circuit.fuse ?? '');
  const largest = read.figure(figureId('fuse.fault', `${subject}/largest`, 'prospectiveA')).value;
  const [lowV, coldOhm] = [read.figure(packLowest).value, read.figure(packCold).value];
  if (part?.kind !== 'fuse' || largest === null || lowV === null || coldOhm === null) return null;
  const { curve, currentToleranceFraction, arcI2tFactor, minBreakingA } = part.data;
  return {
    label: part.label,
    curve,
    currentToleranceFraction,
    arcI2tFactor,
    minBreakingA,
    maxClearS: circuit.maxClearS ?? defaultMaxClearS,
    faultMaxA: largest,
    lowV,
    coldOhm,
    contactOhm: circuit.contactOhm ?? defaultContactOhm,
  };
}
