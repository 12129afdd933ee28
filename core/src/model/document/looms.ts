import { list, text } from '../../ground/shape';
import { choice, chosen, flag, num, pairs, part, refer, tag, words, type Field, type ItemOf } from './field';
import type { Id } from './id';

/** What looms carry. */
export const loomSystems = ['low voltage', 'sense', 'CAN', 'interlock', 'signal'] as const;
export const loomEndKinds = ['connector', 'splice', 'ground', 'fuse box', 'branch'] as const;

/** Where wires end or bundles part: a connector, a splice, a ground, a fuse box, or a fork of a loom. */
export const endFields = {
  tag,
  kind: chosen('Kind', loomEndKinds),
  connector: part('Connector', 'connector'),
  device: refer('Belongs to', 'devices'),
  /** What its returns carry: a ground of sense takes no load. */
  forSense: flag('Returns of sensors'),
  /** Two of one make side by side: the plug of one goes into the socket of the other. */
  place: words('Place'),
};
export interface EndItem extends ItemOf<typeof endFields> {}

/** A stretch of loom between two ends. */
export const bundleFields = {
  tag,
  from: refer('From', 'ends'),
  to: refer('To', 'ends'),
  lengthM: num('Length', 'm', { usual: [0.02, 25] }),
};
export interface BundleItem extends ItemOf<typeof bundleFields> {}

/** What joins two plugs whose pins are numbered in different ways: which pin of the one is which of the other. */
export const adapterFields = {
  tag,
  from: refer('Plug', 'ends'),
  to: refer('Goes on to', 'ends'),
  pins: pairs('Pin to pin'),
};
export interface AdapterItem extends ItemOf<typeof adapterFields> {}

/** A line of the shop’s code of colours: what wires of this purpose look like. */
export const colourFields = {
  tag,
  colour: words('Colour'),
};
export interface ColourItem extends ItemOf<typeof colourFields> {}

export const wireStates = ['provisional', 'frozen'] as const;
/** Of an old loom: what becomes of a wire. */
export const oldWire = ['new', 'kept', 'extended', 'spliced', 'capped'] as const;

const twistedWith: Field<Id, false> = refer('Twisted with', 'wires');
const carries: Field<Id[], false> = {
  label: 'Carries the loads',
  schema: list.optional(text(), { maxRows: 50 }),
  given: false,
  refersTo: 'loads',
};

/** A wire from pin to pin. */
export const wireFields = {
  tag,
  system: choice('System', loomSystems),
  from: refer('From', 'ends'),
  fromPin: num('Pin', '', { usual: [1, 200] }),
  to: refer('To', 'ends'),
  toPin: num('Pin', '', { usual: [1, 200] }),
  wire: part('Wire', 'wire'),
  /** Typed, it holds instead of that of the code. */
  colour: words('Colour'),
  code: refer('Colour by the code', 'colours'),
  /** Typed, it holds instead of the way through the bundles. */
  lengthM: num('Length', 'm', { usual: [0.02, 40] }),
  carries,
  currentA: num('Current', 'A', { usual: [0.001, 200] }),
  fuseA: num('Fuse', 'A', { usual: [0.1, 150] }),
  twistedWith,
  state: choice('State', wireStates),
  was: choice('Of the old loom', oldWire),
};
export interface WireItem extends ItemOf<typeof wireFields> {}
