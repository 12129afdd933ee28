export { jsonSchemaOf, type JsonSchema } from './describe';
export { doorSchema, openDoor, type DoorRules, type Issue, type Parsed, type Schema } from './door';
export { anything, judgedInParts, orNull } from './judged';
export { list, mapOf } from './list';
export { number, numberProblem, numberSchema, type NumberRule } from './number';
export { record } from './record';
export { span, table, type TableRule } from './table';
export { day, oneOf, text } from './text';
