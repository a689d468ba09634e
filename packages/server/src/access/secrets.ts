import { createHash, randomBytes, randomInt } from 'node:crypto';
import { hash, verify } from '@node-rs/argon2';

/** argon2id, 19 MiB, two passes, one lane: the least that the OWASP Password Storage Cheat Sheet names (from memory). */
const COST = { memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const;

/** Hashes a password or a PIN. */
export function hashed(secret: string): Promise<string> {
  return hash(secret.normalize('NFKC'), COST);
}

let nobodys: Promise<string> | null = null;

/**
 * True if a secret is the one that was hashed.
 *
 * @param kept null where there is no such account: it takes as long as where there is
 */
export async function isSecret(secret: string, kept: string | null): Promise<boolean> {
  nobodys ??= hashed(randomBytes(16).toString('base64url'));
  const isSame = await verify(kept ?? (await nobodys), secret.normalize('NFKC'));
  return isSame && kept !== null;
}

/** Something that nobody guesses, 256 bits. */
export function newToken(): string {
  return randomBytes(32).toString('base64url');
}

/** What is kept of a token: who reads the database cannot use it. */
export function tokenHash(token: string): string {
  return createHash('sha256').update(token).digest('base64url');
}

/** Without the letters and digits that are taken for each other. */
const READABLE = 'abcdefghjkmnpqrstuvwxyz23456789';

/**
 * Something to be read off a screen and typed.
 *
 * @param groups of four signs: each group is worth almost 20 bits
 */
export function readableSecret(groups: number): string {
  const group = () => Array.from({ length: 4 }, () => READABLE[randomInt(READABLE.length)]).join('');
  return Array.from({ length: groups }, group).join('-');
}
