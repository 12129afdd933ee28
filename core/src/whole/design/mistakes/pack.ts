import {
  absent,
  anotherOf,
  branch,
  branchDevice,
  firstBox,
  firstModule,
  firstString,
  firstStringId,
  main,
  mend,
  moduleData,
  note,
  pinned,
  severalStrings,
  stop,
  unchecked,
  type Mistake,
} from './mistake';

/** Pack: cells and modules, strings, boxes, what the devices make of its voltage. */
export const packMistakes: Mistake[] = [
  mend(
    'a peak current above what the modules give for ten seconds',
    'pack',
    (d) => (d.pack.peakCurrentA! *= 12),
  ),
  mend('a load above the continuous current of the modules', 'pack', (d) => {
    moduleData(d).continuousA = 2;
  }),
  mend('a load above the peak the pack is judged at', 'circuit-main', (d) => (d.pack.peakCurrentA = 20)),
  mend('a charge window upside down', 'pack', (d) =>
    Object.assign(d.pack, { socLowFraction: 0.9, socHighFraction: 0.1 }),
  ),
  mend('a charge window in percent', 'pack', (d) => (d.pack.socHighFraction = 90)),
  note('a peak judged outside the charge window', 'pack', (d) => (d.pack.socForPeakFraction = 0.02)),
  mend('links of negative resistance', 'pack', (d) => (d.pack.linkResistanceOhm = -0.001)),
  mend('a pack warmer that resists more than cold', 'pack', (d) =>
    Object.assign(d.pack, { warmResistanceFactor: 3 }),
  ),
  mend(
    'cells of which the lowest voltage is above the highest',
    'pack',
    (d) => (moduleData(d).cell.minV = 5),
  ),
  mend('a cell table that ends above what the cell stands', 'pack', (d) => (moduleData(d).cell.maxV = 3.2)),
  mend(
    'a module whose peak is below its continuous current',
    'pack',
    (d) => (moduleData(d).peakA = moduleData(d).continuousA / 2),
  ),
  mend('a box on lifting points made for less than it weighs', firstBox, (d) =>
    Object.assign(d.boxes[firstBox(d)]!, { liftPoints: 4, liftKg: 10 }),
  ),
  note('a full box with nothing to lift it by', firstBox, (d) =>
    Object.assign(d.boxes[firstBox(d)]!, { liftPoints: 0, emptyKg: 60 }),
  ),
  mend('a shelf made for less than stands on it', firstBox, (d) =>
    Object.assign(d.boxes[firstBox(d)]!, { heightM: 3, lengthM: 0.8, shelves: 1, shelfN: 60 }),
  ),
  mend('modules of one string unlike in capacity', firstStringId, (d) => {
    const module = d.modules[firstModule(d)]!;
    module.part = anotherOf(d, 'module', module.part, (data) => (data.cell.capacityAh *= 0.6));
  }),
  mend('modules of which no more than the label is known', 'pack', (d) => (moduleData(d).typical = true)),
  mend('modules of one string of another chemistry', firstStringId, (d) => {
    const module = d.modules[firstModule(d)]!;
    module.part = anotherOf(d, 'module', module.part, (data) => {
      data.chemistry = data.chemistry === 'LFP' ? 'NMC' : 'LFP';
    });
  }),
  mend(
    'a string of fewer modules than its neighbours',
    'pack',
    (d) => severalStrings(d) && firstString(d).modules.splice(0, 1),
  ),
  mend(
    'a module in two strings',
    firstModule,
    (d) => severalStrings(d) && Object.values(d.strings)[1]!.modules.push(firstModule(d)),
  ),
  mend('a module twice in a string', firstModule, (d) => firstString(d).modules.push(firstModule(d))),
  mend('a module that is in no string', 'module-x', (d) => {
    d.modules['module-x'] = { ...d.modules[firstModule(d)]!, tag: 'Spare' };
  }),
  mend('a string without modules', 'string-x', (d) => {
    d.strings['string-x'] = { ...firstString(d), tag: 'SX', modules: [] };
  }),
  mend('a module without a box', firstModule, (d) => delete d.modules[firstModule(d)]!.box),
  unchecked('a peak current nobody gave', 'pack.peakCurrentA', (d) => delete d.pack.peakCurrentA),
  unchecked(
    'a bottom of the charge window nobody gave',
    'pack.socLowFraction',
    (d) => delete d.pack.socLowFraction,
  ),
  mend('one module above the touch limit', 'pack', (d) => {
    const data = moduleData(d);
    data.cellsInSeries = Math.ceil(64 / data.cell.maxV);
  }),
  stop(
    'a device that does not stand the full pack',
    'device-inverter',
    (d) => (d.devices['device-inverter']!.maxV! *= 0.6),
  ),
  stop(
    'a charger that does not stand the full pack',
    branchDevice,
    (d) => (d.devices[branchDevice(d)]!.maxV! *= 0.6),
  ),
  mend('a device that the pack never reaches', 'device-inverter', (d) =>
    Object.assign(d.devices['device-inverter']!, { minV: 1200, maxV: 1400 }),
  ),
  mend('a device window upside down', branchDevice, (d) => {
    const device = d.devices[branchDevice(d)]!;
    [device.minV, device.maxV] = [device.maxV, device.minV];
  }),
  mend(
    'a bus that sags below the inverter at peak',
    'device-inverter',
    (d) => (moduleData(d).cell.resistanceOhm *= 25),
  ),
  note(
    'a device that stops before the pack is empty',
    branchDevice,
    (d) => (d.devices[branchDevice(d)]!.minV! *= 1.35),
  ),
  unchecked(
    'a device window nobody gave',
    'devices.device-inverter.maxV',
    (d) => delete d.devices['device-inverter']!.maxV,
  ),
  note('a heater rated for a quarter of the voltage it gets', 'device-heater', (d) => {
    if (d.devices['device-heater'] === undefined) return absent;
    return (d.devices['device-heater'].ratedVoltageV = 400);
  }),
  mend('a heater at four times its voltage', 'device-heater', (d) => {
    if (d.devices['device-heater'] === undefined) return absent;
    return (d.devices['device-heater'].ratedVoltageV = 24);
  }),
  mend('modules that do not fit their box', firstBox, (d) => (d.boxes[firstBox(d)]!.lengthM = 0.2)),
  mend('modules taller than their box', firstBox, (d) => (d.boxes[firstBox(d)]!.heightM = 0.05)),
  mend('anchors that do not hold', firstBox, (d) => (d.boxes[firstBox(d)]!.anchorN = 300)),
  mend('a box held by one anchor', firstBox, (d) => (d.boxes[firstBox(d)]!.anchors = 1)),
  mend('anchors judged by a gentle rule', 'pack', (d) => (d.settings.anchorG = 0.5)),
  unchecked(
    'anchors nobody chose',
    (d) => `boxes.${firstBox(d)}.anchorN`,
    (d) => delete d.boxes[firstBox(d)]!.anchorN,
  ),
  unchecked(
    'a box nobody measured',
    (d) => `boxes.${firstBox(d)}.heightM`,
    (d) => delete d.boxes[firstBox(d)]!.heightM,
  ),
  mend(
    'a box that nobody reaches once the vehicle is together',
    firstBox,
    (d) => (d.boxes[firstBox(d)]!.accessFrom = 'none'),
  ),
  note('a box that breathes dust', firstBox, (d) => (d.boxes[firstBox(d)]!.vent = 'open')),
  note('a box that cannot breathe', firstBox, (d) => (d.boxes[firstBox(d)]!.vent = 'none')),
  mend('donor links narrower than the modules', firstBox, (d) => (d.boxes[firstBox(d)]!.linkPitchMm = 20)),
  stop('live parts a millimetre apart', firstBox, (d) => (d.boxes[firstBox(d)]!.clearanceMm = 0.5)),
  mend('a creepage way of a millimetre', firstBox, (d) => (d.boxes[firstBox(d)]!.creepageMm = 0.6)),
  mend('a way along a surface shorter than through the air', firstBox, (d) => {
    const box = d.boxes[firstBox(d)]!;
    box.creepageMm = box.clearanceMm! - 1;
  }),
  mend(
    'a box that gets conducting dirt',
    firstBox,
    (d) =>
      d.devices['device-inverter']!.maxV! > 310 &&
      Object.assign(d.boxes[firstBox(d)]!, { pollution: 3, creepageMm: d.boxes[firstBox(d)]!.clearanceMm }),
  ),
  unchecked(
    'gaps nobody measured',
    (d) => `boxes.${firstBox(d)}.clearanceMm`,
    (d) => delete d.boxes[firstBox(d)]!.clearanceMm,
  ),
  mend('a string without a service disconnect', firstStringId, (d) => delete firstString(d).disconnectAt),
  mend('a service disconnect at one end', firstStringId, (d) => (firstString(d).disconnectAt = 1)),
  mend(
    'a service disconnect at a joint that is not there',
    firstStringId,
    (d) => (firstString(d).disconnectAt = 90),
  ),
  stop(
    'a string without a fuse among several',
    firstStringId,
    (d) => severalStrings(d) && delete firstString(d).fuse,
  ),
  mend(
    'a string fuse at a joint that is not there',
    firstStringId,
    (d) => severalStrings(d) && (firstString(d).fuseAt = 90),
  ),
  stop('a string fuse for 30 V', 'pack', (d) => {
    if (firstString(d).fuse === undefined) return absent;
    const key = anotherOf(d, 'fuse', firstString(d).fuse, (data) => (data.ratedVoltageV = 30));
    for (const one of Object.values(d.strings)) one.fuse = key;
    return true;
  }),
  stop('a fuse for 30 V in one string of several', 'pack', (d) => {
    if (!severalStrings(d)) return absent;
    return (firstString(d).fuse = anotherOf(
      d,
      'fuse',
      firstString(d).fuse,
      (data) => (data.ratedVoltageV = 30),
    ));
  }),
  stop('a string fuse that cannot break what the others feed', 'pack', (d) => {
    if (!severalStrings(d)) return absent;
    return (firstString(d).fuse = anotherOf(
      d,
      'fuse',
      firstString(d).fuse,
      (data) => (data.breakingA = 300),
    ));
  }),
  mend('a string fuse too small for its share', 'pack', (d) => {
    if (!severalStrings(d)) return absent;
    return (firstString(d).fuse = anotherOf(d, 'fuse', firstString(d).fuse, (data) => (data.ratedA = 20)));
  }),
  mend('strings side by side that nothing parts', firstStringId, (d) => {
    if (!severalStrings(d)) return absent;
    for (const one of Object.values(d.strings)) {
      delete one.contactor;
      delete one.contactorPoles;
    }
    return true;
  }),
  stop('string contactors for 30 V', firstStringId, (d) => {
    if (firstString(d).contactor === undefined) return absent;
    return (firstString(d).contactor = anotherOf(
      d,
      'contactor',
      firstString(d).contactor,
      (data) => (data.ratedVoltageV = 30),
    ));
  }),
  stop('string contactors too small for their share', firstStringId, (d) => {
    if (firstString(d).contactor === undefined) return absent;
    return (firstString(d).contactor = anotherOf(d, 'contactor', firstString(d).contactor, (data) => {
      data.continuousA = 10;
      data.shortTime = [
        [11, 100],
        [20, 10],
      ];
    }));
  }),
  mend('string contactors whose coils are for another voltage', firstStringId, (d) => {
    if (firstString(d).contactor === undefined) return absent;
    return (firstString(d).contactor = anotherOf(d, 'contactor', firstString(d).contactor, (data) =>
      Object.assign(data, { coilV: 48, pullInV: 33 }),
    ));
  }),
  mend(
    'a string cable with a plug without interlock',
    firstStringId,
    (d) => Object.keys(d.boxes).length > 1 && (firstString(d).ends = 'plain'),
  ),
  mend(
    'cells level where they must not be',
    'pack',
    (d) => (d.pack.balance = { school: 'top', targetV: 4.6, toleranceV: 0.005 }),
  ),
  mend(
    'a balancing load that empties cells too far',
    'pack',
    (d) => (d.pack.balance = { school: 'bottom', targetV: 3, loadOhm: 0.5, cutOffV: 1.2, engageV: 3.2 }),
  ),
  mend(
    'a balancing load above what a module may carry',
    'pack',
    (d) => (d.pack.balance = { school: 'bottom', targetV: 3.2, loadOhm: 0.002, cutOffV: 3, engageV: 3.3 }),
  ),
  mend(
    'level at full and a bottom school',
    'pack',
    (d) => (d.pack.balance = { school: 'bottom', targetV: moduleData(d).cell.maxV, bleedCurrentA: 0.1 }),
  ),
  mend(
    'a branch that feeds nothing',
    (d) => Object.keys(d.circuits)[1]!,
    (d) => delete branch(d).device,
  ),
  mend(
    'a branch that feeds what is not there',
    (d) => Object.keys(d.circuits)[1]!,
    (d) => (branch(d).device = 'device-gone'),
  ),
  note('a device that hangs on no circuit', 'device-x', (d) => {
    d.devices['device-x'] = { tag: 'Spare', kind: 'other', minV: 10, maxV: 1000, busCapacitanceF: 0 };
  }),
  mend('a device fed by two circuits', branchDevice, (d) => {
    d.circuits['circuit-x'] = { ...branch(d), tag: 'Twice' };
  }),
  mend(
    'a branch that feeds the inverter beside the main circuit',
    'device-inverter',
    (d) => (branch(d).device = 'device-inverter'),
  ),
  unchecked(
    'a load nobody described',
    'circuits.circuit-main.loadProfile',
    (d) => delete main(d).loadProfile,
  ),
  mend(
    'a load profile whose step has no duration',
    'circuit-main',
    (d) => (main(d).loadProfile = [[0, 100]]),
  ),
  stop('modules of another kind that lift the pack above everything', 'device-inverter', (d) => {
    const data = moduleData(d);
    data.cellsInSeries *= 3;
  }),
  mend('a module of 0 cells', 'pack', (d) => (moduleData(d).cellsInSeries = 0)),
  mend('a cell of no capacity', 'pack', (d) => (moduleData(d).cell.capacityAh = 0)),
  mend('main contactors for another box that is not there', 'pack', (d) => (d.pack.mainsBox = 'box-gone')),
  stop(
    'a main fuse pinned for the wrong voltage',
    'circuit-main',
    (d) => (main(d).fuse = anotherOf(d, 'fuse', main(d).fuse, (data) => (data.ratedVoltageV = 32))),
  ),
  stop('an orchard fuse on the bus', 'circuit-main', (d) => {
    if (d.devices['device-inverter']!.maxV! < 200) return absent;
    return (main(d).fuse = pinned(d, 'fuse', 'calderside-f250l'));
  }),
];
