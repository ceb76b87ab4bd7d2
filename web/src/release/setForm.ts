import { useState } from 'react';
import type { CreateGroupSet, DeriveExperts } from '@jigsaw/contract/setUp';
import type { RosterView } from '@jigsaw/contract/roster';
import type { SignUpSettings } from '@jigsaw/contract/sets';
import { expertTables } from '@jigsaw/core/dealing';
import type { ExpertTables } from '@jigsaw/core/dealing';
import type { GroupSetId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import { mostGroups, sizesByCount, sizesBySize } from '@jigsaw/core/sets';
import type { SizesForecast, SizesRefused } from '@jigsaw/core/sets';
import type { Gift } from './ActivitiesForGroups.js';

export type Fill = 'hand' | 'deal' | 'sign-up' | 'hand-in' | 'file' | 'copy' | 'experts';
export type By = 'count' | 'spread' | 'fill';

/** A group set as it is being described, figures as they were typed. */
export interface SetForm {
  readonly name: string;
  readonly fill: Fill;
  readonly by: By;
  readonly count: string;
  readonly size: string;
  /** Places in each group; empty: there is no limit. */
  readonly capacity: string;
  readonly pattern: string;
  /** Names, one per line, in place of the pattern's. */
  readonly pasted: string;
  readonly isSeveral: boolean;
  /** The set that is copied, or whose groups send experts; null: the first. */
  readonly original: GroupSetId | null;
  /** One per line. */
  readonly topics: string;
  readonly signUp: SignUpSettings;
  readonly gifts: readonly Gift[];
  /** Decides who takes which topic. */
  readonly seed: number;
}
export type ChangeSetForm = (part: Partial<SetForm>) => void;

const empty = (): SetForm => ({
  name: '',
  fill: 'deal',
  by: 'spread',
  count: '12',
  size: '4',
  capacity: '',
  pattern: 'Group {n}',
  pasted: '',
  isSeveral: false,
  original: null,
  topics: '',
  signUp: { opens: null, closes: null, showsNames: true },
  gifts: [],
  seed: Math.floor(Math.random() * 10_000),
});

export function useSetForm(): readonly [SetForm, ChangeSetForm] {
  const [form, setForm] = useState(empty);
  return [form, (part) => setForm((before) => ({ ...before, ...part }))];
}

/** Whether its groups are made now, in number and size as written. */
export const makesGroups = ({ fill }: SetForm): boolean =>
  fill !== 'copy' && fill !== 'hand-in' && fill !== 'experts';

const askedOf = ({ by, count, size }: SetForm): number => Number(by === 'count' ? count : size);
const capacityOf = ({ capacity }: SetForm): number | null => (capacity === '' ? null : Number(capacity));

/** How many groups of which sizes so many students come to. */
export const forecastOf = (form: SetForm, students: number): SizesForecast | SizesRefused =>
  form.by === 'count' ? sizesByCount(students, askedOf(form)) : sizesBySize(students, askedOf(form), form.by);

export const isTooMany = (forecast: SizesForecast | SizesRefused): boolean =>
  forecast.ok && forecast.sizes.length > mostGroups;

export function newSetOf(form: SetForm): CreateGroupSet {
  const { by, fill, name, pattern, pasted, isSeveral, signUp } = form;
  const asked = askedOf(form);
  return {
    name,
    shape:
      fill === 'hand-in'
        ? { by: 'hand-in' }
        : by === 'count'
          ? { by: 'count', groups: asked }
          : { by: 'size', size: asked, how: by },
    capacity: capacityOf(form),
    pattern,
    names: linesOf(pasted),
    isExclusive: !isSeveral || fill === 'sign-up',
    signUp: fill === 'sign-up' ? signUp : null,
  };
}

export const newTablesOf = (form: SetForm): DeriveExperts => ({
  name: form.name,
  topics: topicsIn(form),
  most: capacityOf(form),
  seed: form.seed,
});

/** The tables that there will be, and how many of each home group go to each topic. */
export interface ForeseenTables extends ExpertTables {
  readonly topics: readonly string[];
  readonly homes: readonly {
    readonly number: number;
    readonly name: string;
    readonly counts: readonly number[];
  }[];
}

/** The tables as the server will make them of the same groups; null: no topic is named yet. */
export function expertsOf(
  form: SetForm,
  homeSet: GroupSetId,
  { sets, entries }: RosterView,
): ForeseenTables | null {
  const topics = topicsIn(form);
  if (topics.length === 0) return null;
  const groups = sets.find((set) => set.id === homeSet)?.groups ?? [];
  const homes = groups.map((group) => ({
    name: group.name,
    members: entries
      .flatMap((entry) => (entry.groups.some((own) => own.groupId === group.id) ? [entry.enrolmentId] : []))
      .sort(),
  }));
  const most = capacityOf(form);
  const experts = expertTables({
    homes,
    topics,
    most: most === null ? null : Math.max(1, most),
    seed: form.seed,
  });
  const topicOf = new Map(
    experts.tables.flatMap((table) => table.members.map((member) => [member, topics.indexOf(table.topic)])),
  );
  return {
    ...experts,
    topics,
    homes: groups.flatMap((group, at) => {
      const counts = topics.map(() => 0);
      for (const member of sure(homes[at]).members) {
        const topic = sure(topicOf.get(member));
        counts[topic] = sure(counts[topic]) + 1;
      }
      return sure(homes[at]).members.length === 0 ? [] : [{ number: group.number, name: group.name, counts }];
    }),
  };
}

const linesOf = (text: string): string[] => text.split('\n').filter((line) => line.trim() !== '');
const topicsIn = ({ topics }: SetForm): string[] => [...new Set(linesOf(topics).map((line) => line.trim()))];
