import type { LucideIcon } from 'lucide-react';
import type { ComponentType } from 'react';
import type { Schema } from '@jigsaw/contract/common';
import type { Happening, Progress } from '@jigsaw/contract/release';
import type { GroupId } from '@jigsaw/core/ids';
import type { KindFacts } from '@jigsaw/core/release';
import type { CopyHead } from '@jigsaw/contract/rooms';
import type { Dates } from '../look/index.js';
import type { NamedGroup } from '../text/index.js';

export interface SettingsFormProps<Settings> {
  readonly settings: Settings;
  readonly onChange: (settings: Settings) => void;
  /** Each with a copy of its own; null: there is one copy for all. */
  readonly groups: readonly NamedGroup[] | null;
}

/** All that composer, rooms and desk know of a kind of activity. */
export interface KindOnPages<Settings = unknown> extends KindFacts<Settings> {
  /** A place that needs nothing written before people can be in it. */
  readonly isStanding?: boolean;
  /** "Discussion": how people call it. */
  readonly word: string;
  /** What it is for, in one sentence. */
  readonly says: string;
  readonly icon: LucideIcon;
  readonly settings: Schema<Settings>;
  /** Marked out of, for a new one; null: not marked unless someone says so. */
  readonly usualPoints: string | null;
  readonly SettingsForm: ComponentType<SettingsFormProps<Settings>> | null;
  /** What becomes of what comes after the due time, where it costs no points; null: nothing. */
  readonly afterDue: string | null;
  /** Where the work stands, in words; null: no one works in it. */
  readonly sayProgress: ((progress: Progress, dates: Dates) => string) | null;
  /** When and where it takes place; left out: at no time of its own. */
  readonly happens?: (settings: Settings) => Happening | null;
  /** The settings as one group has them; left out: groups have nothing of their own in them. */
  readonly forGroup?: (settings: Settings, groupId: GroupId | null) => Settings;
  /** What is still to do, in two words: "To hand in". */
  readonly owed: string;
  /** What the composer shows below the text, as its members will see it; left out: nothing. */
  readonly Foreseen?: ComponentType<{ readonly settings: Settings }>;
  /** The activity as its members work in it and staff look into it. */
  readonly Page: ComponentType<{ readonly head: CopyHead }>;
  /** The work on the Marking desk; `student` where each has a mark of their own. */
  readonly OnDesk: ComponentType<{ readonly head: CopyHead; readonly student: string | null }> | null;
}
