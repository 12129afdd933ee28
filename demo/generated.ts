import {
  blankDesign,
  cableEnds,
  deviceKinds,
  mainCircuit,
  polesSwitched,
  type CircuitItem,
  type Design,
} from '@torvek/core/document';
import { pin, shapePack } from '@torvek/core/pack';
import { catalogueOf, type Part } from '@torvek/core/parts';
import { numbersFrom } from './numbers';

/** A design of any shape the network knows: strings, boxes, where mains sit, branches before and after them. */
export function generatedDesign(seed: number): Design {
  const next = numbersFrom(seed * 7919 + 1);
  for (let i = 0; i < 5; i += 1) next();
  const pick = <T>(list: readonly T[]): T => list[Math.floor(next() * list.length)]!;
  const some = (share: number) => next() < share;
  const draft = blankDesign();
  let made = 0;
  const newId = (prefix: string) => `${prefix}-g${(made += 1)}`;
  const boxes = 1 + Math.floor(next() * 4);
  for (let i = 0; i < boxes; i += 1) {
    draft.boxes[newId('box')] = {
      tag:
        pick(['Nose box', 'Floor box left', 'Tail box', 'Under the rear bench']) + (i > 0 ? ` ${i + 1}` : ''),
      xM: -i * 1.4,
      yM: 0,
      zM: 0.6,
      lengthM: 1.4,
      widthM: 0.8,
      heightM: 0.5,
    };
  }
  shapePack(
    draft,
    {
      strings: 1 + Math.floor(next() * 3),
      modulesPerString: 1 + Math.floor(next() * 12),
      part: pick(catalogueOf('module')),
    },
    newId,
  );
  const boxIds = Object.keys(draft.boxes);
  for (const string of Object.values(draft.strings)) {
    const order = [...boxIds].sort(() => next() - 0.5);
    string.modules.forEach((module, i) => {
      draft.modules[module]!.box = order[Math.floor((i * order.length) / string.modules.length)]!;
    });
    if (some(0.8)) string.fuse = pin(draft, pick<Part>(catalogueOf('fuse')));
    if (some(0.3)) string.fuseAt = Math.floor(next() * string.modules.length);
    if (some(0.8) && string.modules.length > 1)
      string.disconnectAt = 1 + Math.floor(next() * (string.modules.length - 1));
    if (some(0.5)) {
      string.contactor = pin(draft, pick<Part>(catalogueOf('contactor')));
      string.contactorPoles = pick(polesSwitched);
      string.contactorsIn = pick(['string', 'combiner']);
    }
    if (some(0.9)) string.ends = pick(cableEnds);
  }
  const extra = (tag: string) => {
    const id = newId('box');
    draft.boxes[id] = { tag, xM: -2, yM: 0.5, zM: 0.7, lengthM: 0.5, widthM: 0.4, heightM: 0.3 };
    return id;
  };
  if (some(0.5)) draft.pack.mainsBox = extra('Junction box');
  if (some(0.3)) draft.pack.combinerBox = extra('Combiner');
  const main = draft.circuits[mainCircuit]!;
  main.poles = pick(polesSwitched);
  if (some(0.8)) main.contactor = pin(draft, pick<Part>(catalogueOf('contactor')));
  if (some(0.8)) main.fuse = pin(draft, pick<Part>(catalogueOf('fuse')));
  if (some(0.8)) main.resistor = pin(draft, pick<Part>(catalogueOf('resistor')));
  if (some(0.8)) main.cable = pin(draft, pick<Part>(catalogueOf('cable')));
  main.lengthM = 4;
  draft.devices[newId('device')] = {
    tag: 'Inverter',
    kind: 'inverter',
    busCapacitanceF: 0.0008,
    bleedOhm: 2000,
  };
  const branches = Math.floor(next() * 9);
  for (let i = 0; i < branches; i += 1) {
    const kind = pick(deviceKinds);
    const device = newId('device');
    draft.devices[device] = { tag: `${kind} number ${i + 1}`, kind, busCapacitanceF: 0.00005 };
    const circuit: CircuitItem = { tag: `Branch ${i + 1}`, role: 'branch', device };
    if (some(0.8)) circuit.fuse = pin(draft, pick<Part>(catalogueOf('fuse')));
    if (some(0.4)) circuit.contactor = pin(draft, pick<Part>(catalogueOf('contactor')));
    if (some(0.3)) circuit.resistor = pin(draft, pick<Part>(catalogueOf('resistor')));
    if (some(0.3)) circuit.tap = 'before';
    if (some(0.8)) circuit.cable = pin(draft, pick<Part>(catalogueOf('cable')));
    if (some(0.9)) circuit.ends = pick(cableEnds);
    if (some(0.15)) circuit.box = pick(boxIds);
    draft.circuits[newId('circuit')] = circuit;
  }
  return draft;
}
