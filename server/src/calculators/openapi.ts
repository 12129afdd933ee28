import { calculators } from '@torvek/core/calculators';
import { designSchema } from '@torvek/core/document';
import type { JsonSchema } from '@torvek/core/shape';
import { operationSchema } from '../jobs/operation-shape';

const text: JsonSchema = { type: 'string' };
const object = (properties: Record<string, JsonSchema>): JsonSchema => ({
  type: 'object',
  properties,
  required: Object.keys(properties),
});
const listOf = (items: JsonSchema): JsonSchema => ({ type: 'array', items });
const numberOrNull: JsonSchema = { anyOf: [{ type: 'number' }, { type: 'null' }] };

const workingStep = object({
  symbol: text,
  label: text,
  formula: text,
  substituted: text,
  value: numberOrNull,
  unit: text,
  source: text,
});

const calculated = object({
  result: {},
  working: listOf(workingStep),
  findings: listOf(object({ rule: text, severity: text, message: text })),
});

const refused = object({
  error: object({
    code: text,
    message: text,
    issues: listOf(object({ path: { ...text, description: 'dotted, counted from 0' }, message: text })),
  }),
});

const evaluated = object({
  figures: { type: 'object', additionalProperties: object({ value: numberOrNull, unit: text, label: text }) },
  findings: listOf(object({ rule: text, grade: text, subjects: listOf(text), message: text })),
  notComputed: listOf(object({ figure: text, because: text })),
});

const json = (schema: unknown) => ({ 'application/json': { schema } });
const answers = (schema: unknown, others: readonly string[]) => ({
  200: { description: 'Computed', content: json(schema) },
  ...Object.fromEntries(
    others.map((status) => [
      status,
      { description: meaning[status], content: json({ $ref: '#/components/schemas/Refused' }) },
    ]),
  ),
});
const meaning: Record<string, string> = {
  400: 'The body is not JSON',
  413: 'The body is larger than is taken',
  422: 'The body is refused; every issue names its field',
  429: 'More calls than are taken in a minute',
  503: 'It took longer than it may',
};

/** One operation for each calculator, with what it lets pass. */
function calculatorPaths() {
  return Object.fromEntries(
    [...calculators.values()].map((one) => [
      `/api/calc/${one.name}`,
      {
        post: {
          operationId: `calc-${one.name}`,
          summary: one.title,
          description: [
            `Version ${one.version}.`,
            ...(one.rules.length === 0 ? [] : [`May raise ${one.rules.map(({ id }) => id).join(', ')}.`]),
          ].join(' '),
          requestBody: { required: true, content: json(one.inputSchema()) },
          responses: answers({ $ref: '#/components/schemas/Calculated' }, ['400', '413', '422', '429']),
        },
      },
    ]),
  );
}

/**
 * What anybody may call, described as OpenAPI 3.1: the calculators and the door for whole designs. Made of the same
 * shapes that judge the bodies; rules between fields stand in no schema.
 */
export function openApi(): object {
  return {
    openapi: '3.1.0',
    info: {
      title: 'Torvek',
      version: '1',
      description:
        'Figures for a design, to be checked by whoever builds it: the makers’ documents, the rules of the place and licensed practice come first. Units end each name.',
    },
    paths: {
      '/api/calc': {
        get: {
          operationId: 'calculators',
          summary: 'The calculators there are',
          responses: {
            200: {
              description: 'Their names',
              content: json(listOf(object({ name: text, version: { type: 'integer' }, title: text }))),
            },
          },
        },
      },
      ...calculatorPaths(),
      '/api/evaluate': {
        post: {
          operationId: 'evaluate',
          summary: 'What follows from a whole design',
          requestBody: {
            required: true,
            content: json({
              ...object({
                document: { $ref: '#/components/schemas/Design' },
                changes: listOf({ $ref: '#/components/schemas/Operation' }),
              }),
              required: ['document'],
              additionalProperties: false,
            }),
          },
          responses: answers({ $ref: '#/components/schemas/Evaluated' }, ['400', '413', '422', '429', '503']),
        },
      },
    },
    components: {
      schemas: {
        Calculated: calculated,
        Evaluated: evaluated,
        Refused: refused,
        Operation: operationSchema(),
        Design: designSchema(),
      },
    },
  };
}
