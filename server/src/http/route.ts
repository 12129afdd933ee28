import { openDoor, type DoorRules } from '@torvek/core/calculator';
import type { Request, Response, Router } from 'express';
import { invalidInput } from './errors';

/** Who may call a route. Until people sign in, everyone on this machine is an owner. */
export type Role = 'public' | 'technician' | 'designer' | 'witness' | 'owner';

export interface Call<Body> {
  params: Record<string, string>;
  query: Record<string, string>;
  body: Body;
}

/** One row of the route table. */
export interface Route<Body = unknown> {
  method: 'get' | 'post' | 'patch';
  path: string;
  role: Role;
  /** The door of the body; absent where there is none. */
  door?: DoorRules;
  handle(call: Call<Body>): Promise<unknown> | unknown;
}

/** Keeps the type of a route's body while the table holds routes of many kinds. */
export function route<Body = undefined>(one: Route<Body>): Route {
  return one as unknown as Route;
}

/** Mounts the route table: parse, handle, answer as JSON. */
export function mount(router: Router, routes: readonly Route[]): void {
  for (const one of routes) {
    router[one.method](one.path, async (request: Request, response: Response) => {
      const call: Call<unknown> = {
        params: request.params as Record<string, string>,
        query: queryOf(request),
        body: request.body,
      };
      if (one.door !== undefined) {
        const parsed = openDoor(request.body, one.door);
        if (!parsed.ok) throw invalidInput(parsed.issues);
        call.body = parsed.input;
      }
      response.json(await one.handle(call));
    });
  }
}

function queryOf(request: Request): Record<string, string> {
  return Object.fromEntries(
    Object.entries(request.query).filter((pair): pair is [string, string] => typeof pair[1] === 'string'),
  );
}
