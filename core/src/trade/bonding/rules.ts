import { rulesOf } from '../../ground/finding';

const bond = rulesOf('bonding');
const marking = rulesOf('marking');
const charging = rulesOf('charging');
const unece = 'UN R100: below 0.1 Ω at 0.2 A or more';

/** Bond of each body, and what a fault asks of it, Ω. */
export const unscreenedRule = rulesOf('bonding')(
  'unscreened',
  'note',
  'The cable of an inverter has no screen',
  'An inverter switches hundreds of volts in nanoseconds: without a screen its cable is an aerial into sense leads, CAN and radio.',
  'A screened cable, its screen held all round at both ends.',
  'Practice of the trade; the inverter’s maker comes first',
);

export const mostBondOhm = 0.1;

export const bondingRules = {
  none: bond(
    'none',
    'mend',
    'A body that can be touched is not bonded',
    'One fault makes it live, and nothing else in the vehicle shows it; with a second one current goes through whoever touches both.',
    'A strap or a bolted face to the chassis, measured after it is made.',
    unece,
  ),
  resistance: bond(
    'resistance',
    'mend',
    'The way to the chassis has too much resistance',
    'The bond holds a faulty body near the chassis’ potential only while its resistance is small.',
    'A shorter or thicker strap, a way of its own to the chassis, cleaner faces.',
    unece,
  ),
  withstand: bond(
    'withstand',
    'mend',
    'The strap burns before the fuse has cleared',
    'Two faults on two bodies drive the pack’s current through their bonds.',
    'A larger strap or a faster fuse.',
    'IEC 60364-5-54: k²S², k = 143 for copper',
  ),
  floating: bond(
    'screen-floating',
    'mend',
    'A screen ends nowhere',
    'A screen that hangs free screens nothing, and takes any voltage.',
    'Clamp it all round at each end, as the device’s maker says.',
    'Practice of screened high-voltage cables',
  ),
  oneEnd: bond(
    'screen-one-end',
    'note',
    'A screen ends at one side alone',
    'At the frequencies of a switching device it then works as an antenna.',
    'Clamp it at both ends unless the maker of the device says otherwise.',
    'Practice of screened high-voltage cables',
  ),
  pigtail: bond(
    'screen-pigtail',
    'note',
    'A screen is led off by a twisted tail',
    'A few centimetres of wire undo the screen at the frequencies that disturb.',
    'A clamp all round the screen.',
    'Practice of screened high-voltage cables',
  ),
};

export const markingRules = {
  sheath: marking(
    'not-orange',
    'mend',
    'A high-voltage cable is not orange',
    'Whoever opens the vehicle next takes it for one of 12 V.',
    'An orange sheath, or an orange sleeve over its whole visible length.',
    'UN R100: orange outer covering of cables outside enclosures',
  ),
  sleeve: marking(
    'sense-sleeve',
    'mend',
    'The sleeve of the sense leads does not tell them from the cables',
    'Sleeves are there so that orange means what kills by its current; they need a colour of their own.',
    'Name a colour that is not orange, or mark sense leads orange as well.',
    'Two schools: orange is the default here',
  ),
};

export const sourceRules = {
  isolation: charging(
    'no-isolation',
    'stop',
    'This source ties the pack to the mains',
    'Without isolation every part of the pack is live against the ground one stands on.',
    'An isolated charger, or an isolating transformer before it.',
    'IEC 61851-23 and UN R100: isolation between mains and pack',
  ),
  cutOff: charging(
    'no-cut-off',
    'stop',
    'A source that runs alone has no end of its own',
    'When the monitor fails nothing stops it: it charges the cells until they burn.',
    'A source that ends by its own voltage, set at or below the pack’s highest; or somebody who stays.',
    'Practice of charging: two ends, each by itself',
  ),
};

/** The least current of a bond’s measurement, A. */
export const leastBondTestA = 0.2;

export const measuredBondRule = bond(
  'measured',
  'mend',
  'The measured bond does not hold',
  'Only a bond that carries the test current with a small drop has been shown to be one.',
  'Clean the faces, tighten the strap, measure again with 0.2 A or more.',
  unece,
);
