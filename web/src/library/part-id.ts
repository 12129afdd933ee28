/** An id made of make and number, where none was given. */
export const idFrom = (...parts: string[]): string =>
  parts
    .join('-')
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 60);
