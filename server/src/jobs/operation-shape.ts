import { anything, jsonSchemaOf, oneOf, record, text } from '@torvek/core/shape';

const where = { op: oneOf(['add', 'replace', 'remove']), path: text(400) };

/** One operation of RFC 6902, as a body holds it. */
export const operationShape = record.by(
  { with: { ...where, value: anything() }, without: where },
  ({ op }) => (op === 'remove' ? 'without' : 'with'),
);

/** The same as JSON Schema. */
export const operationSchema = () => jsonSchemaOf(operationShape);
