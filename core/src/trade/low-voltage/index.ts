export { lowVoltageRoom } from './room';
export { twelveVolt, type TwelveVoltInput, type TwelveVoltResult } from './twelve-volt';
export { wire12v, type Wire12vInput, type Wire12vResult } from './wire-12v';
