import { defineRoom } from '../../model/step';
import { twelveVolt } from './twelve-volt';
import { wire12v } from './wire-12v';

export const lowVoltageRoom = defineRoom('low-voltage', 'protect')
  .withRules('twelve-volt', 'wire-12v')
  .withCalculator(twelveVolt)
  .withCalculator(wire12v);
