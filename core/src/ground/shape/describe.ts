/** A JSON Schema, as much of draft 2020-12 as the shapes need. */
export interface JsonSchema {
  /** Another schema of the same document. */
  $ref?: string;
  type?: 'number' | 'integer' | 'string' | 'boolean' | 'object' | 'array' | 'null';
  description?: string;
  default?: unknown;
  enum?: readonly unknown[];
  minimum?: number;
  maximum?: number;
  exclusiveMinimum?: number;
  exclusiveMaximum?: number;
  minLength?: number;
  maxLength?: number;
  minItems?: number;
  maxItems?: number;
  items?: JsonSchema | false;
  prefixItems?: JsonSchema[];
  minProperties?: number;
  maxProperties?: number;
  properties?: Record<string, JsonSchema>;
  required?: string[];
  additionalProperties?: JsonSchema | false;
  anyOf?: JsonSchema[];
}

interface Told {
  schema: () => JsonSchema;
  optional: boolean;
}

const told = new WeakMap<object, Told>();

/** Says what a shape holds; made only when somebody asks. */
export function withSchema<S extends object>(shape: S, schema: () => JsonSchema, optional: boolean): S {
  told.set(shape, { schema, optional });
  return shape;
}

/**
 * What a shape lets pass, as JSON Schema. Rules between fields are not in it.
 *
 * @throws when it is no shape of this room
 */
export function jsonSchemaOf(shape: object): JsonSchema {
  const found = told.get(shape);
  if (found === undefined) throw new Error('a shape that says nothing of itself');
  return found.schema();
}

/** Whether a value may be absent where this shape stands. */
export const mayBeAbsent = (shape: object): boolean => told.get(shape)?.optional === true;
