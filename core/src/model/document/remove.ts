import type { Design } from './design';
import type { Id } from './id';
import type { RunItem } from './run';

/**
 * A body goes, and what was said of its bond. What was bonded to it has lost its way to the chassis: how it is bonded now is not given,
 * for a bond without an aim would read as one to the chassis.
 */
export function removeBond(draft: Design, body: Id): void {
  const { bonds } = draft;
  if (bonds === undefined) return;
  delete bonds[body];
  for (const bond of Object.values(bonds)) {
    if (bond.to !== body) continue;
    delete bond.to;
    delete bond.by;
  }
}

/**
 * A circuit goes with what was said of it alone: its kinds of joint (without their circuit they would be of every one) and its conduit’s
 * bond; a bar that carried its current has none.
 */
export function removeCircuit(draft: Design, id: Id): void {
  delete draft.circuits[id];
  for (const bar of Object.values(draft.pack.busbars ?? {})) if (bar.circuit === id) delete bar.circuit;
  for (const [key, joint] of Object.entries(draft.joints ?? {}))
    if (joint.circuit === id) delete draft.joints![key];
  for (const run of Object.values(draft.runs ?? {})) takeOff(run, 'circuits', id);
  removeBond(draft, id);
}

function takeOff(run: RunItem, field: 'circuits' | 'leads' | 'boards' | 'hoses', id: Id): void {
  const left = run[field]?.filter((one) => one !== id);
  if (left?.length === 0) delete run[field];
  else if (left !== undefined && left.length !== run[field]!.length) run[field] = left;
}

/** A run that ends at a box or device that goes ends nowhere; motor cables of what is gone are none. */
function openEnds(draft: Design, id: Id): void {
  for (const run of Object.values(draft.runs ?? {})) {
    if (run.from === id) delete run.from;
    if (run.to === id) delete run.to;
    if (run.phasesOf !== id) continue;
    delete run.phasesOf;
    delete run.phase;
  }
}

/** A cable of the pack goes; no run carries it any more. */
export function removeLead(draft: Design, id: Id): void {
  delete draft.pack.leads?.[id];
  for (const run of Object.values(draft.runs ?? {})) takeOff(run, 'leads', id);
}

/** A device goes with the branch that fed it; the main circuit stays, without a device. */
export function removeDevice(draft: Design, id: Id): void {
  delete draft.devices[id];
  for (const [key, circuit] of Object.entries(draft.circuits)) {
    if (circuit.device !== id) continue;
    if (circuit.role === 'branch') removeCircuit(draft, key);
    else delete circuit.device;
  }
  for (const piece of Object.values(draft.plumbing ?? {})) {
    if (piece.device === id) delete piece.device;
    if (piece.heaterDevice === id) delete piece.heaterDevice;
  }
  for (const box of Object.values(draft.boxes)) if (box.heaterDevice === id) delete box.heaterDevice;
  if (draft.cabin?.heater === id) delete draft.cabin.heater;
  for (const map of [draft.inlets, draft.thresholds, draft.services, draft.ends])
    for (const one of Object.values(map ?? {})) if (one.device === id) delete one.device;
  openEnds(draft, id);
  removeBond(draft, id);
}

/** A mark of the body goes; points that were taped from it stay where they are, and no longer say how they were measured. */
export function removeDatum(draft: Design, id: Id): void {
  delete draft.datums?.[id];
  for (const { points = [] } of Object.values(draft.runs ?? {}))
    for (const point of points)
      if (point.taped?.some(({ datum }) => datum === id) === true) delete point.taped;
}

/** A place where hoses meet goes; what led there leads nowhere until it is said where. */
export function removeJoin(draft: Design, id: Id): void {
  delete draft.joins?.[id];
  for (const piece of Object.values(draft.plumbing ?? {})) {
    if (piece.from === id) delete piece.from;
    if (piece.to === id) delete piece.to;
  }
  for (const one of Object.values(draft.standIns ?? {})) {
    if (one.from === id) delete one.from;
    if (one.to === id) delete one.to;
  }
  for (const loop of Object.values(draft.loops ?? {})) if (loop.tank === id) delete loop.tank;
}

/** A piece of a loop goes; no run carries it any more. */
export function removePiece(draft: Design, id: Id): void {
  delete draft.plumbing?.[id];
  for (const piece of Object.values(draft.plumbing ?? {})) if (piece.behind === id) delete piece.behind;
  for (const run of Object.values(draft.runs ?? {})) takeOff(run, 'hoses', id);
  for (const one of Object.values(draft.standIns ?? {})) leave(one, 'instead', id);
}

/** A loop goes with all it is made of. */
export function removeLoop(draft: Design, id: Id): void {
  delete draft.loops?.[id];
  for (const [key, one] of Object.entries(draft.standIns ?? {}))
    if (one.loop === id) delete draft.standIns![key];
  for (const [key, piece] of Object.entries(draft.plumbing ?? {}))
    if (piece.loop === id) removePiece(draft, key);
  for (const [key, join] of Object.entries(draft.joins ?? {})) if (join.loop === id) removeJoin(draft, key);
}

/** Modules that go are cooled by nothing. */
export function removeFromPlates(draft: Design, gone: readonly Id[]): void {
  for (const piece of Object.values(draft.plumbing ?? {})) {
    const left = piece.modules?.filter((one) => !gone.includes(one));
    if (left?.length === 0) delete piece.modules;
    else if (left !== undefined && left.length !== piece.modules!.length) piece.modules = left;
  }
}

