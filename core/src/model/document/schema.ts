import {
  list,
  mapOf,
  number,
  oneOf,
  openDoor,
  record,
  table,
  text,
  type Issue,
} from '../../ground/calculator';
import { partSchema } from '../parts';
import { cableEnds, completions, deviceKinds, polesSwitched, startSchools, suppressions } from './circuit';
import { designSchemaNumber, type Design } from './design';
import {
  boltClasses,
  bondWays,
  crimpSchools,
  faces,
  jointPlaces,
  preparations,
  screenEnds,
  senseMarkings,
  sheaths,
  stackItems,
  threadMetals,
} from './joints';
import { accessSides, balanceSchools, coatings, materialGroups, pollutionDegrees, vents } from './pack';
import { danglingReferences } from './references';
import { cycleChoices } from './vehicle';

const n = number.optional();
const t = text.optional();

const vehicle = record({
  make: t,
  model: t,
  year: n,
  wheelbaseM: n,
  lengthM: n,
  frontOverhangM: n,
  heightM: n,
  wheelDiameterM: n,
  frontKg: n,
  rearKg: n,
  frontLimitKg: n,
  rearLimitKg: n,
  grossLimitKg: n,
  whPerKmPerKg: n,
  speedKmH: n,
  rollingCoefficient: n,
  dragAreaM2: n,
  airDensityKgM3: n,
  gradeFraction: n,
  drivetrainEfficiency: n,
  accessoriesW: n,
  wantedRangeKm: n,
  topSpeedKmH: n,
  regenFraction: n,
  rotatingMassFraction: n,
  cycle: oneOf.optional(cycleChoices),
  ownCycle: record.optional({ tag: text(), points: table({ columns: [{}, {}], maxRows: 20_000 }) }),
});

const pairs = { columns: [{}, {}] as [object, object], rising: false };

const flag = oneOf.optional([true, false]);

const balance = record.optional({
  school: oneOf.optional(balanceSchools),
  targetV: n,
  toleranceV: n,
  bleedCurrentA: n,
  bleedDutyFraction: n,
  loadOhm: n,
  cutOffV: n,
  engageV: n,
  drawHours: n,
  restHours: n,
  benches: n,
  people: n,
  handMinutes: n,
  startsAt: t,
  dayFromH: n,
  dayToH: n,
  weekends: flag,
  unattended: flag,
  leadOhm: n,
  leadLimitA: n,
});

const installs = ['free-air', 'steel-conduit'];

