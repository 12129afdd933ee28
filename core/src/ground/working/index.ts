export { substitute } from './substitute';
export { Worksheet, type WorkingInput, type WorkingStep } from './worksheet';
