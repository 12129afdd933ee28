import { defineRule } from '../finding';

/** The chosen resistor no longer holds. */
export const chosenResistor = defineRule({
  id: 'precharge.chosen-resistor',
  version: 1,
  grade: 'stop',
  title: 'The chosen pre-charge resistor does not hold',
  why: 'A resistor that is too slow strands the vehicle; one without the pulse energy burns when the bus is shorted or a start is repeated.',
  remedy: 'Choose one of the ranked replacements, or change time limit and attempts and prove them.',
  source: 'First-order RC circuit; makers’ pulse ratings',
});

export const bleedHeat = defineRule({
  id: 'bus-discharge.no-bleed',
  version: 1,
  grade: 'stop',
  title: 'Nothing discharges the bus',
  why: 'Without a bleed resistor or an active discharge the capacitors keep the pack’s voltage for minutes or hours after shut-down.',
  remedy: 'Enter the bleed resistor or the active discharge of a device, or fit one across the bus.',
  source: 'Usual requirement: below 60 V DC within seconds after shut-down',
});

export const activeAlone = defineRule({
  id: 'bus-discharge.active-alone',
  version: 1,
  grade: 'note',
  title: 'Only a switched resistor empties the bus',
  why: 'Without its supply or its driver nothing discharges the capacitors, and that is just when somebody opens the vehicle.',
  remedy: 'A bleed that is always on beside it, even a slow one, and a wait in the instructions.',
  source: 'Practice of bus discharge: a second way that needs nothing',
});

export const bareTimer = defineRule({
  id: 'precharge.bare-timer',
  version: 1,
  grade: 'mend',
  title: 'A bare timer closes the main',
  why: 'A timer closes on whatever is there: with a load left on, more capacitance or a short the contacts close on the full difference and weld.',
  remedy:
    'Let the bus voltage close the main, with a time limit that gives up; keep a timer as the limit only.',
  source: 'First-order RC circuit: the same timer on a bus that is not as designed',
});
