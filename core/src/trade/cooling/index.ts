export { coolingRoom } from './room';
export { fluidAt, glycol50, type Fluid, type FluidTable } from './fluid';
export { lawOf, PumpCurve, type LoopElement } from './laws';
export { solveLoop, type SolvedLoop } from './solve';
export { hydraulic, type HydraulicResult, type PumpPoint } from './hydraulic';
export { loopBalance, type LoopBalanceInput, type LoopBalanceResult } from './loop-balance';
export { packThermal, type PackThermalInput, type PackThermalResult } from './pack-thermal';
export { leakTest, type LeakTestInput, type LeakTestResult } from './leak-test';
