import { rulesOf } from '../../ground/finding';

const rule = rulesOf('run');
const places = 'Places of boxes, devices and zones in the vehicle frame, as given';

export const runRules = {
  forbidden: rule(
    'forbidden',
    'stop',
    'A run leads through a place it must not',
    'It was said that nothing leads through there.',
    'Lead it around, or say of the zone what it really is.',
    places,
  ),
  crush: rule(
    'crush',
    'mend',
    'A run lies bare where the vehicle is crushed',
    'In a collision or on a jack the cable is what gives way, at full voltage.',
    'Another way, or a rigid metal conduit there.',
    places,
  ),
  low: rule(
    'low',
    'mend',
    'A run hangs lower than anything may',
    'Stones, ramps and kerbs reach it.',
    'Lead it higher.',
    'Ground clearance of the vehicle against the lowest point of the run',
  ),
  endOff: rule(
    'end-off',
    'mend',
    'A run does not end where it is said to',
    'The cable is cut to a length that does not reach, or the box has moved.',
    'Move the end point to the gland, or say again where the run ends.',
    `${places}; 50 mm at most between end and outside`,
  ),
  through: rule(
    'through',
    'mend',
    'A run leads through a box or device',
    'There is no way there.',
    'Lead it around, or end it there.',
    places,
  ),
  onePole: rule(
    'one-pole',
    'mend',
    'Only one pole of a circuit is routed',
    'Its length stays as typed: the run of one pole says nothing of the other.',
    'A run for the other pole, or both in one.',
    'Runs that carry the circuit',
  ),
  twice: rule(
    'twice',
    'note',
    'A circuit is carried by several runs',
    'Their lengths add up: right where one goes on where the other ends.',
    'Leave it, or take the circuit off the run that it does not use.',
    'Runs that carry the circuit',
  ),
};
