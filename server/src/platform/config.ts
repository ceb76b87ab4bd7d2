import { createHash } from 'node:crypto';

/** Settings of one server process; read from the environment once, at the start. */
export interface Config {
  readonly databaseUrl: string;
  readonly port: number;
  readonly host: string;
  /** Folder of the built pages; null: the API alone. */
  readonly webFolder: string | null;
  /** The address people use, for links that are handed out. */
  readonly publicUrl: string;
  /** Behind TLS: cookies only travel encrypted. */
  readonly isSecure: boolean;
  /** So many proxies stand before this server and tell where requests come from; 0: none, and no one is believed. */
  readonly trustedProxies: number;
  /** Cookies know hosts and not ports or paths: each copy on a host has a name of its own, so that one does not sign people out of another. */
  readonly cookieName: string;
  readonly largestFileBytes: number;
  /** "Nothing here" is said at whole steps of this length, so that its time tells nothing; 0: at once. */
  readonly notFoundStepMs: number;
  /** So long the body of a request may take, files apart. */
  readonly bodyWithinMs: number;
  /** A line on which nothing moves for so long is cut; open pages hear a beat more often than that. */
  readonly idleWithinMs: number;
  /** Where the stand-in for a mail server puts messages; null: they wait. */
  readonly mailFolder: string | null;
  readonly logLevel: string;
  /** Where the registrar's lists are fetched; null: there is none. */
  readonly registrarUrl: string | null;
  /** Made-up people that the sign-in page offers without a password. Empty outside demo mode. */
  readonly demoPeople: readonly { readonly email: string; readonly note: string }[];
}

export const defaultLargestFileBytes = 250 * 1024 * 1024;

export class SettingRefused extends Error {}

/** @throws SettingRefused with one sentence for the terminal. */
export function configFrom(env: NodeJS.ProcessEnv, more: Partial<Config> = {}): Config {
  const port = whole(env, 'PORT', 3000, 0, 65_535);
  const databaseUrl = more.databaseUrl ?? env['DATABASE_URL'];
  if (!databaseUrl)
    throw new SettingRefused(
      'DATABASE_URL is not set. Start with ./jigsaw start, which starts a database of its own.',
    );
  const host = env['HOST'] ?? '127.0.0.1';
  const publicUrl = more.publicUrl ?? address(env, 'PUBLIC_URL') ?? `http://localhost:${port}`;
  const isSecure = publicUrl.startsWith('https:');
  const copy = createHash('sha256').update(publicUrl).digest('hex').slice(0, 8);
  return {
    databaseUrl,
    port,
    host,
    webFolder: null,
    publicUrl,
    isSecure,
    trustedProxies: whole(env, 'TRUST_PROXY', 0, 0, 10),
    // A browser takes a cookie of this prefix only over TLS, from this very host, for all of it.
    cookieName: `${isSecure ? '__Host-' : ''}jigsaw_${copy}`,
    largestFileBytes:
      whole(env, 'JIGSAW_LARGEST_FILE_MB', defaultLargestFileBytes / 1024 / 1024, 1, 10_000) * 1024 * 1024,
    notFoundStepMs: 100,
    bodyWithinMs: 60_000,
    idleWithinMs: 150_000,
    mailFolder: env['MAIL_FOLDER'] || null,
    logLevel: env['LOG_LEVEL'] ?? 'info',
    registrarUrl: address(env, 'REGISTRAR_URL'),
    demoPeople: [],
    ...more,
  };
}

function address(env: NodeJS.ProcessEnv, name: string): string | null {
  const text = env[name];
  if (text === undefined || text === '') return null;
  if (!URL.canParse(text) || !new URL(text).protocol.startsWith('http'))
    throw new SettingRefused(
      `${name} is "${text}"; it must be an address like https://registrar.school.example.`,
    );
  return text.replace(/\/$/, '');
}

function whole(env: NodeJS.ProcessEnv, name: string, usual: number, least: number, most: number): number {
  const text = env[name];
  if (text === undefined || text === '') return usual;
  const value = Number(text);
  if (!Number.isInteger(value) || value < least || value > most)
    throw new SettingRefused(`${name} is "${text}"; it must be a whole number from ${least} to ${most}.`);
  return value;
}

/** How many processes serve, on one port and one database. */
export const processesFrom = (env: NodeJS.ProcessEnv): number => whole(env, 'JIGSAW_PROCESSES', 1, 1, 64);

/** Where figures of this installation are served to its machine; 0: nowhere. */
export const metricsPortFrom = (env: NodeJS.ProcessEnv): number => whole(env, 'METRICS_PORT', 0, 0, 65_535);

export const CONFIG = Symbol('config');
