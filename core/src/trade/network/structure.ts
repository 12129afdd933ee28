import type { CircuitItem, DeviceItem, StringItem } from '../../model/document';
import type { ModuleData } from '../../model/parts';
import type { SharedView } from '../../model/step';
import type { NetworkSlices } from './feeding';

/** In place of a part whose being there is all that counts. */
const given = 'given';

const pick = <T extends object, K extends keyof T>(item: T, ...keys: K[]): Pick<T, K> => {
  const picked: Partial<T> = {};
  for (const key of keys) if (item[key] !== undefined) picked[key] = item[key];
  return picked as Pick<T, K>;
};

const each = <T, R>(items: Readonly<Record<string, T>>, of: (item: T) => R): Record<string, R> =>
  Object.fromEntries(Object.entries(items).map(([id, item]) => [id, of(item)]));

/** With `given` for each of these parts that is there. */
const partsGiven = <K extends string>(item: Readonly<Partial<Record<K, string>>>, ...keys: K[]) =>
  Object.fromEntries(keys.flatMap((key) => (item[key] === undefined ? [] : [[key, given]])));

const circuit = (item: CircuitItem): CircuitItem => ({
  ...pick(item, 'tag', 'role', 'device', 'poles', 'tap', 'ends', 'box', 'fusePole'),
  ...partsGiven(item, 'contactor', 'resistor', 'fuse'),
});

const device = (item: DeviceItem): DeviceItem => pick(item, 'tag', 'kind', 'insulationMonitor');

const string = (item: StringItem): StringItem => ({
  ...pick(item, 'tag', 'fuseAt', 'disconnectAt', 'contactorPoles', 'contactorsIn', 'ends'),
  modules: item.modules,
  ...partsGiven(item, 'contactor', 'fuse'),
});

/** Of a kind of module all that shows in how things connect. */
const voltageAlone = ({ cell, ...data }: ModuleData): ModuleData => ({
  ...data,
  cell: { ...cell, resistanceOhm: 0, ocvTable: [] },
});

/**
 * How a design is put together, without what its parts are rated for: what the rules of the network go by. Resistances and
 * ratings of the graph made of it are not known.
 */
export const structureView: SharedView<NetworkSlices> = {
  id: 'network.structure',
  make: (design) => ({
    pack: pick(design.pack, 'mainsBox', 'combinerBox'),
    boxes: each(design.boxes, ({ tag }) => ({ tag })),
    strings: each(design.strings, string),
    modules: each(design.modules, (item) => pick(item, 'tag', 'part', 'box')),
    devices: each(design.devices, device),
    circuits: each(design.circuits, circuit),
    parts: Object.fromEntries(
      Object.entries(design.parts).flatMap(([key, part]) =>
        part.kind === 'module' ? [[key, { ...part, data: voltageAlone(part.data) }]] : [],
      ),
    ),
  }),
};
