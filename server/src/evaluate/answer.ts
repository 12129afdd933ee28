import { anything, list, openDoor, record, type Issue } from '@torvek/core/shape';
import { createEvaluator, outlineOf, type Outline } from '@torvek/core/design';
import {
  applyOperations,
  checkDesign,
  OperationError,
  type Design,
  type Operation,
} from '@torvek/core/document';
import { starterLibrary } from '@torvek/core/library';
import { operationShape } from '../jobs/operation-shape';

export type Answer = { ok: true; outline: Outline } | { ok: false; status: 400 | 422; issues: Issue[] };

const request = {
  schema: record({
    document: anything.required(),
    changes: list.optional(operationShape, { maxRows: 10_000 }),
  }),
};

/** One that stays warm in its thread: designs asked one after the other mostly differ in little. */
const evaluator = createEvaluator();

const under = (at: string, issues: Issue[]): Answer => ({
  ok: false,
  status: 422,
  issues: issues.map(({ path, message }) => ({ path: path === '' ? at : `${at}.${path}`, message })),
});

/**
 * What follows from a whole design, with changes on top of it: the starter catalogue is all the library there is, and there is no record.
 *
 * @param bytes JSON: `{ document, changes? }`
 */
export function answerTo(bytes: Uint8Array): Answer {
  let body: unknown;
  try {
    body = JSON.parse(new TextDecoder().decode(bytes)) as unknown;
  } catch {
    return { ok: false, status: 400, issues: [{ path: '', message: 'is not JSON' }] };
  }
  const parsed = openDoor<{ document: unknown; changes?: Operation[] }>(body, request);
  if (!parsed.ok) return { ok: false, status: 422, issues: parsed.issues };
  const { document, changes = [] } = parsed.input;
  const checked = checkDesign(document);
  if (!checked.ok) return under('document', checked.issues);
  const changed = withChanges(checked.design, changes);
  if ('issue' in changed) return { ok: false, status: 422, issues: [changed.issue] };
  const again = checkDesign(changed.design);
  if (!again.ok) return under('changes', again.issues);
  return { ok: true, outline: outlineOf(evaluator.evaluate(again.design, starterLibrary)) };
}

function withChanges(design: Design, changes: Operation[]): { design: Design } | { issue: Issue } {
  let at = design;
  for (const [i, operation] of changes.entries()) {
    try {
      at = applyOperations(at, [operation]);
    } catch (error) {
      if (!(error instanceof OperationError)) throw error;
      return { issue: { path: `changes.${i}`, message: error.message } };
    }
  }
  return { design: at };
}
