import type { Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import { judge, type StepDefinition } from '../../model/step';
import { count, yes } from './counted';
import { chargeRules } from './rules';
import { saysCharging } from './says';

const n = formatNumber;

/** What ends a charge when the charger does not. */
export const cutStep: StepDefinition = {
  id: 'charge.cut',
  version: 1,
  subjects: (design) => [...(saysCharging(design) ? ['vehicle'] : []), ...Object.keys(design.cuts ?? {})],
  compute(subject, read) {
    const cuts = read.at('cuts') ?? {};
    if (subject === 'vehicle') {
      const charging = Object.entries(read.at('devices')).filter(
        ([, { kind }]) => kind === 'charger' || kind === 'dc-inlet',
      );
      const chargers = charging.map(([, device]) => device);
      return {
        figures: [],
        checks: [
          judge(
            chargeRules.noStop,
            ['vehicle'],
            [],
            chargers.length > 0 && Object.keys(cuts).length === 0
              ? `${chargers.map((one) => one.tag).join(' and ')} can charge the pack; ${n(0)} independent cuts are given.`
              : null,
            [count('independent cuts', Object.keys(cuts).length)],
            { also: charging.map(([id]) => id) },
          ),
        ],
      };
    }
    const cut = cuts[subject]!;
    const { tag, opens } = cut;
    const unsaid = (value: unknown, path: string, label: string): Gap[] =>
      value === undefined
        ? [{ kind: 'not-given', path: `cuts.${subject}.${path}`, label: `${label} of ${tag}` }]
        : [];
    const atMains = opens === 'feed of the mains';
    return {
      figures: [],
      checks: [
        judge(
          chargeRules.cutPowered,
          [subject],
          unsaid(cut.opensUnpowered, 'opensUnpowered', 'state without power'),
          cut.opensUnpowered === false ? `Without power ${tag} opens ${n(0)} contacts.` : null,
          [yes('open without power', cut.opensUnpowered)],
        ),
        judge(
          chargeRules.cutPhases,
          [subject],
          [
            ...unsaid(opens, 'opens', 'place'),
            ...(atMains ? unsaid(cut.everyPhase, 'everyPhase', 'phases') : []),
          ],
          atMains && cut.everyPhase === false
            ? `${tag} parts ${n(0)} phases for certain: not every one is said to open.`
            : null,
          [yes('every phase', cut.everyPhase)],
        ),
        judge(
          chargeRules.cutRearms,
          [subject],
          unsaid(cut.latches, 'latches', 'how it closes again'),
          cut.latches === false
            ? `${tag} closes again by itself, after ${n(0)} times armed.`
            : cut.latches === true && cut.armedAt === undefined
              ? `${n(0)} places are named where ${tag} is armed again.`
              : null,
          [
            yes('stays open', cut.latches),
            count('armed again at', cut.armedAt === undefined ? 0 : 1),
            count('times armed', 0),
          ],
        ),
      ],
    };
  },
};
