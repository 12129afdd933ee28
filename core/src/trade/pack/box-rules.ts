import { rulesOf } from '../../ground/finding';

const rule = rulesOf('pack');

export const boxRules = {
  anchors: rule(
    'anchors-weak',
    'mend',
    'The anchors of a box do not hold the g-load asked',
    'In a crash a box that comes loose tears its cables and opens.',
    'More or stronger fasteners, or a lighter box; the local rule and the fastener maker’s data come first.',
    'Mass × g-load of the local rule over the fasteners',
  ),
  access: rule(
    'no-access',
    'mend',
    'A box cannot be reached once the vehicle is together',
    'Links, fuses and sense leads need hands and tools long after assembly.',
    'A hatch, a cover that comes off in place, or a way to lower the box.',
    'Practice of the trade',
  ),
  vent: rule(
    'vent',
    'note',
    'A box breathes without a filter, or not at all',
    'A closed box breathes through its seals and collects water; an open one collects dust.',
    'A vent with a filter, at a place that stays dry, and a check for condensation at each service.',
    'Practice of the trade',
  ),
  overfull: rule(
    'box-overfull',
    'mend',
    'Modules do not fit their box',
    'What does not fit on paper fits by force, and chafes.',
    'Move modules to another box, make it larger, or prove another way of stacking in a dry fit.',
    'Sizes of box and modules; modules in rows, turned in plan, upright unless their maker allows more',
  ),
  shelf: rule(
    'shelf-weak',
    'mend',
    'A shelf of a box does not hold what stands on it',
    'In a crash, and in every pothole, the upper modules come down on posts and links below.',
    'A stronger shelf, fewer modules on it, or its load led into the walls; the local rule comes first.',
    'Mass on the fullest shelf × g-load of the local rule',
  ),
  floor: rule(
    'floor-crushed',
    'mend',
    'Insulation under the modules does not bear them',
    'It is crushed where they stand: it insulates no more, and the modules work loose with every pothole.',
    'Insulation that bears more, feet through it to the floor, or a plate that spreads the load.',
    'Mass of the modules on the floor, twice for potholes, over the insulation they stand on; its maker’s long-term value',
  ),
  pitch: rule(
    'link-pitch-tight',
    'mend',
    'The link pitch is narrower than the modules',
    'Donor links have bends that take up expansion; stretched or crushed they pull at the posts.',
    'Hold the modules at the donor’s pitch, or make new links.',
    'Sizes of the modules',
  ),
  heaterCut: rule(
    'heater-cut-out',
    'mend',
    'Nothing takes a heater off the bus when it gets too hot',
    'A relay that sticks or a loop without coolant, and it burns: a resistance does not stop by itself.',
    'A thermal cut-out in its own contacts, or one in the coil circuit of contactors in both its poles.',
    'Cut-out of the heater, and the contactors of its circuit',
  ),
  heater: rule(
    'heater-weak',
    'note',
    'A heater gives far less than its rating',
    'A plain resistance gives power with the square of the voltage.',
    'A heater rated near the pack’s voltage, or a larger one.',
    'P = P_rated·(U/U_rated)²',
  ),
};
