import './figures';
export { coolingRoom } from './room';
export { fluidAt, glycol50, type Fluid, type FluidTable } from './fluid';
export { lawOf, PumpCurve, type LoopElement } from './laws';
export { solveLoop, type SolvedLoop } from './solve';
export { hydraulic, type HydraulicResult, type PumpPoint } from './hydraulic';
export {
  bypassBelow,
  imbalanceAbove,
  loopBalance,
  starvedBelow,
  type LoopBalanceInput,
  type LoopBalanceResult,
} from './loop-balance';
export { loopThermal, type LoopThermalInput, type LoopThermalResult } from './loop-thermal';
export { packThermal, type PackThermalInput, type PackThermalResult } from './pack-thermal';
export { leakTest, standardAtmosphereKPa, type LeakTestInput, type LeakTestResult } from './leak-test';
export { warmUp } from './warm-up';
export { caseNames, contactKPerW, coolingCases, plateShares, type CoolingCase } from './cases';
export { coreBandWPerK } from './core-band';
export { dropOf, fluidTableOf, piecesOf, type Piece } from './pieces';
export { fitDrop, type FittedDrop } from './fit-drop';
export { thermometerOffK, uaFromReading, type MeasuredUa, type RadiatorReading } from './ua-measured';
export { dropsOf, type LoopAnswer } from './loop-answer';
export { plumbingToday, type PresentFlows } from './present-step';
export { holdLimitKPa, testOf } from './fill-step';
export { schoolsOf, type SchoolRow } from './schools';
export { type PackOverTime } from './pack-step';
export { highPoints, postureOf } from './posture';
