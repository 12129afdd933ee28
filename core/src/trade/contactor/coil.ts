import {
  startLowOf,
  switchedCircuits,
  type Id,
  type Suppression,
  circuitDefaults,
  settingsDefaults,
} from '../../model/document';
import { figureId, type Check, type Figure, type Gap } from '../../ground/figure';
import { partKey, type ContactorData, type Part } from '../../model/parts';
import { formatNumber } from '../../ground/quantity';
import { judge, type StepDefinition } from '../../model/step';
import { coilRules } from './coil-rules';

export { coilRules };

/**
 * Contactors that an economiser holds with less than they drop out at.
 *
 * @param gaps of the contactors that must be known
 */
export function dropsOutCheck(subject: Id, gaps: Gap[], parts: readonly (Part | undefined)[]): Check {
  const found = parts.flatMap((part) => {
    const coil = part?.kind === 'contactor' ? coilOf(part.data) : null;
    return part === undefined || coil === null || holdCurrentA(coil) > coil.dropOutA
      ? []
      : [{ key: partKey(part), label: part.label, holdsA: holdCurrentA(coil), dropsA: coil.dropOutA }];
  });
  return judge(
    coilRules.dropsOut,
    [subject],
    found.length > 0 ? [] : gaps,
    found.length > 0
      ? `${found
          .map(
            ({ label, holdsA, dropsA }) =>
              `${label} is held with ${formatNumber(holdsA)} A and drops out at ${formatNumber(dropsA)} A`,
          )
          .join('; ')}.`
      : null,
    found.flatMap(({ label, holdsA, dropsA }) => [
      { label: `${label} is held with`, value: holdsA, unit: 'A' },
      { label: `${label} drops out at`, value: dropsA, unit: 'A' },
    ]),
    { parts: found.map(({ key }) => key) },
  );
}

/** Forward voltage of the diode in series with each clamp, V. */
const diodeV = 0.8;
const copperPerK = 0.00393;
/** Where the design does not say. */
export const coilDefaults = {
  coilC: settingsDefaults.coilC,
  clampV: circuitDefaults.clampV,
  suppression: 'diode',
} as const;

/** What is known of a coil. */
export type Coil = Required<
  Pick<ContactorData, 'coilOhm' | 'coilHenry' | 'pullInV' | 'dropOutA' | 'economiser'>
> &
  Pick<ContactorData, 'coilV' | 'coilHoldW' | 'openMs'>;

/** The coil of a contactor, or null where its data are not complete. */
export function coilOf(data: ContactorData): Coil | null {
  const { coilOhm, coilHenry, pullInV, dropOutA, economiser } = data;
  if (
    coilOhm === undefined ||
    coilHenry === undefined ||
    pullInV === undefined ||
    dropOutA === undefined ||
    economiser === undefined
  )
    return null;
  return { ...data, coilOhm, coilHenry, pullInV, dropOutA, economiser };
}

/** The current at which the coil is held: that of its hold power with an economiser, of its voltage without. */
export const holdCurrentA = ({ coilOhm, coilV, coilHoldW, economiser }: Coil): number =>
  economiser ? Math.sqrt(coilHoldW / coilOhm) : coilV / coilOhm;

/**
 * How long the coil current takes to fall from hold to drop-out, s: L·di/dt = −(R·i + V_c).
 *
 * @param suppression none: at once, for the driver breaks through
 * @param clampV of the zener or the TVS
 */
export function decayS(coil: Coil, suppression: Suppression, clampV: number): number {
  if (suppression === 'none') return 0;
  const againstV = suppression === 'diode' ? diodeV : diodeV + clampV;
  const { coilOhm, coilHenry, dropOutA } = coil;
  const from = holdCurrentA(coil);
  if (from <= dropOutA) return 0;
  return (coilHenry / coilOhm) * Math.log((from * coilOhm + againstV) / (dropOutA * coilOhm + againstV));
}

/** Command to open contacts, ms: the maker’s time with a fast release, and the decay of the current. */
export const releaseMs = (coil: Coil, suppression: Suppression, clampV: number): number =>
  coil.openMs + decayS(coil, suppression, clampV) * 1000;

