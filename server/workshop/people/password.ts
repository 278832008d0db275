import { hash, verify } from '@node-rs/argon2';

/** argon2id, OWASP's first recommendation: 19 MiB, two passes, one lane. */
const COST = { algorithm: 2 as const, memoryCost: 19_456, timeCost: 2, parallelism: 1 };

export const hashPassword = (password: string): Promise<string> => hash(password, COST);

/** A hash of nothing in particular: an unknown address must take as long as a wrong password. */
let decoy: Promise<string> | undefined;

/** @param stored null when there is no such account */
export async function passwordMatches(password: string, stored: string | null): Promise<boolean> {
  decoy ??= hashPassword('no account has this password');
  const matches = await verify(stored ?? (await decoy), password);
  return matches && stored !== null;
}
