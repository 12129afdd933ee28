import './figures';
export { prechargeRoom } from './room';
export { busDevices, busOf, mainBus, ownBuses, prechargedCircuits } from './bus-step';
export { busDischarge, type BusDischargeInput, type BusDischargeResult } from './bus-discharge';
export {
  prechargeChoose,
  prechargeChooseOnBus,
  type PrechargeChooseInput,
  type PrechargeChooseResult,
  type RankedResistor,
} from './choose';
export { inrushPeakA, type InrushLoop } from './inrush';
export { resistorDuty, startsAMinute, type ResistorDuty, type ResistorPlace } from './criteria';
export { fillingCircuits, pathOf } from './path-step';
export { prechargeFit, type PrechargeFitInput, type PrechargeFitResult } from './fit';
export {
  busVoltageAt,
  loadDivision,
  precharge,
  prechargeDefaults,
  timeToReachS,
  resistorEnergyAt,
  type PrechargeInput,
  type PrechargeResult,
} from './precharge';
export {
  capacitanceTolerance,
  loadOf,
  loadWords,
  readRise,
  startSequence,
  timerAgainstVoltage,
  timerTrial,
  weldTestS,
  trialLoadOhm,
  type BusCase,
  type ExpectedBus,
  type RiseReading,
  type StartSequence,
  type SwitchEvent,
} from './sequence';
export { packHighest } from './places';
export { provesDead } from './templates/first-hv';