/** A board goes; sensors that it read are read by nothing. */
export function removeBoard(draft: Design, id: Id): void {
  delete draft.boards?.[id];
  for (const sensor of Object.values(draft.sensors ?? {})) if (sensor.board === id) delete sensor.board;
  for (const run of Object.values(draft.runs ?? {})) takeOff(run, 'boards', id);
}

/** Modules that go take their sensors' place along. */
export function removeFromSensors(draft: Design, gone: readonly Id[]): void {
  for (const sensor of Object.values(draft.sensors ?? {}))
    if (sensor.module !== undefined && gone.includes(sensor.module)) delete sensor.module;
}

/** A string goes with its modules, and with its cables and sense leads: without their string they would be the pack’s. */
export function removeString(draft: Design, id: Id): void {
  const gone = draft.strings[id]?.modules ?? [];
  for (const module of gone) delete draft.modules[module];
  removeFromPlates(draft, gone);
  removeFromSensors(draft, gone);
  for (const board of Object.values(draft.boards ?? {})) if (board.string === id) delete board.string;
  // Without its string it would be the pack’s.
  for (const [key, sensor] of Object.entries(draft.currentSensors ?? {}))
    if (sensor.string === id) delete draft.currentSensors![key];
  delete draft.strings[id];
  for (const [key, lead] of Object.entries(draft.pack.leads ?? {}))
    if (lead.string === id) removeLead(draft, key);
  const { sense = {} } = draft.pack;
  for (const [key, row] of Object.entries(sense)) if (row.string === id) delete sense[key];
}

/** A box goes; what stood in it stands nowhere. */
export function removeBox(draft: Design, id: Id): void {
  delete draft.boxes[id];
  for (const module of Object.values(draft.modules)) if (module.box === id) delete module.box;
  for (const circuit of Object.values(draft.circuits)) if (circuit.box === id) delete circuit.box;
  for (const board of Object.values(draft.boards ?? {})) if (board.box === id) delete board.box;
  if (draft.pack.mainsBox === id) delete draft.pack.mainsBox;
  if (draft.pack.combinerBox === id) delete draft.pack.combinerBox;
  for (const [key, opening] of Object.entries(draft.openings ?? {}))
    if (opening.box === id) delete draft.openings![key];
  openEnds(draft, id);
  removeBond(draft, id);
}

/** A run goes; the openings that it went through stay, with nothing in them. */
export function removeRun(draft: Design, id: Id): void {
  delete draft.runs?.[id];
  for (const opening of Object.values(draft.openings ?? {})) if (opening.run === id) delete opening.run;
}

/** An inlet goes; supplies that named it go through the one that suits them. */
export function removeInlet(draft: Design, id: Id): void {
  delete draft.inlets?.[id];
  for (const supply of Object.values(draft.supplies ?? {})) if (supply.inlet === id) delete supply.inlet;
}

/** What is named in a list leaves it; a list of which nothing is left goes. */
function leave<K extends string>(holder: { [key in K]?: Id[] } | undefined, key: K, id: Id): void {
  const named = holder?.[key];
  if (holder === undefined || named?.includes(id) !== true) return;
  const left = named.filter((one) => one !== id);
  if (left.length === 0) delete holder[key];
  else holder[key] = left;
}

/** A load goes; the service that it was has no feed, and nothing names it any more. */
export function removeLoad(draft: Design, id: Id): void {
  delete draft.loads?.[id];
  for (const service of Object.values(draft.services ?? {})) if (service.load === id) delete service.load;
  leave(draft.lowVoltage, 'coilLoads', id);
  for (const wire of Object.values(draft.wires ?? {})) leave(wire, 'carries', id);
  for (const piece of Object.values(draft.plumbing ?? {})) leave(piece, 'loads', id);
  for (const box of Object.values(draft.boxes)) leave(box, 'fanLoads', id);
  for (const box of Object.values(draft.boxes)) leave(box, 'heaterLoads', id);
}

/** A wire goes; what was twisted with it is so no more. */
export function removeWire(draft: Design, id: Id): void {
  delete draft.wires?.[id];
  for (const wire of Object.values(draft.wires ?? {})) if (wire.twistedWith === id) delete wire.twistedWith;
}

/** A line of the code of colours goes; wires that went by it keep the colour they had. */
export function removeColour(draft: Design, id: Id): void {
  const colour = draft.colours?.[id]?.colour;
  delete draft.colours?.[id];
  for (const wire of Object.values(draft.wires ?? {}))
    if (wire.code === id) {
      delete wire.code;
      if (wire.colour === undefined && colour !== undefined) wire.colour = colour;
    }
}

/** An end of looms goes with the bundles and adapters that lead to it; its wires end nowhere. */
export function removeLoomEnd(draft: Design, id: Id): void {
  delete draft.ends?.[id];
  for (const [key, bundle] of Object.entries(draft.bundles ?? {}))
    if (bundle.from === id || bundle.to === id) delete draft.bundles![key];
  for (const [key, adapter] of Object.entries(draft.adapters ?? {}))
    if (adapter.from === id || adapter.to === id) delete draft.adapters![key];
  for (const wire of Object.values(draft.wires ?? {})) {
    if (wire.from === id) {
      delete wire.from;
      delete wire.fromPin;
    }
    if (wire.to === id) {
      delete wire.to;
      delete wire.toPin;
    }
  }
}
