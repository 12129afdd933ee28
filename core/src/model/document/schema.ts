import { jsonSchemaOf, openDoor, record, type Issue, type JsonSchema } from '../../ground/shape';
import { designFields, type Design } from './design';
import { danglingReferences } from './references';

const designShape = record(
  Object.fromEntries(Object.entries(designFields).map(([name, { schema }]) => [name, schema])),
);

/** A design as JSON Schema; that what it names is there stands in no schema. */
export const designSchema = (): JsonSchema => jsonSchemaOf(designShape);

export type CheckedDesign = { ok: true; design: Design } | { ok: false; issues: Issue[] };

/**
 * Whether a document is a design: right types, no unknown fields, every reference pointing at something.
 * What is absent is not wrong.
 *
 * @param letBe references to nothing that are no fault of whoever asks: those that an older design has already
 */
export function checkDesign(
  document: unknown,
  letBe: (issue: Issue) => boolean = () => false,
): CheckedDesign {
  const parsed = openDoor<Design>(document, { schema: designShape });
  if (!parsed.ok) return parsed;
  const issues = danglingReferences(parsed.input).filter((issue) => !letBe(issue));
  return issues.length === 0 ? { ok: true, design: parsed.input } : { ok: false, issues };
}
