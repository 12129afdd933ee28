import { mapOf, oneOf } from '../../ground/shape';
import { partSchema, type Part, type PartKey } from '../parts';
import {
  chargingFields,
  cutFields,
  inletFields,
  limitFields,
  supplyFields,
  thresholdFields,
} from './charging';
import { circuitFields, deviceFields } from './circuit';
import { cabinFields, coolingFields, joinFields, loopFields, plumbingFields, standInFields } from './cooling';
import { many, maybeMany, maybeOne, one, type Field, type ItemOf } from './field';
import type { Id } from './id';
import { adapterFields, bundleFields, colourFields, endFields, wireFields } from './looms';
import { loadFields, lowVoltageFields, serviceFields } from './low-voltage';
import { bondFields, jointFields } from './joints';
import { boxFields, moduleFields, packFields, stringFields } from './pack';
import { boardFields, currentSensorFields, senseWireFields, sensingFields, sensorFields } from './monitoring';
import { settingsDefaults, settingsFields } from './settings';
import { datumFields, hazardFields, openingFields, runFields, zoneFields } from './run';
import { massFields, vehicleFields } from './vehicle';

/** The current shape of the design document. */
export const designSchemaNumber = 1;

/** Every field of a design, from its root. */
export const designFields = {
  schema: { label: 'Format', schema: oneOf([designSchemaNumber]), given: true } as Field<number, true>,
  vehicle: one('Vehicle', 'brief', vehicleFields),
  pack: one('Pack', 'pack/pack', packFields),
  settings: one('Settings', 'protect/circuits', settingsFields),
  masses: many('Masses', 'brief', massFields),
  parts: { label: 'Parts in use', at: 'pack/pack', schema: mapOf(partSchema(true)), given: true } as Field<
    Record<PartKey, Part>,
    true
  >,
  modules: many('Modules', 'pack/arrange', moduleFields),
  boxes: many('Boxes', 'pack/arrange', boxFields),
  strings: many('Strings', 'pack/pack', stringFields),
  devices: many('Devices', 'pack/pack', deviceFields),
  circuits: many('Circuits', 'protect/circuits', circuitFields),
  /** How joints are made, by kind. */
  joints: maybeMany('Kinds of joints', 'protect/joints', jointFields),
  /** By the body: a box, a device, a circuit’s conduit, or one of its own. */
  bonds: maybeMany('Bonds', 'protect/bonds', bondFields),
  /** Where cables run, what they stay away from, and parts of the vehicle that matter to that. */
  runs: maybeMany('Runs', 'route/runs', runFields),
  hazards: maybeMany('Lines to stay away from', 'route/lines', hazardFields),
  zones: maybeMany('Zones', 'route/lines', zoneFields),
  datums: maybeMany('Marks of the body', 'route/lines', datumFields),
  openings: maybeMany('Openings in walls', 'route/walls', openingFields),
  /** Coolant: what is asked of it, its loops, and what each is made of. */
  cooling: maybeOne('Cooling', 'cool/worst', coolingFields),
  cabin: maybeOne('Cabin', 'cool/cold', cabinFields),
  loops: maybeMany('Coolant loops', 'cool/loops', loopFields),
  joins: maybeMany('Joins of hoses', 'cool/loops', joinFields),
  plumbing: maybeMany('Plumbing', 'cool/loops', plumbingFields),
  standIns: maybeMany('Plumbing for now', 'cool/loops', standInFields),
  /** From the socket to the cell, and what ends a charge. */
  charging: maybeOne('Charging', 'charge/ac', chargingFields),
  supplies: maybeMany('Supplies', 'charge/ac', supplyFields),
  inlets: maybeMany('Inlets', 'charge/ac', inletFields),
  cuts: maybeMany('Independent cuts', 'charge/ladder', cutFields),
  limits: maybeOne('Limits of the monitor', 'charge/ladder', limitFields),
  thresholds: maybeMany('Further thresholds', 'charge/ladder', thresholdFields),
  /** How cells are watched: units, their sensors, and what is said of single sense wires. */
  sensing: maybeOne('Monitoring', 'sense/topology', sensingFields),
  boards: maybeMany('Monitoring units', 'sense/map', boardFields),
  sensors: maybeMany('Temperature sensors', 'sense/map', sensorFields),
  currentSensors: maybeMany('Current sensors', 'sense/power', currentSensorFields),
  senseWires: maybeMany('Sense wires', 'sense/harness', senseWireFields),
  /** The low voltage: what feeds it, what it feeds, and what took over from the engine. */
  lowVoltage: maybeOne('Low voltage', 'charge/budget', lowVoltageFields),
  loads: maybeMany('Low-voltage loads', 'charge/budget', loadFields),
  services: maybeMany('Services of the engine', 'charge/services', serviceFields),
  /** Looms of every kind, from pin to pin. */
  ends: maybeMany('Ends of looms', 'charge/looms', endFields),
  bundles: maybeMany('Bundles', 'charge/looms', bundleFields),
  wires: maybeMany('Wires', 'charge/looms', wireFields),
  adapters: maybeMany('Adapters', 'charge/looms', adapterFields),
  colours: maybeMany('Colours of wires', 'charge/looms', colourFields),
};

/** A design holds decisions only: nothing computed, nothing measured, nothing true merely at one moment. */
export interface Design extends ItemOf<typeof designFields> {}

/** The id of the main circuit: there is exactly one from the start. */
export const mainCircuit: Id = 'circuit-main';

/** Every circuit: load, faults, fuse and cable are computed for each. */
export const everyCircuit = (design: Pick<Design, 'circuits'>): Id[] => Object.keys(design.circuits);

/** Circuits that have contactors, or should have: the main one always. */
export const switchedCircuits = (design: Pick<Design, 'circuits'>): Id[] =>
  everyCircuit(design).filter((id) => {
    const { role, contactor, poles = 'none' } = design.circuits[id]!;
    return role === 'main' || contactor !== undefined || poles !== 'none';
  });

/** The circuits that pre-charge the bus. */
export const mainCircuits = (design: Pick<Design, 'circuits'>): Id[] =>
  Object.keys(design.circuits).filter((id) => design.circuits[id]!.role === 'main');

/** What may be exposed at most, V, DC. */
export const touchLimitOf = ({ settings }: Pick<Design, 'settings'>): number =>
  settings.touchLimitV ?? settingsDefaults.touchLimitV;

/** An empty job: nothing decided, one main circuit to decide about. */
export function blankDesign(): Design {
  return {
    schema: designSchemaNumber,
    vehicle: {},
    pack: {},
    settings: {},
    masses: {},
    parts: {},
    modules: {},
    boxes: {},
    strings: {},
    devices: {},
    circuits: { [mainCircuit]: { tag: 'Main', role: 'main' } },
  };
}
