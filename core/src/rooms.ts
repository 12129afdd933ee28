import { libraryRoom } from './library';
import { vehicleRoom } from './vehicle';
import { packRoom } from './pack';
import { balanceRoom } from './balance';
import { networkRoom } from './network';
import { prechargeRoom } from './precharge';
import { fuseRoom } from './fuse';
import { conductorRoom } from './conductor';
import { contactorRoom } from './contactor';
import { distancesRoom } from './distances';
import { jointsRoom } from './joints';
import { bondingRoom } from './bonding';
import type { Room } from './step';

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
];
