import { defineRule } from '../../ground/finding';

export const dropRule = defineRule({
  id: 'cable.voltage-drop',
  version: 1,
  grade: 'mend',
  title: 'The cable drops too much voltage',
  why: 'What drops in the cable is heat in the vehicle and is missing at the motor.',
  remedy: 'Choose a larger area or a shorter way.',
  source: 'Practice: about 2 % at the load’s rms',
  formerly: ['cable.chosen-cable'],
});
