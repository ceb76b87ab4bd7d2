import { hash, verify } from '@node-rs/argon2';
import { createHash, randomBytes } from 'node:crypto';

// Argon2id with the package's defaults follows the OWASP figures: 19 MiB, 2 passes, 1 lane.
export const hashPassword = (password: string): Promise<string> => hash(password.normalize('NFC'));

// A hash that no password fits, so that an unknown address takes as long as a known one.
const noOne = hashPassword(randomBytes(24).toString('base64'));

export async function passwordFits(passwordHash: string | null, password: string): Promise<boolean> {
  const fits = await verify(passwordHash ?? (await noOne), password.normalize('NFC'));
  return fits && passwordHash !== null;
}

export const newToken = (): string => randomBytes(32).toString('base64url');
export const hashToken = (token: string): string => createHash('sha256').update(token).digest('base64url');
