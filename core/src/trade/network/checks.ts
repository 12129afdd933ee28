import { mainCircuit, type Id } from '../../model/document';
import type { Check, Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import { judge } from '../../model/step';
import { deriveNetwork } from './derive';
import { feedingCircuit, type NetworkSlices } from './feeding';
import { hvBus } from './derive-circuit';
import type { DerivedElement, Network } from './network-builder';
import { fedTerminals } from './reachable';
import { networkRules as rules } from './rules';

/** Every finding about how things connect, raised, clear or not checked. */
export function networkChecks(design: NetworkSlices): Check[] {
  const network = deriveNetwork(design);
  const filled = Object.keys(design.strings).filter((id) => design.strings[id]!.modules.length > 0);
  const noPack: Gap[] =
    filled.length === 0 ? [{ kind: 'not-given', path: 'strings', label: 'modules in series' }] : [];
  const fed: Fed = {
    atRest: fedTerminals(network.elements, isContactor),
    withMainsOpen: fedTerminals(
      network.elements,
      (one) => isContactor(one) && one.duty !== 'branch' && one.duty !== 'inlet',
    ),
    withoutFuses: fedTerminals(network.elements, ({ kind }) => kind === 'fuse'),
  };
  return [
    ...filled.flatMap((id) => stringChecks(design, network, id, filled.length)),
    ...Object.keys(design.devices).flatMap((id) => deviceChecks(design, network, id, fed, noPack)),
    ...mainsChecks(design, network, fed.atRest, noPack),
    ...ownersWithCables(network, filled, design).map((owner) => interlockCheck(design, network, owner)),
    monitorsCheck(design, noPack),
    ...Object.keys(design.circuits).flatMap((id) => branchChecks(design, id, noPack)),
  ];
}

/** Terminals on the pack, by what stands open. */
interface Fed {
  atRest: Map<string, number>;
  withMainsOpen: Map<string, number>;
  withoutFuses: Map<string, number>;
}

const isContactor = ({ kind }: DerivedElement) => kind === 'contactor';
const elementsOf = (network: Network, owner: Id) => network.elements.filter((one) => one.owner === owner);

function stringChecks(design: NetworkSlices, network: Network, id: Id, strings: number): Check[] {
  const string = design.strings[id]!;
  const own = elementsOf(network, id);
  const modules = own.filter(({ kind }) => kind === 'module');
  const total = modules.reduce((sum, { voltageV }) => sum + voltageV!, 0);
  const disconnect = own.find(({ kind }) => kind === 'service-disconnect');
  const joint = disconnect?.joint ?? 0;
  const below = modules.slice(0, joint).reduce((sum, { voltageV }) => sum + voltageV!, 0);
  const larger = Math.max(below, total - below);
  const best = Math.min(
    ...modules.map((_, i) => Math.max(sumTo(modules, i + 1), total - sumTo(modules, i + 1))),
  );
  const fused =
    own.some(({ kind }) => kind === 'fuse') ||
    (strings === 1 && design.circuits[mainCircuit]?.fuse !== undefined);
  const volts = (value: number) => `${formatNumber(value, 4)} V`;
  const values = [{ label: 'voltage of the string', value: total, unit: 'V' }];
  return [
    judge(
      rules.disconnectMissing,
      [id],
      [],
      disconnect === undefined && modules.length > 1
        ? `${string.tag} holds ${volts(total)} and has no service disconnect.`
        : null,
      values,
    ),
    judge(
      rules.disconnectAway,
      [id],
      [],
      disconnect !== undefined && larger > best + 1e-6
        ? `With the disconnect of ${string.tag} out one side still holds ${volts(larger)} of ${volts(total)}; nearest to the middle it would be ${volts(best)}.`
        : null,
      [
        ...values,
        { label: 'larger side', value: larger, unit: 'V' },
        { label: 'larger side at the best', value: best, unit: 'V' },
      ],
    ),
    judge(
      rules.stringFuse,
      [id],
      [],
      fused ? null : `${string.tag}, ${volts(total)}, has no fuse of its own.`,
      values,
    ),
  ];
}

const sumTo = (modules: DerivedElement[], count: number) =>
  modules.slice(0, count).reduce((sum, { voltageV }) => sum + voltageV!, 0);

function deviceChecks(design: NetworkSlices, network: Network, id: Id, fed: Fed, noPack: Gap[]): Check[] {
  const device = design.devices[id]!;
  const circuitId = feedingCircuit(design, id);
  const circuit = circuitId === null ? undefined : design.circuits[circuitId];
  const unfed = judge(
    rules.unfed,
    [id],
    noPack,
    circuit === undefined
      ? `${device.tag} is 1 of ${Object.keys(design.devices).length} devices, and no circuit feeds it.`
      : null,
    [{ label: 'devices', value: Object.keys(design.devices).length, unit: '' }],
  );
  if (circuit === undefined) return [unfed];
  const load = network.elements.find((one) => one.id === id);
  const poles = (terminals: Map<string, number>) =>
    load === undefined ? 0 : Number(terminals.has(load.a)) + Number(terminals.has(load.b));
  const past =
    load !== undefined &&
    fed.withoutFuses.has(load.a) &&
    fed.withoutFuses.get(load.a) === fed.withoutFuses.get(load.b);
  const fuses = network.elements.filter(({ kind }) => kind === 'fuse').length;
  const still = poles(fed.withMainsOpen);
  const checks = [
    unfed,
    judge(
      rules.loadFuse,
      [id],
      noPack,
      past
        ? fuses === 0
          ? `A short at ${device.tag} is fed, and there is no fuse in the design.`
          : `A short at ${device.tag} is fed with all ${fuses} fuses of the design taken out.`
        : null,
      [{ label: 'fuses', value: fuses, unit: '' }],
    ),
    judge(
      rules.loadContactor,
      [id],
      noPack,
      poles(fed.atRest) === 2 ? `${device.tag} has 2 poles on the pack with every contactor open.` : null,
      [{ label: 'poles on the pack', value: poles(fed.atRest), unit: '' }],
    ),
  ];
  if (circuit.role === 'branch')
    checks.push(
      judge(
        rules.beforeMains,
        [circuitId!],
        noPack,
        circuit.tap === 'before' && still > 0
          ? `${circuit.tag} hangs before the mains: ${still === 2 ? '2 poles' : '1 pole'} of ${device.tag} stay on the pack when the mains open.`
          : null,
        [{ label: 'poles on the pack', value: still, unit: '' }],
      ),
    );
  return checks;
}

function mainsChecks(
  design: NetworkSlices,
  network: Network,
  fed: Map<string, number>,
  noPack: Gap[],
): Check[] {
  const main = design.circuits[mainCircuit];
  const poles = [hvBus.plus, hvBus.minus].filter((terminal) => fed.has(terminal));
  const noContactor: Gap[] =
    main?.contactor === undefined && main?.poles === undefined
      ? [{ kind: 'not-given', path: `circuits.${mainCircuit}.contactor`, label: 'main contactors' }]
      : [];
  const outside = network.elements.filter(({ kind, a, b }) => kind === 'cable' && (fed.has(a) || fed.has(b)));
  const live = new Map<string, number>();
  for (const { symbol } of outside) live.set(symbol, (live.get(symbol) ?? 0) + 1);
  const tags = [...live.keys()].map((id) => network.symbols.find((symbol) => symbol.id === id)?.tag ?? id);
  return [
    judge(
      rules.singlePole,
      [mainCircuit],
      [...noPack, ...noContactor],
      poles.length === 1
        ? `With every contactor open the ${poles[0] === hvBus.plus ? 'positive' : 'negative'} pole of the bus, 1 of 2, stays on the pack.`
        : null,
      [{ label: 'poles on the pack', value: poles.length, unit: '' }],
    ),
    judge(
      rules.liveOutside,
      ['pack'],
      noPack,
      tags.length > 0
        ? `${tags.length} ${tags.length === 1 ? 'cable stays' : 'cables stay'} live with every contactor open: ${tags.slice(0, 6).join(', ')}${tags.length > 6 ? ` and ${tags.length - 6} more` : ''}.`
        : null,
      [{ label: 'cables always live', value: tags.length, unit: '' }],
    ),
  ];
}

function ownersWithCables(network: Network, filled: Id[], design: NetworkSlices): Id[] {
  const owners = new Set(network.elements.filter(({ kind }) => kind === 'cable').map(({ owner }) => owner));
  return [...filled, ...Object.keys(design.circuits)].filter((id) => owners.has(id));
}

function interlockCheck(design: NetworkSlices, network: Network, owner: Id): Check {
  const isString = Object.hasOwn(design.strings, owner);
  const item = isString ? design.strings[owner]! : design.circuits[owner]!;
  const plugs = elementsOf(network, owner).filter(({ kind }) => kind === 'connector').length;
  const gaps: Gap[] =
    item.ends === undefined
      ? [
          {
            kind: 'not-given',
            path: `${isString ? 'strings' : 'circuits'}.${owner}.ends`,
            label: `how the cables of ${item.tag} pass the walls`,
          },
        ]
      : [];
  return judge(
    rules.interlock,
    [owner],
    gaps,
    item.ends === 'plain' ? `${item.tag} has ${plugs} plugs without interlock contacts.` : null,
    [{ label: 'plugs', value: plugs, unit: '' }],
  );
}

/** Each branch for itself: what it feeds, its fuse, and the poles of an inlet. */
function branchChecks(design: NetworkSlices, id: Id, noPack: Gap[]): Check[] {
  const { tag, role, device: fed, fuse, fusePole: pole = 'plus', poles, contactor } = design.circuits[id]!;
  if (role !== 'branch') return [];
  const device = design.devices[fed ?? ''];
  const feeds = judge(
    rules.feedsNothing,
    [id],
    noPack,
    device === undefined
      ? `${tag} is 1 of ${Object.keys(design.circuits).length} circuits, and feeds nothing.`
      : null,
    [{ label: 'circuits', value: Object.keys(design.circuits).length, unit: '' }],
  );
  if (device === undefined) return [feeds];
  const switched = contactor === undefined && poles === undefined ? 'none' : (poles ?? 'both');
  const { fuse: mainFuse, fusePole: mainPole = 'plus' } = design.circuits[mainCircuit] ?? {};
  return [
    feeds,
    judge(
      rules.branchUnfused,
      [id],
      noPack,
      fuse === undefined ? `${tag} leads to ${device.tag} with 0 fuses of its own.` : null,
      [{ label: 'fuses', value: fuse === undefined ? 0 : 1, unit: '' }],
    ),
    judge(
      rules.fusePoles,
      [id],
      noPack,
      fuse !== undefined &&
        mainFuse !== undefined &&
        pole !== mainPole &&
        pole !== 'both' &&
        mainPole !== 'both'
        ? `The fuse of ${tag} sits in the ${pole === 'plus' ? 'positive' : 'negative'} pole, the main fuse in the other of 2.`
        : null,
      [{ label: 'poles', value: 2, unit: '' }],
    ),
    ...(device.kind === 'dc-inlet'
      ? [
          judge(
            rules.inlet,
            [id],
            noPack,
            switched === 'both'
              ? null
              : `${device.tag}: ${switched === 'none' ? '0' : '1'} of 2 poles of ${tag} ${switched === 'none' ? 'are' : 'is'} switched.`,
            [
              {
                label: 'poles switched',
                value: switched === 'both' ? 2 : switched === 'none' ? 0 : 1,
                unit: '',
              },
            ],
          ),
        ]
      : []),
  ];
}

/** All devices hang on one network once every contactor is closed. */
function monitorsCheck(design: NetworkSlices, noPack: Gap[]): Check {
  const active = Object.values(design.devices).filter(
    ({ insulationMonitor }) => insulationMonitor === 'active',
  );
  return judge(
    rules.monitors,
    ['bus'],
    noPack,
    active.length > 1
      ? `${active.length} active insulation monitors: ${active.map(({ tag }) => tag).join(', ')}.`
      : null,
    [{ label: 'active monitors', value: active.length, unit: '' }],
  );
}
