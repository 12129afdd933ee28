import { defineRule, rulesOf } from '../../ground/finding';

const rule = rulesOf('precharge');
const pulses = 'First-order RC circuit; makers’ pulse ratings';
/** Findings of earlier editions that said it of the chosen resistor as a whole. */
const formerly = { formerly: ['precharge.chosen-resistor'] };

/** What the chosen resistor is held against beside its time. */
export const resistorRules = {
  pulse: rule(
    'pulse-energy',
    'stop',
    'A start is more than the resistor takes in one pulse',
    'Each start heats the wire faster than it can hand the heat on: it ages with every one and then opens.',
    'Choose a resistor with a larger pulse rating.',
    pulses,
    formerly,
  ),
  shorted: rule(
    'shorted-energy',
    'stop',
    'A start on a shorted bus burns the resistor',
    'On a short the whole pack voltage stands across it until the time limit.',
    'A resistor with a larger pulse rating, more resistance, or a shorter time limit.',
    pulses,
    formerly,
  ),
  repeated: rule(
    'repeated-starts',
    'mend',
    'Repeated starts are more than the resistor takes',
    'Starts that follow each other add up: it never cools.',
    'Fewer starts a minute in the controller, or a resistor of more power.',
    pulses,
    formerly,
  ),
  repeatedOnShort: rule(
    'repeated-on-short',
    'mend',
    'Repeated starts on a short are more than the resistor takes',
    'Somebody will turn the key again and again: each try on a shorted bus puts a full pulse into it.',
    'Let the controller wait after a start that failed, or lock out; or a resistor of more power.',
    'V²/R until the time limit, times the starts a minute; makers’ continuous ratings',
  ),
  voltage: rule(
    'resistor-voltage',
    'stop',
    'The pre-charge resistor is not made for this voltage',
    'Beyond its voltage it flashes over along its body.',
    'A resistor for the highest pack voltage.',
    'Makers’ ratings',
    formerly,
  ),
};

/** An active discharge that is not switched off when the bus fills. */
export const activeOn = rule(
  'active-on',
  'stop',
  'The active discharge stands on the bus while it fills',
  'It holds the bus down and is itself heated by the pack: neither it nor the pre-charge resistor is made for that.',
  'Let the controller open it before the pre-charge contactor closes, and prove that it does.',
  'First-order RC circuit with a parallel load',
);

export const bleedHeat = defineRule({
  id: 'bus-discharge.no-bleed',
  version: 1,
  grade: 'stop',
  title: 'Nothing discharges the bus',
  why: 'Without a bleed resistor or an active discharge the capacitors keep the pack’s voltage for minutes or hours after shut-down.',
  remedy: 'Enter the bleed resistor or the active discharge of a device, or fit one across the bus.',
  source: 'Usual requirement: below 60 V DC within seconds after shut-down',
});

/** More than what a case sheds beside its own losses, W. */
export const hotBleedW = 400;
export const bleedHot = defineRule({
  id: 'bus-discharge.bleed-hot',
  version: 1,
  grade: 'mend',
  title: 'The bleed that is always on heats like a stove',
  why: 'It is on as long as the bus is: hundreds of watts in a closed case age capacitors and seals, and empty the pack.',
  remedy: 'A larger resistance that is still quick enough, or a discharge that is switched on at shut-down.',
  source: 'V²/R at the highest pack voltage',
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

export const timerWelds = defineRule({
  id: 'precharge.timer-welds',
  version: 1,
  grade: 'stop',
  title: 'The bare timer closes the main on more than it makes, each time',
  why: 'Even on a bus that is as designed the difference left is more than the contacts make: they weld at one of the first starts.',
  remedy: 'A longer timer at once; better the bus voltage with a time limit.',
  source: 'First-order RC circuit at the timer against the contactor’s making capacity',
});

export const bareTimer = defineRule({
  id: 'precharge.bare-timer',
  version: 2,
  grade: 'mend',
  title: 'A bare timer closes the main',
  why: 'A timer closes on whatever is there: with a load left on, more capacitance or a short the contacts close on the full difference and weld.',
  remedy:
    'Let the bus voltage close the main, with a time limit that gives up; keep a timer as the limit only.',
  source: 'First-order RC circuit: the same timer on a bus that is not as designed',
});
