/** What a person may do here; one person may hold several. */
export const roles = ['witness', 'technician', 'designer', 'owner'] as const;
export type Role = (typeof roles)[number];

/** Fewest characters of a password. */
export const shortestPassword = 10;

/** A person as others see them. */
export interface Person {
  id: string;
  name: string;
  roles: Role[];
  active: boolean;
  demo: boolean;
}

/** What each role is for, in a line. */
export const roleMeaning: Record<Role, string> = {
  witness: 'reads everything; confirms HV gates as the second person',
  technician: 'records measurements and work',
  designer: 'changes designs, accepts findings, releases revisions',
  owner: 'keeps people, instruments and backups; may do everything',
};

/**
 * Whether someone may do what asks for a role: each role after `witness` includes what those before it may do.
 * Confirming as a witness is another matter: see `mayWitness`.
 */
export function mayDo(held: readonly Role[], needed: Role): boolean {
  return held.some((role) => roles.indexOf(role) >= roles.indexOf(needed));
}

/** Whether someone may confirm an HV gate for another person. */
export function mayWitness(held: readonly Role[]): boolean {
  return held.includes('witness') || held.includes('owner');
}
