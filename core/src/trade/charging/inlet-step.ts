import { figureId, type Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import { gapsBehind, judge, type StepDefinition } from '../../model/step';
import { controllerChecks } from './controller-checks';
import { count, yes } from './counted';
import { ofParts } from './of-parts';
import { chargeRules } from './rules';
import { inletRating } from './supply-inputs';

const n = formatNumber;

/** Each inlet: lock and release, sensors, what keeps the vehicle from driving off, and its contactors. */
export const inletStep: StepDefinition = {
  id: 'charge.inlet',
  version: 1,
  subjects: ({ inlets = {} }) => Object.keys(inlets),
  compute(subject, read) {
    const inlet = read.at('inlets')![subject]!;
    const { tag, current } = inlet;
    const at = `inlets.${subject}`;
    const { sensors: partSensors, lock: partLock } = inletRating(inlet, read.at('parts'));
    const lock = inlet.lock ?? (partLock === null ? undefined : partLock ? 'motor' : 'none');
    const sensors = inlet.sensors ?? partSensors;
    const takesStation = current !== 'mains';
    const unsaid = (value: unknown, path: string, label: string): Gap[] =>
      value === undefined || value === null
        ? [{ kind: 'not-given', path: `${at}.${path}`, label: `${label} of ${tag}` }]
        : [];
    const parts = inlet.inlet === undefined ? [] : [inlet.inlet];
    const active = Object.values(read.at('devices')).filter(
      ({ insulationMonitor }) => insulationMonitor === 'active',
    );
    const unknown = Object.entries(read.at('devices')).filter(
      ([, { kind, insulationMonitor }]) => kind === 'insulation-monitor' && insulationMonitor === undefined,
    );
    const goesOn = takesStation && active.length > 0 && inlet.monitorPauses === false;
    const inletPart = read.at('parts')[inlet.inlet ?? ''];
    const ratedV = takesStation && inletPart?.kind === 'inlet' ? inletPart.data.maxDcV : null;
    const highest = ratedV === null ? null : read.figure(figureId('pack.pack', 'pack', 'voltageMaxV'));
    return {
      figures: [],
      checks: [
        judge(
          chargeRules.inletVoltage,
          [subject],
          takesStation
            ? [
                ...unsaid(ratedV ?? undefined, 'inlet', 'rated voltage'),
                ...(highest?.value === null ? gapsBehind(highest) : []),
              ]
            : [],
          ratedV !== null && (highest?.value ?? 0) > ratedV + 1e-9
            ? `${tag} is rated for ${n(ratedV)} V of direct current; the full pack has ${n(highest!.value!)} V.`
            : null,
          [
            { label: 'rated', value: ratedV ?? 0, unit: 'V' },
            { label: 'full pack', value: highest?.value ?? 0, unit: 'V' },
          ],
        ),
        judge(
          chargeRules.noRelease,
          [subject],
          lock === 'none'
            ? []
            : [...unsaid(lock, 'lock', 'lock'), ...unsaid(inlet.release, 'release', 'release')],
          lock !== 'none' && inlet.release === 'none'
            ? `The plug at ${tag} is locked and has ${n(0)} releases by hand.`
            : null,
          [yes('release by hand', inlet.release !== 'none')],
        ),
        judge(
          chargeRules.lockUnread,
          [subject],
          lock === 'none'
            ? []
            : [
                ...unsaid(lock, 'lock', 'lock'),
                ...unsaid(inlet.lockReadBack, 'lockReadBack', 'position of the lock'),
              ],
          lock === 'motor' && inlet.lockReadBack === false
            ? `At ${tag} current flows with ${n(0)} contacts read of its lock.`
            : null,
          [yes('read', inlet.lockReadBack)],
        ),
        judge(
          chargeRules.noLock,
          [subject],
          takesStation ? unsaid(lock, 'lock', 'lock') : [],
          takesStation && lock === 'none' ? `${tag} takes current of a station with ${n(0)} locks.` : null,
          [yes('lock', lock !== 'none')],
        ),
        judge(
          chargeRules.noInhibit,
          [subject],
          unsaid(inlet.driveInhibit, 'driveInhibit', 'what keeps the vehicle from driving'),
          inlet.driveInhibit === false ? `With ${tag} plugged in ${n(0)} things hold the drive back.` : null,
          [yes('drive blocked', inlet.driveInhibit)],
        ),
        judge(
          chargeRules.weld,
          [subject],
          takesStation ? unsaid(inlet.weldCheck, 'weldCheck', 'check for welding') : [],
          takesStation && inlet.weldCheck === false
            ? `${n(0)} checks are made of the contactors of ${tag}.`
            : null,
          [yes('checked', inlet.weldCheck)],
        ),
        judge(
          chargeRules.sensors,
          [subject],
          takesStation ? unsaid(sensors, 'sensors', 'temperature sensors') : [],
          takesStation && sensors !== null && sensors < 2
            ? `${tag} has ${n(sensors)} temperature sensors for 2 contacts.`
            : null,
          [count('sensors', sensors ?? 0), count('contacts', 2)],
        ),
        judge(
          chargeRules.monitors,
          [subject],
          takesStation && unknown.length > 0 && !goesOn
            ? unknown.map(([id, device]) => ({
                kind: 'not-given' as const,
                path: `devices.${id}.insulationMonitor`,
                label: `how ${device.tag} watches`,
              }))
            : takesStation && active.length > 0
              ? unsaid(inlet.monitorPauses, 'monitorPauses', 'what the insulation monitor does at a station')
              : [],
          goesOn
            ? `${n(active.length)} of the vehicle’s (${active.map((one) => one.tag).join(', ')}) goes on while ${tag} is at a station.`
            : null,
          [count('active monitors', active.length)],
        ),
      ]
        .map((check) => ofParts(check, parts))
        .concat(controllerChecks(subject, inlet, { lock, sensors }, read)),
    };
  },
};
