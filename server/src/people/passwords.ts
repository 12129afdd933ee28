import { hash, verify } from '@node-rs/argon2';

/** argon2id with the library's parameters (19 MiB, two passes), salt and parameters inside the text. */
export const hashPassword = (password: string): Promise<string> => hash(password);

let decoy: Promise<string> | null = null;

/** Checks a password; without a hash it takes as long as with one and answers no: a name's existence does not show. */
export async function checkPassword(stored: string | null, password: string): Promise<boolean> {
  decoy ??= hash('nobody has this password');
  const right = await verify(stored ?? (await decoy), password);
  return stored !== null && right;
}
