import { libraryRoom } from './model/library';
import { vehicleRoom } from './trade/vehicle';
import { packRoom } from './trade/pack';
import { balanceRoom } from './trade/balance';
import { networkRoom } from './trade/network';
import { prechargeRoom } from './trade/precharge';
import { fuseRoom } from './trade/fuse';
import { conductorRoom } from './trade/conductor';
import { contactorRoom } from './trade/contactor';
import { distancesRoom } from './trade/distances';
import { jointsRoom } from './trade/joints';
import { bondingRoom } from './trade/bonding';
import { normsRoom } from './trade/norms';
import { builtRoom } from './trade/built';
import { routingRoom } from './trade/routing';
import { chargingRoom } from './trade/charging';
import { coolingRoom } from './trade/cooling';
import { lowVoltageRoom } from './trade/low-voltage';
import { monitoringRoom } from './trade/monitoring';
import type { Room } from './model/room';

/** The rooms of the trade, in the order of the job: whoever wants their steps, calculators or stations asks here. */
export const rooms: readonly Room[] = [
  libraryRoom,
  vehicleRoom,
  packRoom,
  balanceRoom,
  networkRoom,
  prechargeRoom,
  fuseRoom,
  conductorRoom,
  contactorRoom,
  distancesRoom,
  jointsRoom,
  bondingRoom,
  normsRoom,
  builtRoom,
  routingRoom,
  chargingRoom,
  coolingRoom,
  lowVoltageRoom,
  monitoringRoom,
];
