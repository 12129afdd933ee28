import {
  absent,
  anotherOf,
  branch,
  branchId,
  firstBox,
  firstString,
  firstStringId,
  main,
  mend,
  moduleData,
  partAt,
  stop,
  type Mistake,
} from './mistake';
import type { Design } from '../../../model/document';

const box = (d: Design) => d.boxes[firstBox(d)]!;
const inverter = (d: Design) => d.devices['device-inverter']!;
const modulePart = (d: Design) => Object.values(d.modules)[0]!.part;
const mainPart = (kind: 'fuse' | 'cable' | 'lug' | 'gland' | 'contactor' | 'resistor') => (d: Design) =>
  main(d)[kind]!;

/** Slips of the keyboard: another unit, a point in the wrong place, a figure of the wrong line of a sheet. */
export const slips: Mistake[] = [
  mend('a length of a module with a minus before it', modulePart, (d) => (moduleData(d).lengthMm *= -1)),
  mend('a module of no mass', modulePart, (d) => (moduleData(d).massKg = 0)),
  mend('a cable judged in the shade of a winter day', 'circuit-main', (d) => (main(d).ambientC = 5)),
  mend('a fuse judged at the 3.5 of a 35', 'circuit-main', (d) => (main(d).fuseAmbientC = 3.5)),
  stop(
    'a contactor that drops out above what it is held with',
    'circuit-main',
    (d) => (partAt(d, 'contactor', main(d).contactor).dropOutA = 4),
  ),
  stop('a pre-charge contactor that lets go of itself', 'circuit-main', (d) => {
    main(d).prechargeContactor = anotherOf(d, 'contactor', main(d).prechargeContactor, (data) => {
      data.dropOutA = 4;
    });
  }),
  stop('string contactors that let go of themselves', firstStringId, (d) => {
    if (firstString(d).contactor === undefined) return absent;
    firstString(d).contactor = anotherOf(d, 'contactor', firstString(d).contactor, (data) => {
      data.dropOutA = 4;
    });
    return true;
  }),
  mend('a wheel diameter in centimetres', 'vehicle', ({ vehicle }) => (vehicle.wheelDiameterM = 66)),
  mend('a height in centimetres', 'vehicle', ({ vehicle }) => (vehicle.heightM! *= 100)),
  mend('a length in decimetres', 'vehicle', ({ vehicle }) => (vehicle.lengthM! *= 10)),
  mend('a weight in tonnes', 'vehicle', ({ vehicle }) => (vehicle.frontKg! /= 1000)),
  mend('a gross limit in tonnes', 'vehicle', ({ vehicle }) => (vehicle.grossLimitKg! /= 1000)),
  mend('an efficiency in percent', 'vehicle', ({ vehicle }) => (vehicle.drivetrainEfficiency = 85)),
  mend('a drag area with the point lost', 'vehicle', ({ vehicle }) => (vehicle.dragAreaM2! *= 15)),
  mend(
    'a rolling coefficient of asphalt typed as 0.1',
    'vehicle',
    ({ vehicle }) => (vehicle.rollingCoefficient = 0.12),
  ),
  mend('accessories in kilowatts', 'vehicle', ({ vehicle }) => (vehicle.accessoriesW = 60_000)),
  mend('a range wanted in metres', 'vehicle', ({ vehicle }) => (vehicle.wantedRangeKm! *= 1000)),
  mend(
    'a speed in metres a second typed three digits long',
    'vehicle',
    ({ vehicle }) => (vehicle.speedKmH! *= 20),
  ),
  mend('a consumption in Wh per tonne', 'vehicle', ({ vehicle }) => (vehicle.whPerKmPerKg = 120)),
  mend('an engine of nothing', 'mass-engine', ({ masses }) => (masses['mass-engine']!.massKg = 0)),
  mend('a box in millimetres', firstBox, (d) => (box(d).lengthM! *= 1000)),
  mend('a box width in centimetres', firstBox, (d) => (box(d).widthM! *= 100)),
  mend('a box height in millimetres', firstBox, (d) => (box(d).heightM! *= 1000)),
  mend('a box six metres to the side', firstBox, (d) => (box(d).yM = 6)),
  mend('an empty box of ten tonnes', firstBox, (d) => (box(d).emptyKg = 9000)),
  mend('anchors in kilonewtons', firstBox, (d) => (box(d).anchorN! /= 1000)),
  mend('half an anchor', firstBox, (d) => (box(d).anchors = 0.5)),
  mend('a clearance in metres', firstBox, (d) => (box(d).clearanceMm! /= 1000)),
  mend('a creepage way in centimetres', firstBox, (d) => (box(d).creepageMm! /= 10)),
  mend('a peak current in milliamperes', 'pack', (d) => (d.pack.peakCurrentA! *= 1000)),
  mend('links in milliohms', 'pack', (d) => (d.pack.linkResistanceOhm! *= 1000)),
  mend('a cold factor of 40', 'pack', (d) => (d.pack.coldResistanceFactor = 40)),
  mend('a bus capacitance in microfarads', 'device-inverter', (d) => (inverter(d).busCapacitanceF! *= 1e6)),
  mend(
    'a bus capacitance in farads of a thousand',
    'device-inverter',
    (d) => (inverter(d).busCapacitanceF = 1.2),
  ),
  mend('a bleed in megaohms', 'device-inverter', (d) => (inverter(d).bleedOhm! *= 1e6)),
  mend('a window in millivolts', 'device-inverter', (d) => (inverter(d).maxV! *= 1000)),
  mend('a cable length in millimetres', 'circuit-main', (d) => (main(d).lengthM! *= 1000)),
  mend('a branch length in millimetres', branchId, (d) => (branch(d).lengthM! *= 1000)),
  mend('a cable length in kilometres', 'circuit-main', (d) => (main(d).lengthM! /= 1000)),
  mend('contacts in milliohms', 'circuit-main', (d) => (main(d).contactOhm = 2)),
  mend('a drop in percent', 'circuit-main', (d) => (main(d).maxDropFraction = 2)),
  mend('a time limit in milliseconds', 'circuit-main', (d) => (main(d).timeoutS = 3000)),
  mend('a stud in inches of a hundredth', 'circuit-main', (d) => (main(d).studMm = 0.3)),
  mend('an ambient in fahrenheit', 'circuit-main', (d) => (main(d).ambientC = 212)),
  mend('a fuse ambient in kelvin', 'circuit-main', (d) => (main(d).fuseAmbientC = 308)),
  mend('a torque in newton centimetres', 'joint-posts', (d) => (d.joints!['joint-posts']!.torqueNm! *= 100)),
  mend('an engagement in centimetres', 'joint-posts', (d) => (d.joints!['joint-posts']!.engagementMm! /= 10)),
  mend('a strap length in millimetres', firstBox, (d) => (d.bonds![firstBox(d)]!.lengthM = 300)),
  mend('a strap area in AWG', firstBox, (d) => (d.bonds![firstBox(d)]!.areaMm2 = 0.06)),
  mend('a strap of 0 mm²', firstBox, (d) => (d.bonds![firstBox(d)]!.areaMm2 = 0)),
  mend('an altitude in feet', 'settings', (d) => (d.settings.altitudeM = 6500)),
  mend('an anchor rule in m/s²', 'settings', (d) => (d.settings.anchorG = 196)),
  // Sheets of parts.
  mend('a cell resistance in milliohms', modulePart, (d) => (moduleData(d).cell.resistanceOhm *= 1000)),
  mend('a cell capacity in milliampere hours', modulePart, (d) => (moduleData(d).cell.capacityAh *= 1000)),
  mend(
    'a highest cell voltage of the module',
    modulePart,
    (d) => (moduleData(d).cell.maxV *= moduleData(d).cellsInSeries > 1 ? moduleData(d).cellsInSeries : 4),
  ),
  mend('a module mass in grams', modulePart, (d) => (moduleData(d).massKg *= 1000)),
  mend('a module in metres', modulePart, (d) => (moduleData(d).lengthMm /= 1000)),
  mend(
    'a fuse breaking capacity in kiloamperes',
    mainPart('fuse'),
    (d) => (partAt(d, 'fuse', main(d).fuse).breakingA /= 1000),
  ),
  mend(
    'a fuse tolerance in percent',
    mainPart('fuse'),
    (d) => (partAt(d, 'fuse', main(d).fuse).currentToleranceFraction = 0.5),
  ),
  mend(
    'a cable diameter in metres',
    mainPart('cable'),
    (d) => (partAt(d, 'cable', main(d).cable).outerDiameterMm /= 1000),
  ),
  mend(
    'a conductor limit in kelvin',
    mainPart('cable'),
    (d) => (partAt(d, 'cable', main(d).cable).conductorMaxC += 273),
  ),
  mend(
    'a pulse energy in kilojoules',
    'circuit-main',
    (d) => (partAt(d, 'resistor', main(d).resistor).pulseEnergyJ /= 1000),
  ),
  mend(
    'a resistor in kiloohms',
    mainPart('resistor'),
    (d) => (partAt(d, 'resistor', main(d).resistor).resistanceOhm /= 1000),
  ),
  mend(
    'a coil of the wrong line',
    mainPart('contactor'),
    (d) => (partAt(d, 'contactor', main(d).contactor).coilHoldW = 600),
  ),
  mend(
    'a contactor that opens in a second',
    mainPart('contactor'),
    (d) => (partAt(d, 'contactor', main(d).contactor).openMs = 1000),
  ),
  mend('a lug palm in metres', mainPart('lug'), (d) => (partAt(d, 'lug', main(d).lug).palmWidthMm /= 1000)),
  mend(
    'a gland temperature of a freezer',
    mainPart('gland'),
    (d) => (partAt(d, 'gland', main(d).gland).maxC = 10),
  ),
];
