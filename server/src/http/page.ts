import { invalidInput } from './errors';

/** Most of one page. */
const mostPerPage = 1000;
const usually = 200;

/** A page of something that is numbered: what comes before a number, so many at most. */
export interface Page {
  /** null: the newest. */
  before: number | null;
  limit: number;
}

/**
 * A page as a request asks for it.
 *
 * @throws HttpError 422 that names what is wrong
 */
export function pageOf({ before, limit }: Readonly<Record<string, string | null | undefined>>): Page {
  const whole = (text: string | null | undefined, path: string, most: number) => {
    if (text === undefined || text === null) return null;
    const value = /^\d{1,10}$/.test(text) ? Number(text) : NaN;
    if (!(value >= 1 && value <= most))
      throw invalidInput([{ path, message: `must be a whole number from 1 to ${most}` }]);
    return value;
  };
  return {
    before: whole(before, 'before', 2_147_483_647),
    limit: whole(limit, 'limit', mostPerPage) ?? usually,
  };
}