const designShape = record({
  schema: oneOf([designSchemaNumber]),
  vehicle,
  pack: record({
    socLowFraction: n,
    socHighFraction: n,
    socForPeakFraction: n,
    peakCurrentA: n,
    linkResistanceOhm: n,
    coldResistanceFactor: n,
    warmResistanceFactor: n,
    stringSpreadFraction: n,
    stringSocFraction: n,
    combinerBox: t,
    mainsBox: t,
    boxMarginMm: n,
    balance,
    busbars: mapOf.optional(
      record({
        tag: text(),
        circuit: t,
        currentA: n,
        material: oneOf.optional(['copper', 'aluminium']),
        widthMm: n,
        thicknessMm: n,
        betweenMm: n,
        overhangMm: n,
        holeMm: n,
        otherHoleMm: n,
        flexMm: n,
        coating: oneOf.optional(coatings),
        ambientC: n,
        maxC: n,
      }),
    ),
  }),
  settings: record({
    touchLimitV: n,
    dischargeLimitS: n,
    insulationOhmPerV: n,
    anchorG: n,
    startLowV: n,
    coilC: n,
    impulseV: n,
    altitudeM: n,
    senseMarking: oneOf.optional(senseMarkings),
    sleeveColour: t,
    zone: t,
  }),
  masses: mapOf(
    record({ tag: text(), change: oneOf(['out', 'in']), massKg: n, xM: n, zM: n, lengthM: n, heightM: n }),
  ),
  parts: mapOf(partSchema(true)),
  modules: mapOf(record({ tag: text(), part: text(), box: t })),
  boxes: mapOf(
    record({
      tag: text(),
      xM: n,
      yM: n,
      zM: n,
      lengthM: n,
      widthM: n,
      heightM: n,
      emptyKg: n,
      anchors: n,
      anchorN: n,
      accessFrom: oneOf.optional(accessSides),
      vent: oneOf.optional(vents),
      linkPitchMm: n,
      clearanceMm: n,
      creepageMm: n,
      pollution: oneOf.optional(pollutionDegrees),
      material: oneOf.optional(materialGroups),
    }),
  ),
  strings: mapOf(
    record({
      tag: text(),
      modules: list(text()),
      fuse: t,
      fuseAt: n,
      disconnectAt: n,
      contactor: t,
      contactorPoles: oneOf.optional(polesSwitched),
      contactorsIn: oneOf.optional(['string', 'combiner']),
      ends: oneOf.optional(cableEnds),
    }),
  ),
  devices: mapOf(
    record({
      tag: text(),
      kind: oneOf(deviceKinds),
      minV: n,
      maxV: n,
      busCapacitanceF: n,
      bleedOhm: n,
      activeOhm: n,
      prechargeLoadOhm: n,
      activeWhileFilling: flag,
      ratedPowerW: n,
      ratedVoltageV: n,
      isolation: oneOf.optional(['isolated', 'none']),
      ownCutOff: flag,
      unattended: flag,
      insulationMonitor: oneOf.optional(['active', 'passive']),
    }),
  ),
  circuits: mapOf(
    record({
      tag: text(),
      role: oneOf(['main', 'branch']),
      device: t,
      poles: oneOf.optional(polesSwitched),
      tap: oneOf.optional(['before', 'after']),
      ends: oneOf.optional(cableEnds),
      box: t,
      contactor: t,
      suppression: oneOf.optional(suppressions),
      clampV: n,
      resistor: t,
      fuse: t,
      cable: t,
      lug: t,
      gland: t,
      studMm: n,
      parallel: n,
      unevenM: n,
      lengthM: n,
      stretches: list.optional(
        record({
          tag: text(),
          lengthM: n,
          ambientC: n,
          install: oneOf.optional(installs),
          grouped: n,
          conduitInnerMm: n,
          conduitOuterMm: n,
        }),
        { maxRows: 40 },
      ),
      install: oneOf.optional(installs),
      conduitInnerMm: n,
      conduitOuterMm: n,
      ambientC: n,
      grouped: n,
      fuseAmbientC: n,
      contactOhm: n,
      maxDropFraction: n,
      maxClearS: n,
      thresholdFraction: n,
      timeoutS: n,
      wantedTimeS: n,
      attemptsPerMinute: n,
      startSchool: oneOf.optional(startSchools),
      completion: oneOf.optional(completions),
      timerS: n,
      loopResistanceOhm: n,
      loopInductanceH: n,
      screened: flag,
      screenFrom: oneOf.optional(screenEnds),
      screenTo: oneOf.optional(screenEnds),
      sheath: oneOf.optional(sheaths),
      loadProfile: table.optional(pairs),
    }),
  ),
  joints: mapOf.optional(
    record({
      tag: text(),
      on: oneOf(jointPlaces),
      circuit: t,
      studMm: n,
      boltClass: oneOf.optional(boltClasses),
      torqueNm: n,
      engagementMm: n,
      threadIn: oneOf.optional(threadMetals),
      face: oneOf.optional(faces),
      otherFace: oneOf.optional(faces),
      preparation: oneOf.optional(preparations),
      pollution: oneOf.optional(pollutionDegrees),
      stack: list.optional(oneOf(stackItems), { maxRows: 20 }),
      crimp: oneOf.optional(crimpSchools),
      die: t,
      retorqueDays: n,
      limitOhm: n,
    }),
  ),
  bonds: mapOf.optional(
    record({ tag: t, by: oneOf.optional(bondWays), to: t, areaMm2: n, lengthM: n, contactOhm: n }),
  ),
});

export type CheckedDesign = { ok: true; design: Design } | { ok: false; issues: Issue[] };

/**
 * Whether a document is a design: right types, no unknown fields, every reference pointing at something.
 * What is absent is not wrong.
 *
 * @param letBe references to nothing that are no fault of whoever asks: those that an older design has already
 */
export function checkDesign(
  document: unknown,
  letBe: (issue: Issue) => boolean = () => false,
): CheckedDesign {
  const parsed = openDoor<Design>(document, { schema: designShape });
  if (!parsed.ok) return parsed;
  const issues = danglingReferences(parsed.input).filter((issue) => !letBe(issue));
  return issues.length === 0 ? { ok: true, design: parsed.input } : { ok: false, issues };
}
