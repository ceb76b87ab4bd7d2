import type { ReleaseMode } from './facts.js';

/** What server and pages have to agree on about a kind of activity. Each kind says it once, in its own area's kind.ts. */
export interface KindFacts<Settings = unknown> {
  readonly name: string;
  /** In which ways it can be released with these settings. */
  readonly modes: (settings: Settings) => readonly ReleaseMode[];
  /** What gets one mark. */
  readonly markFor: (settings: Settings) => 'group' | 'student';
  /** Whether there is a hand-in, so that none is missing work and a late one costs something. */
  readonly isHandedIn: boolean;
  /** Whether something is to be done in it by a date. Others are there to be read, gone to or met in. */
  readonly isWork: boolean;
  /** Whether what is done in it can have points. */
  readonly isMarked: boolean;
  /** What is missing before it can be released, in words; null: nothing. */
  readonly notReady?: (settings: Settings) => string | null;
  /** Why people in a group of so many cannot meet its requirement, as a sentence; null: they can. */
  readonly whyNotDone?: (settings: Settings, members: number) => string | null;
}
