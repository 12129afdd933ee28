import type { Check, Gap } from '../../ground/figure';
import type { CheckValue } from '../../ground/finding';
import { formatNumber } from '../../ground/quantity';
import type { Design, Id, LoadItem } from '../../model/document';
import { judge } from '../../model/step';
import { lowVoltageRules } from './rules';
import { nearFraction } from './wire-12v';

const n = formatNumber;
const v = (label: string, value: number, unit: string): CheckValue => ({ label, value, unit });

/** A start takes up to about ten times what runs; beyond this one of the two was mistyped. */
const mostPeakOver = 15;
/** Nothing looks after a wire before its fuse; longer than this it is a finding, m. */
const unfusedM = 0.2;

/** What a load draws, A; null with what is missing for it. */
interface Drawn {
  value: number | null;
  gaps: Gap[];
}

/** The fuse of a load against what it draws, its peak, and the wire before the fuse. */
export function fuseChecks(subject: Id, load: LoadItem, current: Drawn): Check[] {
  const { tag, fuseA } = load;
  const at = `loads.${subject}`;
  const amps = current.value ?? 0;
  const noFuse: Gap[] =
    fuseA === undefined ? [{ kind: 'not-given', path: `${at}.fuseA`, label: `fuse of ${tag}` }] : [];
  const shared = load.behind !== undefined;
  const near = fuseA !== undefined && current.value !== null ? fuseA / amps : Infinity;
  const isNear = near < 1 + nearFraction;
  const isSmall = near < 1 - 1e-9;
  const isOdd =
    load.peakW !== undefined &&
    load.powerW !== undefined &&
    (load.peakW < load.powerW * (1 - 1e-9) || load.peakW > load.powerW * mostPeakOver);
  return [
    judge(
      lowVoltageRules.fuseNear,
      [subject],
      shared ? [] : [...noFuse, ...current.gaps],
      !shared && isNear && !isSmall ? `${tag}: ${n(fuseA!)} A for ${n(amps)} A.` : null,
      [v('fuse', fuseA ?? 0, 'A'), v('current', amps, 'A')],
    ),
    judge(
      lowVoltageRules.fuseSmall,
      [subject],
      [...noFuse, ...current.gaps],
      isSmall ? `${tag}: ${n(fuseA!)} A for ${n(amps)} A.` : null,
      [v('fuse', fuseA ?? 0, 'A'), v('current', amps, 'A')],
    ),
    judge(
      lowVoltageRules.peakOdd,
      [subject],
      load.peakW === undefined ? [] : current.gaps,
      isOdd ? `${tag} draws ${n(load.powerW!)} W and peaks at ${n(load.peakW!)} W.` : null,
      [v('draws', load.powerW ?? 0, 'W'), v('peaks at', load.peakW ?? 0, 'W')],
    ),
    judge(
      lowVoltageRules.toFuse,
      [subject],
      load.toFuseM === undefined
        ? [{ kind: 'not-given', path: `${at}.toFuseM`, label: `way to the fuse of ${tag}` }]
        : [],
      load.toFuseM !== undefined && load.toFuseM > unfusedM
        ? `${tag}: ${n(load.toFuseM)} m before its fuse; ${n(unfusedM)} m at most.`
        : null,
      [v('before the fuse', load.toFuseM ?? 0, 'm'), v('at most', unfusedM, 'm')],
    ),
  ];
}

/** The relay of a load: what its contact carries and makes, its coil, and what takes the coil’s energy. */
export function relayChecks(
  subject: Id,
  load: LoadItem,
  current: Drawn,
  nominalV: number,
  systemV: number,
  parts: Design['parts'],
): Check[] {
  const { tag } = load;
  const at = `loads.${subject}`;
  const amps = current.value ?? 0;
  const relay = parts[load.relay ?? ''];
  const data = relay?.kind === 'relay' ? relay.data : null;
  const peakA = load.peakW === undefined ? amps : Math.max(amps, load.peakW / systemV);
  const tooMuch = data !== null && current.value !== null && (data.contactA < amps || data.makesA < peakA);
  return [
    judge(
      lowVoltageRules.relay,
      [subject],
      data === null || tooMuch
        ? []
        : [
            ...current.gaps,
            // Without its peak nobody knows what the contact makes.
            ...(load.peakW === undefined
              ? [{ kind: 'not-given' as const, path: `${at}.peakW`, label: `peak of ${tag}` }]
              : []),
          ],
      tooMuch
        ? `${relay!.label} carries ${n(data!.contactA)} A and makes ${n(data!.makesA)} A; ${tag} draws ${n(amps)} A, at first ${n(peakA)} A.`
        : null,
      [
        v('contact carries', data?.contactA ?? 0, 'A'),
        v('contact makes', data?.makesA ?? 0, 'A'),
        v('draws', amps, 'A'),
        v('at first', peakA, 'A'),
      ],
      { parts: load.relay === undefined ? [] : [load.relay] },
    ),
    judge(
      lowVoltageRules.relayCoil,
      [subject],
      [],
      data !== null && Math.abs(data.coilV - nominalV) > nominalV * 0.2
        ? `${relay!.label} at ${tag}: ${n(data.coilV)} V in a vehicle of ${n(nominalV)} V.`
        : null,
      [v('coil', data?.coilV ?? 0, 'V'), v('vehicle', nominalV, 'V')],
      { parts: load.relay === undefined ? [] : [load.relay] },
    ),
    judge(
      lowVoltageRules.relayBare,
      [subject],
      [],
      data !== null && !data.suppressed
        ? `${relay!.label} at ${tag} has ${n(0)} parts across its coil.`
        : null,
      [v('suppressed', data?.suppressed === false ? 0 : 1, '')],
      { parts: load.relay === undefined ? [] : [load.relay] },
    ),
  ];
}
