import type { Check, Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import type { Id, InletItem } from '../../model/document';
import { judge, type Reader } from '../../model/step';
import { count, yes } from './counted';
import { chargeRules } from './rules';

const n = formatNumber;

/** What answers the pilot of an inlet, against inlet, stations and supply; nothing where the charger does so itself. */
export function controllerChecks(
  subject: Id,
  inlet: InletItem,
  { lock, sensors }: { lock: InletItem['lock'] | undefined; sensors: number | null },
  read: Reader,
): Check[] {
  const { tag, controller: key, stationLink, wakes, current } = inlet;
  if (key === undefined) return [];
  const at = `inlets.${subject}`;
  const part = read.at('parts', key);
  const data = part?.kind === 'controller' ? part.data : null;
  const label = part?.label ?? key;
  const unknown: Gap[] =
    data === null ? [{ kind: 'not-given', path: `parts.${key}`, label: `charge controller of ${tag}` }] : [];
  const need = (value: unknown, field: string, what: string): Gap[] =>
    value === undefined || value === null
      ? [{ kind: 'not-given', path: `${at}.${field}`, label: `${what} of ${tag}` }]
      : [];
  const takesStation = current !== 'mains';
  const talks = data !== null && (data.station === 'both' || data.station === stationLink);
  const parts = [key];
  return [
    judge(
      chargeRules.controllerMute,
      [subject],
      takesStation ? [...unknown, ...need(stationLink, 'stationLink', 'link of the stations')] : unknown,
      takesStation && data !== null && !talks
        ? `${label} at ${tag} talks with ${data.station === 'none' ? `${n(0)} kinds of station` : `stations by ${data.station}, ${n(1)} kind`}; the stations talk by ${stationLink}.`
        : null,
      [
        count(
          'kinds of station',
          data === null || data.station === 'none' ? 0 : data.station === 'both' ? 2 : 1,
        ),
      ],
      { parts },
    ),
    judge(
      chargeRules.controllerWakes,
      [subject],
      [...unknown, ...need(wakes, 'wakes', 'devices to wake')],
      data !== null && (wakes ?? 0) > data.wakes
        ? `${n(wakes ?? 0)} devices have to wake at ${tag}; ${label} wakes ${n(data.wakes)}.`
        : null,
      [count('to wake', wakes ?? 0), count('outputs', data?.wakes ?? 0)],
      { parts },
    ),
    judge(
      chargeRules.controllerSensors,
      [subject],
      takesStation ? [...unknown, ...need(sensors, 'sensors', 'temperature sensors')] : unknown,
      data !== null && (sensors ?? 0) > data.sensors
        ? `${tag} has ${n(sensors ?? 0)} temperature sensors; ${label} reads ${n(data.sensors)}.`
        : null,
      [count('sensors', sensors ?? 0), count('sensors that the controller reads', data?.sensors ?? 0)],
      { parts },
    ),
    judge(
      chargeRules.controllerLock,
      [subject],
      [...unknown, ...need(lock, 'lock', 'lock')],
      data !== null && lock === 'motor' && !data.lock
        ? `${tag} has ${n(1)} lock with a motor; ${label} drives none.`
        : null,
      [
        yes('lock with a motor', lock === 'motor'),
        count('locks that it drives', data?.lock === true ? 1 : 0),
      ],
      { parts },
    ),
  ];
}
