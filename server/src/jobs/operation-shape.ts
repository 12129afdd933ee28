import { oneOf, record, text } from '@torvek/core/calculator';
import * as yup from 'yup';

/** One operation of RFC 6902, as a body holds it. */
export const operationShape = record.by((value) => ({
  op: oneOf(['add', 'replace', 'remove']),
  path: text(400),
  ...(value.op !== 'remove' && { value: yup.mixed().nullable() }),
}));
