import { figureId, type Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import { everyCircuit, heaterOfDevice } from '../../model/document';
import { gapsBehind, judge, type StepDefinition } from '../../model/step';
import { deviceLoad } from './device-load';
import { networkRules } from './rules';

const n = formatNumber;
/** The load that is typed may be so far from what the device draws, as a share of that. */
const [leastOf, mostOf] = [0.85, 3];

/** Each circuit whose device has a power of its own: its load against that. What charges is judged where charging is. */
export const deviceLoadStep: StepDefinition = {
  id: 'network.device-load',
  version: 1,
  subjects: (design) =>
    everyCircuit(design).filter((id) => {
      const { kind, ratedPowerW } = design.devices[design.circuits[id]?.device ?? ''] ?? {};
      // A heater’s load is its power; of what else nobody gives a power, it is no matter of the bus.
      return kind === 'heater' || (ratedPowerW !== undefined && kind !== 'charger' && kind !== 'dc-dc');
    }),
  compute(subject, read) {
    const circuits = { [subject]: read.at('circuits', subject)! };
    const design = {
      circuits,
      devices: read.at('devices'),
      parts: read.at('parts'),
      boxes: read.at('boxes'),
      plumbing: read.at('plumbing'),
    };
    const lowest = read.figure(figureId('pack.source', 'pack', 'voltageAtLowV'));
    const highest = read.figure(figureId('pack.pack', 'pack', 'voltageMaxV'));
    const typed = read.figure(figureId('network.load', subject, 'peakA'));
    const load = deviceLoad(design, subject, lowest.value, highest.value);
    const id = circuits[subject]!.device!;
    const { tag: fed, ratedPowerW, kind } = design.devices[id]!;
    const isPlaced = kind === 'heater' && heaterOfDevice(design, id) !== null;
    const gaps: Gap[] = [
      ...(ratedPowerW === undefined && !isPlaced
        ? [
            {
              kind: 'not-given' as const,
              path: `devices.${id}.ratedPowerW`,
              label: `rated power of ${fed}`,
            },
          ]
        : []),
      ...[typed, highest, lowest].flatMap((one) => (one.value === null ? gapsBehind(one) : [])),
    ];
    const drawsA = load.ok ? load.profile[0]![1] : null;
    const typedA = typed.value ?? 0;
    const off = drawsA !== null && (typedA < drawsA * leastOf || typedA > drawsA * mostOf);
    const { tag } = circuits[subject]!;
    return {
      figures: [],
      checks: [
        judge(
          networkRules.loadApart,
          [subject],
          gaps,
          gaps.length === 0 && off && load.ok
            ? `${tag} is judged by ${n(typedA)} A; ${load.by} draws ${n(drawsA)} A.`
            : null,
          [
            { label: 'judged by', value: typedA, unit: 'A' },
            { label: 'draws', value: drawsA ?? 0, unit: 'A' },
          ],
        ),
      ],
    };
  },
};
