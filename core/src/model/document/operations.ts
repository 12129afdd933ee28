import { applyPatches, enablePatches, produceWithPatches, type Draft, type Patch } from 'immer';
import type { Design } from './design';

enablePatches();

/** One operation of RFC 6902; only these three are used. */
export type Operation =
  { op: 'add' | 'replace'; path: string; value: unknown } | { op: 'remove'; path: string };

/** What an edit did, forward and back. */
export interface Edit {
  design: Design;
  forward: Operation[];
  inverse: Operation[];
}

/**
 * Edits a design with a recipe and keeps the identity of everything that did not change.
 * Lists are replaced whole: no operation points into a list.
 *
 * @returns null when the recipe changed nothing
 */
export function edit(design: Design, recipe: (draft: Draft<Design>) => void): Edit | null {
  const [next, forward, inverse] = produceWithPatches(design, (draft) => {
    recipe(draft);
  });
  if (forward.length === 0) return null;
  return {
    design: next,
    forward: liftLists(forward, design, next),
    inverse: liftLists(inverse, next, design),
  };
}

/**
 * Applies operations to a design; it may come out as something that is no design: check it afterwards.
 *
 * @throws OperationError when an operation points at something that is not there
 */
export function applyOperations(design: Design, operations: Operation[]): Design {
  try {
    return operations.reduce((at, operation) => applyPatches(at, [patchOf(at, operation)]), design);
  } catch (error) {
    if (error instanceof OperationError) throw error;
    throw new OperationError(error instanceof Error ? error.message.slice(0, 200) : 'cannot be applied');
  }
}

/** An operation that does not fit the document it is applied to. */
export class OperationError extends Error {}

/** What undoes operations that are about to be applied to a design; last first. */
export function inverseOf(design: Design, forward: Operation[]): Operation[] {
  let at = design;
  const inverse: Operation[] = [];
  for (const operation of forward) {
    const keys = keysOf(operation.path);
    const parent = valueAt(at, keys.slice(0, -1));
    const last = keys[keys.length - 1]!;
    const there = typeof parent === 'object' && parent !== null && Object.hasOwn(parent, last);
    const { path } = operation;
    inverse.unshift(
      there
        ? { op: operation.op === 'remove' ? 'add' : 'replace', path, value: valueAt(at, keys) }
        : { op: 'remove', path },
    );
    at = applyOperations(at, [operation]);
  }
  return inverse;
}

/** True when one path equals the other or lies above it. */
export function pathsMeet(a: string, b: string): boolean {
  return a === b || a.startsWith(`${b}/`) || b.startsWith(`${a}/`);
}

/** Whether two sets of operations touch the same places. */
export function operationsMeet(a: Operation[], b: Operation[]): boolean {
  return a.some((one) => b.some((other) => pathsMeet(one.path, other.path)));
}

/** RFC 6901. */
export function pointerOf(path: readonly (string | number)[]): string {
  return path.map((key) => `/${String(key).replace(/~/g, '~0').replace(/\//g, '~1')}`).join('');
}

/** The keys of an RFC 6901 pointer. */
export function keysOf(pointer: string): string[] {
  return pointer
    .split('/')
    .slice(1)
    .map((key) => key.replace(/~1/g, '/').replace(/~0/g, '~'));
}

function liftLists(patches: Patch[], before: Design, after: Design): Operation[] {
  const operations = new Map<string, Operation>();
  for (const { op, path, value } of patches) {
    const list = listAbove(before, path);
    if (list === null) {
      const pointer = pointerOf(path);
      operations.set(
        pointer,
        op === 'remove' ? { op, path: pointer } : { op, path: pointer, value: value as unknown },
      );
    } else {
      const pointer = pointerOf(list);
      operations.set(pointer, { op: 'replace', path: pointer, value: valueAt(after, list) });
    }
  }
  return [...operations.values()];
}

/** The path of the first list that a path goes through, or null. */
function listAbove(document: unknown, path: readonly (string | number)[]): (string | number)[] | null {
  let at = document;
  for (const [i, key] of path.entries()) {
    if (Array.isArray(at)) return path.slice(0, i);
    at = typeof at === 'object' && at !== null ? (at as Record<string, unknown>)[key] : undefined;
  }
  return null;
}

function valueAt(document: unknown, path: readonly (string | number)[]): unknown {
  return path.reduce<unknown>((at, key) => (at as Record<string, unknown> | undefined)?.[key], document);
}

function patchOf(design: Design, operation: Operation): Patch {
  const path = keysOf(operation.path);
  if (path.length === 0) throw new OperationError('replaces the whole design');
  if (path.some((key) => key === '__proto__' || key === 'constructor' || key === 'prototype')) {
    throw new OperationError('has a path that is not allowed');
  }
  const parent = valueAt(design, path.slice(0, -1));
  if (typeof parent !== 'object' || parent === null || Array.isArray(parent)) {
    throw new OperationError(`${operation.path} is not a place in this design`);
  }
  const there = Object.hasOwn(parent, path[path.length - 1]!);
  if (!there && operation.op !== 'add') throw new OperationError(`${operation.path} is not there`);
  return operation.op === 'remove'
    ? { op: 'remove', path }
    : { op: operation.op, path, value: operation.value };
}
