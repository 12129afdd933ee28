import { test } from '@jest/globals';

/** `npm test` tries the most telling cases, `npm run endure` every one. */
export const thorough = process.env.TORVEK_ENDURE === '1';

/** How often, or how many of them. */
export const times = (usually: number, thoroughly: number): number => (thorough ? thoroughly : usually);

/** The most telling case stands first. */
export const some = <One>(cases: One[], usually = 1): One[] => (thorough ? cases : cases.slice(0, usually));

/** A test for `npm run endure` alone. */
export const long = thorough ? test : test.skip;
