import { formatNumber } from '../../ground/quantity';
import type { Gap } from '../../ground/figure';
import { judge, type StepDefinition } from '../../model/step';
import { lowVoltageRules } from './rules';

const n = formatNumber;
/** Applications that a reservoir alone has to give. */
const leastApplications = 3;

/** Each service that the engine gave: what does it now, what feeds it, and who is told when it fails. */
export const serviceStep: StepDefinition = {
  id: 'low-voltage.service',
  version: 1,
  subjects: ({ services = {} }) => Object.keys(services),
  compute(subject, read) {
    const service = read.at('services')![subject]!;
    const { tag, kind, successor, load, device, reserveCount } = service;
    const unsaid = (value: unknown, path: string, label: string): Gap[] =>
      value === undefined
        ? [{ kind: 'not-given', path: `services.${subject}.${path}`, label: `${label} of ${tag}` }]
        : [];
    const fed = load === undefined ? undefined : read.at('loads')?.[load];
    const hot = device !== undefined && ['cabin heat', 'demisting'].includes(kind);
    const feeds = (load === undefined ? 0 : 1) + (device === undefined ? 0 : 1);
    const guards = (service.withBlower === true ? 1 : 0) + (service.cutOut === true ? 1 : 0);
    const needsReserve = kind === 'brake assistance';
    return {
      figures: [],
      checks: [
        judge(
          lowVoltageRules.noSuccessor,
          [subject],
          [],
          successor === undefined || (load === undefined && device === undefined)
            ? `${tag}: ${successor === undefined ? `nothing takes over, ${n(feeds)} feeds` : `${successor} has ${n(feeds)} feeds`}.`
            : null,
          [
            {
              label: 'feeds',
              value: feeds,
              unit: '',
            },
          ],
        ),
        judge(
          lowVoltageRules.noWarning,
          [subject],
          unsaid(service.warns, 'warns', 'warning'),
          service.warns === false ? `${tag} fails with ${n(0)} warnings.` : null,
          [{ label: 'warns', value: service.warns === true ? 1 : 0, unit: '' }],
        ),
        judge(
          lowVoltageRules.shed,
          [subject],
          [],
          fed?.essential === false ? `${tag} is fed as ${fed.tag}: ${n(0)} of its feeds must live.` : null,
          [{ label: 'cannot be left out', value: fed?.essential === false ? 0 : 1, unit: '' }],
          { also: load === undefined ? [] : [load] },
        ),
        judge(
          lowVoltageRules.serviceIdle,
          [subject],
          fed !== undefined && fed.when === undefined
            ? [{ kind: 'not-given', path: `loads.${load}.when`, label: `when ${fed.tag} runs` }]
            : [],
          fed?.when === 'charging' ? `${tag} is fed as ${fed.tag}, which runs ${n(0)} h of a drive.` : null,
          [{ label: 'runs while driving', value: fed?.when === 'charging' ? 0 : 1, unit: 'h' }],
          { also: load === undefined ? [] : [load] },
        ),
        judge(
          lowVoltageRules.hotHeat,
          [subject],
          hot
            ? [
                ...unsaid(service.withBlower, 'withBlower', 'interlock'),
                ...unsaid(service.cutOut, 'cutOut', 'cut-out'),
              ]
            : [],
          hot && (service.withBlower === false || service.cutOut === false)
            ? `${tag} has ${n(guards)} of ${n(2)} guards: ${[...(service.withBlower === false ? ['heat without its blower'] : []), ...(service.cutOut === false ? ['no thermal cut-out'] : [])].join(', ')}.`
            : null,
          [
            { label: 'interlocked with its blower', value: service.withBlower === true ? 1 : 0, unit: '' },
            { label: 'guards', value: guards, unit: '' },
            { label: 'guards asked', value: 2, unit: '' },
            { label: 'thermal cut-out', value: service.cutOut === true ? 1 : 0, unit: '' },
          ],
        ),
        judge(
          lowVoltageRules.reserve,
          [subject],
          needsReserve ? unsaid(reserveCount, 'reserveCount', 'reserve') : [],
          needsReserve && reserveCount !== undefined && reserveCount < leastApplications
            ? `${tag}: ${n(reserveCount)} times with its pump off; ${n(leastApplications)} are asked.`
            : null,
          [
            { label: 'times', value: reserveCount ?? 0, unit: '' },
            { label: 'asked', value: leastApplications, unit: '' },
          ],
        ),
      ],
    };
  },
};