/** The voltage at which a warm coil pulls in: it needs the same current through more resistance. */
export const pullInAtV = ({ pullInV }: Coil, coilC: number): number =>
  pullInV * (1 + copperPerK * (coilC - 20));

/** A 12 V system stands at 14.4 V while it is charged. */
const chargedOver = 1.2;

/** Coils against the 12 V at start, their suppression and the way they are mounted. */
export const coilStep: StepDefinition = {
  id: 'contactor.coil',
  version: 1,
  subjects: switchedCircuits,
  compute(subject, read) {
    const circuit = read.at('circuits', subject)!;
    const settings = read.at('settings');
    const at = `circuits.${subject}`;
    const part = read.at('parts', circuit.contactor ?? '');
    const data = part?.kind === 'contactor' ? part.data : null;
    const coil = data === null ? null : coilOf(data);
    const noPart: Gap[] =
      data === null ? [{ kind: 'not-given', path: `${at}.contactor`, label: 'contactors' }] : [];
    const gaps: Gap[] =
      data !== null && coil === null
        ? [{ kind: 'not-given', path: `${at}.contactor`, label: 'coil data of the contactor' }]
        : noPart;
    const startLowV = startLowOf(settings);
    const coilC = settings.coilC ?? coilDefaults.coilC;
    const suppression = circuit.suppression ?? coilDefaults.suppression;
    const clampV = circuit.clampV ?? coilDefaults.clampV;
    const driverV = settings.driverV ?? settingsDefaults.driverV;
    const supplyV = (settings.supplyV ?? data?.coilV ?? settingsDefaults.supplyV) * chargedOver;
    const badClamp: Gap[] =
      clampV > 0
        ? []
        : [{ kind: 'invalid', path: `${at}.clampV`, label: 'clamp voltage', message: 'must be above 0' }];
    const origin = (given: unknown, path: string) => ({
      kind: given === undefined ? ('default' as const) : ('document' as const),
      path,
    });
    const keyed = { kind: 'part' as const, key: circuit.contactor ?? '', path: 'pullInV' };
    const hotV = coil === null ? null : pullInAtV(coil, coilC);
    const opensMs = coil === null || badClamp.length > 0 ? null : releaseMs(coil, suppression, clampV);
    const quickMs = coil === null ? null : releaseMs(coil, 'diode-zener', clampV > 0 ? clampV : 24);
    const figures: Figure[] = [
      {
        id: figureId('contactor.coil', subject, 'pullInV'),
        label: 'Pulls in, coil warm',
        unit: 'V',
        value: hotV,
        gaps,
        limit: { max: startLowV },
        working:
          coil === null || hotV === null
            ? []
            : [
                {
                  symbol: 'V_p',
                  label: 'Pull-in voltage of the warm coil',
                  formula: 'V_20·(1 + 0.00393·(T − 20))',
                  inputs: [
                    { symbol: 'V_20', value: coil.pullInV, unit: 'V', origin: keyed },
                    {
                      symbol: 'T',
                      value: coilC,
                      unit: '°C',
                      origin: origin(settings.coilC, 'settings.coilC'),
                    },
                  ],
                  value: hotV,
                  unit: 'V',
                  source: 'The same current through warm copper',
                },
              ],
      },
      {
        id: figureId('contactor.coil', subject, 'releaseMs'),
        label: 'Opens after',
        unit: 'ms',
        value: opensMs,
        gaps: [...gaps, ...badClamp],
        working:
          // Without a clamp, or when it is held below drop-out, the current is gone at once: there is nothing to show.
          coil === null || opensMs === null || opensMs === coil.openMs
            ? []
            : [
                {
                  symbol: 't_o',
                  label: 'Command to open contacts',
                  formula: 't_m + 1000·L/R·ln((I_h·R + V_c)/(I_d·R + V_c))',
                  inputs: [
                    { symbol: 't_m', value: coil.openMs, unit: 'ms', origin: { ...keyed, path: 'openMs' } },
                    {
                      symbol: 'L',
                      value: coil.coilHenry,
                      unit: 'H',
                      origin: { ...keyed, path: 'coilHenry' },
                    },
                    { symbol: 'R', value: coil.coilOhm, unit: 'Ω', origin: { ...keyed, path: 'coilOhm' } },
                    { symbol: 'I_h', value: holdCurrentA(coil), unit: 'A' },
                    {
                      symbol: 'I_d',
                      value: coil.dropOutA,
                      unit: 'A',
                      origin: { ...keyed, path: 'dropOutA' },
                    },
                    {
                      symbol: 'V_c',
                      value: suppression === 'diode' ? diodeV : diodeV + clampV,
                      unit: 'V',
                      origin: origin(circuit.clampV, `${at}.clampV`),
                    },
                  ],
                  value: opensMs,
                  unit: 'ms',
                  source: 'Decay of the coil current against the clamp',
                },
              ],
      },
      {
        id: figureId('contactor.coil', subject, 'holdW'),
        label: 'Power to hold, each coil',
        unit: 'W',
        value: data?.coilHoldW ?? null,
        gaps: noPart,
        working: [],
      },
    ];
    const n = formatNumber;
    const parts = part?.kind === 'contactor' ? [partKey(part)] : [];
    const profile = circuit.loadProfile ?? [];
    const both = profile.some(([, a]) => a > 0) && profile.some(([, a]) => a < 0);
    const slow = opensMs !== null && coil !== null && opensMs - coil.openMs > coil.openMs / 2;
    return {
      figures,
      checks: [
        judge(
          coilRules.slowRelease,
          [subject],
          [...gaps, ...badClamp],
          slow && suppression === 'diode'
            ? `With a plain diode the contacts open after ${n(opensMs)} ms; with a zener of ${n(clampV)} V after ${n(quickMs ?? 0)} ms.`
            : null,
          [
            { label: 'release', value: opensMs ?? 0, unit: 'ms' },
            { label: 'release with a zener', value: quickMs ?? 0, unit: 'ms' },
            { label: 'the zener clamps at', value: clampV, unit: 'V' },
          ],
          { parts },
        ),
        dropsOutCheck(subject, gaps, [
          part,
          // The one of the pre-charge as well, where it has its own.
          circuit.prechargeContactor === circuit.contactor
            ? undefined
            : read.at('parts', circuit.prechargeContactor ?? ''),
        ]),
        judge(
          coilRules.noSuppression,
          [subject],
          gaps,
          suppression === 'none' && coil !== null
            ? `Each coil holds ${n(holdCurrentA(coil))} A in ${n(coil.coilHenry * 1000)} mH, and nothing takes its energy.`
            : null,
          [
            { label: 'inductance', value: coil?.coilHenry ?? 0, unit: 'H' },
            { label: 'held with', value: coil === null ? 0 : holdCurrentA(coil), unit: 'A' },
          ],
          { parts },
        ),
        judge(
          coilRules.clamp,
          [subject],
          [...noPart, ...badClamp],
          suppression !== 'none' && suppression !== 'diode' && clampV + supplyV > driverV
            ? `The clamp lets the coil go up to ${n(clampV)} V above the ${n(supplyV)} V of the supply; the driver stands ${n(driverV)} V.`
            : null,
          [
            { label: 'clamps at', value: clampV, unit: 'V' },
            { label: 'supply', value: supplyV, unit: 'V' },
            { label: 'the driver stands', value: driverV, unit: 'V' },
          ],
          { parts },
        ),
        judge(
          coilRules.bothWays,
          [subject],
          [
            ...noPart,
            ...(profile.length === 0
              ? [{ kind: 'not-given' as const, path: `${at}.loadProfile`, label: 'load profile' }]
              : []),
          ],
          data?.polarised === true && both
            ? `The load runs from ${n(Math.max(...profile.map(([, a]) => a)))} A to ${n(Math.min(...profile.map(([, a]) => a)))} A; the contactors are polarised.`
            : null,
          [
            { label: 'largest current out', value: Math.max(0, ...profile.map(([, a]) => a)), unit: 'A' },
            { label: 'largest current back', value: Math.min(0, ...profile.map(([, a]) => a)), unit: 'A' },
          ],
          { parts },
        ),
      ],
    };
  },
};
