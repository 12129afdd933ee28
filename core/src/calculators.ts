import { balanceTime, parallelMatch, restPredict } from './balance';
import { registered, type AnyCalculator } from './calculator';
import { busbar, cable, cableDuty } from './conductor';
import { faultCurrent, fuse } from './fuse';
import { liveMap, pathFaults } from './network';
import { pack, segments } from './pack';
import { busDischarge, precharge, prechargeChoose, prechargeFit } from './precharge';
import { axleLoads, range } from './vehicle';

/** Every stateless calculator, by the name it has under `/api/calc/`. */
export const calculators: ReadonlyMap<string, AnyCalculator> = new Map(
  [
    registered(range),
    registered(axleLoads),
    registered(pack),
    registered(segments),
    registered(parallelMatch),
    registered(restPredict),
    registered(balanceTime),
    registered(liveMap),
    registered(pathFaults),
    registered(precharge),
    registered(prechargeChoose),
    registered(prechargeFit),
    registered(busDischarge),
    registered(fuse),
    registered(faultCurrent),
    registered(cable),
    registered(cableDuty),
    registered(busbar),
  ].map((calculator) => [calculator.name, calculator]),
);
