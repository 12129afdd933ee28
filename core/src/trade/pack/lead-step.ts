import { leadDefaults, type Design, type Id, type LeadItem } from '../../model/document';
import { figureId, type Figure, type Gap } from '../../ground/figure';
import { resistancePerM } from '../../model/parts';
import type { Reader, StepDefinition } from '../../model/step';

/** Resistance of a cable of the pack with its contacts, at 20 °C; of both where one lies at either end. */
export const leadOhm = (lead: Id) => figureId('pack.lead', lead, 'ohm');

/** One where it names a joint, else one at either end: of its string, or of the pack’s two poles. */
export const cablesOf = ({ joint }: Pick<LeadItem, 'joint'>): number => (joint === undefined ? 2 : 1);

/** Leads of a string by its id, of the whole pack by `null`. */
export const leadsOf = (leads: Design['pack']['leads'], string: Id | null): [Id, LeadItem][] =>
  Object.entries(leads ?? {}).filter(([, lead]) => (lead.string ?? null) === string);

/** Of one cable with its contacts, Ω at 20 °C; null: not known. */
export function oneLeadOhm(lead: LeadItem, parts: Design['parts']): number | null {
  const part = parts[lead.cable ?? ''];
  const { lengthM, parallel = leadDefaults.parallel, contactOhm = leadDefaults.contactOhm } = lead;
  if (part?.kind !== 'cable' || lengthM === undefined || !(lengthM > 0)) return null;
  const ohm = (lengthM * resistancePerM(part.data.areaMm2, 20)) / parallel + contactOhm;
  return Number.isFinite(ohm) && parallel >= 1 && contactOhm >= 0 ? ohm : null;
}

/** Each cable of the pack as a resistance. */
export const leadStep: StepDefinition = {
  id: 'pack.lead',
  version: 1,
  subjects: ({ pack }) => Object.keys(pack.leads ?? {}),
  compute(subject, read) {
    const lead = read.at('pack').leads![subject]!;
    const at = `pack.leads.${subject}`;
    const part = read.at('parts', lead.cable ?? '');
    const { lengthM, parallel = leadDefaults.parallel, contactOhm = leadDefaults.contactOhm, tag } = lead;
    const perM = part?.kind === 'cable' ? resistancePerM(part.data.areaMm2, 20) : 0;
    const invalid = (field: string, label: string, message: string): Gap => ({
      kind: 'invalid',
      path: `${at}.${field}`,
      label: `${label} of ${tag}`,
      message,
    });
    const gaps: Gap[] = [
      ...(part?.kind === 'cable'
        ? []
        : [{ kind: 'not-given' as const, path: `${at}.cable`, label: `cable of ${tag}` }]),
      ...(lengthM === undefined
        ? [{ kind: 'not-given' as const, path: `${at}.lengthM`, label: `length of ${tag}` }]
        : lengthM > 0
          ? []
          : [invalid('lengthM', 'length', 'must be above 0')]),
      ...(parallel >= 1 ? [] : [invalid('parallel', 'conductors in parallel', 'must be 1 or more')]),
      ...(contactOhm >= 0 ? [] : [invalid('contactOhm', 'contacts', 'must be 0 or more')]),
      ...(Number.isFinite(perM) ? [] : [invalid('cable', 'area', 'is not one of IEC 60228')]),
    ];
    const count = cablesOf(lead);
    const value = count * (oneLeadOhm(lead, read.at('parts')) ?? 0);
    const label = 'Resistance of the cable';
    const origin = (given: number | undefined, field: string) => ({
      kind: given === undefined ? ('default' as const) : ('document' as const),
      path: `${at}.${field}`,
    });
    return {
      figures: [
        {
          id: leadOhm(subject),
          label,
          unit: 'Ω',
          value: gaps.length > 0 ? null : value,
          gaps,
          working:
            gaps.length > 0
              ? []
              : [
                  {
                    symbol: 'R_c',
                    label,
                    formula: 'z·(l·r/p + R_k)',
                    inputs: [
                      {
                        symbol: 'z',
                        label: 'cables',
                        value: count,
                        unit: '',
                        origin: origin(lead.joint, 'joint'),
                      },
                      { symbol: 'l', value: lengthM!, unit: 'm', origin: origin(lengthM, 'lengthM') },
                      {
                        symbol: 'r',
                        value: perM,
                        unit: 'Ω/m',
                        origin: { kind: 'part', key: lead.cable ?? '', path: 'areaMm2' },
                      },
                      { symbol: 'p', value: parallel, unit: '', origin: origin(lead.parallel, 'parallel') },
                      {
                        symbol: 'R_k',
                        value: contactOhm,
                        unit: 'Ω',
                        origin: origin(lead.contactOhm, 'contactOhm'),
                      },
                    ],
                    value,
                    unit: 'Ω',
                    source: 'IEC 60228 at 20 °C, with the lugs at both ends',
                  },
                ],
        } satisfies Figure,
      ],
      checks: [],
    };
  },
};

/** What cables and service disconnect put into each string, and cables into both poles of the pack; what is not known yet is not counted. */
export interface InSeries {
  /** By string. */
  strings: Map<Id, number>;
  packOhm: number;
}

export function inSeries(read: Reader): InSeries {
  const { leads } = read.at('pack');
  const sum = (string: Id | null) =>
    leadsOf(leads, string).reduce((total, [id]) => total + (read.figure(leadOhm(id)).value ?? 0), 0);
  const strings = new Map<Id, number>();
  for (const [id, { modules, disconnect, disconnectAt }] of Object.entries(read.at('strings'))) {
    if (modules.length === 0) continue;
    const part = disconnectAt === undefined ? undefined : read.at('parts', disconnect ?? '');
    strings.set(id, sum(id) + (part?.kind === 'disconnect' ? part.data.contactOhm : 0));
  }
  return { strings, packOhm: sum(null) };
}

/** What strings side by side have in common with one that stands for them all: their resistances in parallel, times their number. */
export function standsForAll(cellsOhm: number, extraOhm: readonly number[]): number {
  if (extraOhm.length === 0) return 0;
  const totals = extraOhm.map((extra) => cellsOhm + extra);
  if (totals.some((total) => !(total > 0))) return Math.max(...extraOhm);
  return extraOhm.length / totals.reduce((sum, total) => sum + 1 / total, 0) - cellsOhm;
}
