import { figureId, type Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import { everyCircuit, mainCircuit } from '../../model/document';
import { gapsBehind, judge, type StepDefinition } from '../../model/step';
import { onMainBus } from '../network';
import { derating } from './limits';
import { togetherRule } from './rules';

/** What is fed through the main fuse and the mains, all at once: the main circuit’s load and those of the branches behind it. */
export const sumStep: StepDefinition = {
  id: 'fuse.sum',
  version: 1,
  subjects: ({ circuits }) => (Object.keys(circuits).length > 1 ? [mainCircuit] : []),
  compute(subject, read) {
    const circuits = read.at('circuits');
    const devices = read.at('devices');
    const behind = new Set(onMainBus({ circuits, devices }));
    // What charges does not run while the vehicle drives.
    const ids = everyCircuit({ circuits }).filter((id) => {
      const { role, device = '' } = circuits[id]!;
      const kind = devices[device]?.kind;
      return role === 'main' || (behind.has(device) && kind !== 'charger' && kind !== 'dc-inlet');
    });
    const loads = ids.map((id) => read.figure(figureId('network.load', id, 'rmsA')));
    const gaps = loads.flatMap((figure) => (figure.value === null ? gapsBehind(figure) : []));
    const { fuse: fuseKey = '', contactor: contactorKey = '', fuseAmbientC = 25 } = circuits[subject]!;
    const fuse = read.at('parts', fuseKey);
    const contactor = read.at('parts', contactorKey);
    const noFuse: Gap[] =
      fuse?.kind === 'fuse' ? [] : [{ kind: 'not-given', path: `circuits.${subject}.fuse`, label: 'fuse' }];
    const loadA = loads.reduce((sum, { value }) => sum + (value ?? 0), 0);
    const fuseA =
      fuse?.kind === 'fuse'
        ? fuse.data.ratedA * derating({ ...fuse.data, ambientC: fuseAmbientC }).value
        : Infinity;
    const contactsA = contactor?.kind === 'contactor' ? contactor.data.continuousA : Infinity;
    const carriesA = Math.min(fuseA, contactsA);
    // The main circuit’s own load is judged by itself.
    const over = ids.length > 1 && loadA > carriesA && (loads[0]?.value ?? 0) <= carriesA;
    return {
      figures: [],
      checks: [
        judge(
          togetherRule,
          [subject],
          [...gaps, ...noFuse],
          over
            ? `${ids.length} circuits together ask for ${formatNumber(loadA)} A; ${fuseA <= contactsA ? 'the main fuse carries' : 'the mains carry'} ${formatNumber(carriesA)} A.`
            : null,
          [
            { label: 'circuits', value: ids.length, unit: '' },
            { label: 'all loads', value: loadA, unit: 'A' },
            { label: 'carried', value: Number.isFinite(carriesA) ? carriesA : 0, unit: 'A' },
          ],
          { parts: [fuseKey, contactorKey].filter((key) => key !== '') },
        ),
      ],
    };
  },
};
