export class Refused extends Error {}
export function findBinaries(): string | null;
export function freePort(): Promise<number>;
export function startPostgres(options: {
  folder: string;
  isThrowAway?: boolean;
}): Promise<{ url: string; stop(): Promise<void> }>;
