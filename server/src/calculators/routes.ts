import { calculators } from '@torvek/core/calculators';
import { heavy } from '../heavy/heavy';
import { invalidInput, notFound } from '../http/errors';
import { route, type Route } from '../http/route';
import { openApi } from './openapi';

/** Made once, when somebody asks. */
let described: object | null = null;

/** Every calculator by one route, and the list of them. */
export const calculatorRoutes: Route[] = [
  route<unknown>({
    method: 'post',
    path: '/calc/:name',
    role: 'public',
    async handle({ params, body }) {
      const calculator = calculators.get(params.name ?? '');
      if (calculator === undefined) throw notFound(`the calculator ${(params.name ?? '').slice(0, 60)}`);
      const long = typeof body === 'object' && body !== null && calculator.isLong?.(body) === true;
      const outcome = long
        ? await heavy('calculate', { name: calculator.name, body }, Infinity)
        : calculator.answer(body);
      if (!outcome.ok) throw invalidInput(outcome.issues);
      return outcome.answer;
    },
  }),
  route({
    method: 'get',
    path: '/calc',
    role: 'public',
    handle: () => [...calculators.values()].map(({ name, version, title }) => ({ name, version, title })),
  }),
  route({ method: 'get', path: '/openapi.json', role: 'public', handle: () => (described ??= openApi()) }),
];
