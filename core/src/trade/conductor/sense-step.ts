import { rulesOf, type CheckValue } from '../../ground/finding';
import { figureId, type Check, type Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import { bleedOf, type Id, type SenseLeads } from '../../model/document';
import { gapsBehind, judge, type Reader, type StepDefinition } from '../../model/step';

const rule = rulesOf('sense');

export const senseRules = {
  unfused: rule(
    'unfused',
    'mend',
    'Sense leads have no fuse',
    'A thin wire that is crushed between two cells burns like a match, in the middle of a bundle of others.',
    'A fuse in every lead, at its tap.',
    'Practice of monitoring harnesses',
  ),
  far: rule(
    'fuse-far',
    'note',
    'Sense leads are fused at the monitor, not at their tap',
    'Over their whole length a short is fed by cells with nothing between.',
    'Fuses at the taps; or leads laid apart and covered over their whole length.',
    'Practice of monitoring harnesses',
  ),
  voltage: rule(
    'fuse-voltage',
    'mend',
    'The fuses of the sense leads are not made for the pack’s voltage',
    'Two leads of one bundle that touch can have the whole pack between them: a fuse for cell voltage does not put that arc out.',
    'Fuses whose DC rating is at or above the highest pack voltage.',
    'Fuse makers’ DC ratings',
  ),
  lead: rule(
    'fuse-above-lead',
    'mend',
    'The fuse of a sense lead is larger than the lead carries',
    'The lead is the fuse then.',
    'A smaller fuse, or a thicker lead.',
    'What the lead may carry',
  ),
  bleed: rule(
    'bleed-above-fuse',
    'mend',
    'The monitor bleeds more than the fuses of its leads take',
    'They age with every balancing and open one by one: the monitor then sees voltages that are not there.',
    'A larger fuse within what the lead carries, or less bleed current.',
    '80 % of the rating of a small fuse, for years',
  ),
};

/** What a small fuse takes for years, as a share of its rating. */
const forYears = 0.8;

/** The thin leads that the monitor looks through: fuse, voltage, lead and bleed. */
export const senseStep: StepDefinition = {
  id: 'conductor.sense',
  version: 1,
  subjects: () => ['pack'],
  compute(_subject, read): { figures: []; checks: Check[] } {
    const sense = Object.entries(read.at('pack').sense ?? {});
    const strings = Object.entries(read.at('strings')).filter(([, { modules }]) => modules.length > 0);
    const open = strings.filter(
      ([id]) => !sense.some(([, { string }]) => string === undefined || string === id),
    );
    return {
      figures: [],
      checks: [
        ...sense.flatMap(([id, leads]) => leadChecks(id, leads, read)),
        ...open.map(([id, { tag }]) =>
          judge(
            senseRules.unfused,
            [id],
            [{ kind: 'not-given', path: 'pack.sense', label: `sense leads of ${tag}` }],
            null,
          ),
        ),
      ],
    };
  },
};

function leadChecks(
  id: Id,
  { tag, fused, fuseA, fuseV, carriesA, string }: SenseLeads,
  read: Reader,
): Check[] {
  const at = `pack.sense.${id}`;
  const highest = read.figure(figureId('pack.pack', 'pack', 'voltageMaxV'));
  const bleedA =
    bleedOf({ pack: read.at('pack'), boards: read.at('boards') ?? {}, parts: read.at('parts') })?.currentA ??
    0;
  const moduleLimits = Object.entries(read.at('strings'))
    .filter(([one]) => string === undefined || one === string)
    .flatMap(([, { modules }]) => modules)
    .flatMap((module) => {
      const part = read.at('parts', read.at('modules', module)?.part ?? '');
      return part?.kind === 'module' ? [part.data.senseLeadLimitA] : [];
    });
  const limitA = carriesA ?? (moduleLimits.length === 0 ? undefined : Math.min(...moduleLimits));
  const missing = (value: unknown, field: string, label: string): Gap[] =>
    value === undefined ? [{ kind: 'not-given', path: `${at}.${field}`, label: `${label} of ${tag}` }] : [];
  const n = formatNumber;
  const v = (label: string, value: number, unit = 'A'): CheckValue => ({ label, value, unit });
  const where = missing(fused, 'fused', 'fuse');
  // Without a fuse there is nothing more to hold against anything.
  const has = fused !== 'none';
  const check = (
    of: (typeof senseRules)[keyof typeof senseRules],
    gaps: Gap[],
    off: string | null,
    values: CheckValue[],
  ) => judge(of, [id], gaps, off === null ? null : `${tag}: ${off}.`, values);
  return [
    check(senseRules.unfused, where, fused === 'none' ? '0 fuses in the leads' : null, [
      v('fuses in the leads', fused === 'none' ? 0 : 1, ''),
    ]),
    check(
      senseRules.far,
      where,
      fused === 'monitor' ? `the ${n(fuseA ?? 0)} A fuses sit at the monitor` : null,
      [v('fuse', fuseA ?? 0)],
    ),
    ...(has
      ? [
          check(
            senseRules.voltage,
            [
              ...missing(fuseV, 'fuseV', 'voltage of the fuse'),
              ...(highest.value === null ? gapsBehind(highest) : []),
            ],
            (highest.value ?? 0) > (fuseV ?? Infinity)
              ? `fuses for ${n(fuseV!)} V, the pack reaches ${n(highest.value ?? 0)} V`
              : null,
            [v('highest pack voltage', highest.value ?? 0, 'V'), v('made for', fuseV ?? 0, 'V')],
          ),
          check(
            senseRules.lead,
            [...missing(fuseA, 'fuseA', 'fuse'), ...missing(limitA, 'carriesA', 'what a lead carries')],
            (fuseA ?? 0) > (limitA ?? Infinity)
              ? `fuses of ${n(fuseA ?? 0)} A before leads that carry ${n(limitA!)} A`
              : null,
            [v('fuse', fuseA ?? 0), v('lead carries', limitA ?? 0)],
          ),
          check(
            senseRules.bleed,
            missing(fuseA, 'fuseA', 'fuse'),
            fuseA !== undefined && bleedA > fuseA * forYears
              ? `the monitor bleeds ${n(bleedA)} A; a fuse of ${n(fuseA)} A takes ${n(fuseA * forYears)} A for years`
              : null,
            [v('bleed', bleedA), v('fuse', fuseA ?? 0), v('takes for years', (fuseA ?? 0) * forYears)],
          ),
        ]
      : []),
  ];
}
