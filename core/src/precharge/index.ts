export { busOf, mainBus, ownBuses, prechargedCircuits } from './bus-step';
export { busDischarge, type BusDischargeInput, type BusDischargeResult } from './bus-discharge';
export {
  prechargeChoose,
  type PrechargeChooseInput,
  type PrechargeChooseResult,
  type RankedResistor,
} from './choose';
export { prechargeFit, type PrechargeFitInput, type PrechargeFitResult } from './fit';
export {
  busVoltageAt,
  precharge,
  resistorEnergyAt,
  type PrechargeInput,
  type PrechargeResult,
} from './precharge';
export { prechargeSteps } from './steps';
export {
  readRise,
  startSequence,
  timerAgainstVoltage,
  timerTrial,
  weldTestS,
  type BusCase,
  type RiseReading,
  type StartSequence,
  type SwitchEvent,
} from './sequence';
