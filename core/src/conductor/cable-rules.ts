import { defineRule } from '../finding';

export const dropRule = defineRule({
  id: 'cable.voltage-drop',
  version: 1,
  grade: 'mend',
  title: 'The cable drops too much voltage',
  why: 'What drops in the cable is heat in the vehicle and is missing at the motor.',
  remedy: 'Choose a larger area or a shorter way.',
  source: 'Practice: about 2 % at the load’s rms',
});

export const chosenCable = defineRule({
  id: 'cable.chosen-cable',
  version: 1,
  grade: 'stop',
  title: 'The chosen cable does not hold',
  why: 'One criterion governs the size of a cable; where it fails, the others do not help.',
  remedy: 'Choose one of the ranked areas, or change installation, ambient or load and prove it.',
  source: 'Heat balance, voltage drop and adiabatic limit together',
});
