import { rulesOf } from '../../ground/finding';

const rule = rulesOf('vehicle');

export const vehicleRules = {
  frontLimit: rule(
    'front-axle-limit',
    'mend',
    'The front axle is overloaded',
    'Brakes, springs, tyres and the vehicle’s papers end at the axle limit.',
    'Move mass behind the front axle, or take it out.',
    'Limits on the vehicle’s plate',
  ),
  rearLimit: rule(
    'rear-axle-limit',
    'mend',
    'The rear axle is overloaded',
    'Brakes, springs, tyres and the vehicle’s papers end at the axle limit.',
    'Move mass forward of the rear axle, or take it out.',
    'Limits on the vehicle’s plate',
  ),
  grossLimit: rule(
    'gross-limit',
    'mend',
    'The vehicle is heavier than its gross limit',
    'Beyond the gross limit the vehicle is outside its papers, whatever its axles say.',
    'Use fewer or lighter modules, or ask the authority about a higher limit.',
    'Limits on the vehicle’s plate',
  ),
  shift: rule(
    'axle-shift',
    'note',
    'The axle split has moved by more than 5 points',
    'Braking balance and handling were made for the original split.',
    'Move boxes towards the light axle, or have the brake balance looked at.',
    'Practice: keep within about 5 percentage points',
  ),
  cycleOverPeak: rule(
    'cycle-over-peak',
    'note',
    'The drive cycle asks for more current than the peak that is allowed',
    'The inverter will not follow the cycle: the vehicle is slower there than drawn.',
    'A gentler cycle, a lighter vehicle, or a higher peak that pack and circuit are made for.',
    'Battery current over the drive cycle',
  ),
  range: rule(
    'range-short',
    'mend',
    'The range falls short of what is wanted',
    'By road load at the brief’s speed the vehicle does not come as far as the brief asks.',
    'More modules, a lower speed, or a smaller wish.',
    'Road load at constant speed',
  ),
  rangeWinter: rule(
    'range-winter',
    'note',
    'On the coldest day the range falls short of what is wanted',
    'A pack that is warmed first and a heated cabin take their share before the wheels do, and cold air is denser.',
    'Warm pack and cabin from the mains before leaving, seats instead of air, or more modules.',
    'Road load at constant speed; heat of boxes and cabin out of the pack',
  ),
};

/** Shift of the axle split that is worth a note, percentage points. */
export const notableShiftPoints = 5;
