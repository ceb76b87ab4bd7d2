import { useMemo } from 'react';
import type { ReactNode } from 'react';
import type { RosterEntry, RosterView } from '@jigsaw/contract/roster';
import type { AttributeKind } from '@jigsaw/core/course';
import { sortName } from '@jigsaw/core/course';
import { fold } from '@jigsaw/core/text';
import type { GroupSetId } from '@jigsaw/core/ids';
import { z } from 'zod';
import { GroupChip, Muted, PersonName, Tag } from '../look/index.js';
import type { Dates } from '../look/index.js';
import { AttributeValue } from './AttributeCell.js';
import { useStored } from '../page/index.js';

export interface ColumnSpec {
  readonly id: string;
  readonly heading: string;
  readonly width: number;
  /** The attribute that it shows; absent: something else. */
  readonly attribute?: { readonly name: string; readonly kind: AttributeKind };
  readonly sortBy: (entry: RosterEntry) => string;
  readonly cell: (entry: RosterEntry, dates: Dates) => ReactNode;
  /** Shown to someone who has chosen nothing. */
  readonly isUsual: boolean;
}

export const roleWords = {
  instructor: 'Instructor',
  assistant: 'Assistant',
  student: 'Student',
  observer: 'Observer',
} as const;
/** What each role may do, in a sentence. */
export const roleSays = {
  student: 'Is in groups, works there and sees their own marks.',
  assistant: 'Places students, takes part in every room and marks.',
  instructor: 'Does everything in this course, the roster included.',
  observer: 'Looks at everything and changes nothing.',
} as const;

const usualAttributes = 3;

/** Every column that the roster of this course can have, in their order. */
export function columnsOf(roster: RosterView): ColumnSpec[] {
  return [
    {
      id: 'name',
      heading: 'Name, by family name',
      width: 270,
      sortBy: (entry) => sortName(entry),
      cell: ({ name, reading }) => <PersonName name={name} reading={reading} />,
      isUsual: true,
    },
    {
      id: 'number',
      heading: 'Number',
      width: 88,
      sortBy: (entry) => entry.number ?? '',
      cell: ({ number }) => <Muted>{number}</Muted>,
      isUsual: true,
    },
    {
      id: 'role',
      heading: 'Role',
      width: 108,
      sortBy: (entry) => entry.role,
      cell: ({ role, leftAt }, dates) => (
        <Muted>{leftAt ? `left ${dates.day(leftAt)}` : roleWords[role]}</Muted>
      ),
      isUsual: true,
    },
    ...roster.sets.map((set) => ({
      id: `set:${set.id}`,
      heading: set.name,
      width: 150,
      sortBy: (entry: RosterEntry) =>
        String(entry.groups.find((group) => group.setId === set.id)?.number ?? 9999).padStart(5, '0'),
      cell: (entry: RosterEntry) => <GroupsIn setId={set.id} entry={entry} />,
      isUsual: true,
    })),
    ...roster.attributes.map(({ name, kind }, at) => ({
      id: `attribute:${name}`,
      heading: name,
      width: 120,
      attribute: { name, kind },
      sortBy: (entry: RosterEntry) => entry.attributes[name] ?? '',
      cell: (entry: RosterEntry) => <AttributeValue value={entry.attributes[name]} kind={kind} />,
      isUsual: at < usualAttributes,
    })),
    {
      id: 'email',
      heading: 'Address',
      width: 250,
      sortBy: (entry) => entry.email,
      cell: ({ email }) => <Muted>{email}</Muted>,
      isUsual: true,
    },
    {
      id: 'seen',
      heading: 'Last in',
      width: 130,
      sortBy: (entry) => entry.lastSeenAt ?? '',
      cell: (entry, dates) => <Muted>{sayLastIn(entry, dates)}</Muted>,
      isUsual: true,
    },
  ];
}

/** A table of them is no call to act: the track and the Board say how many need a place. */
function GroupsIn({ setId, entry }: { readonly setId: GroupSetId; readonly entry: RosterEntry }) {
  const groups = entry.groups.filter((each) => each.setId === setId);
  if (groups.length > 0)
    return groups.map((group) => <GroupChip key={group.groupId} number={group.number} name={group.name} />);
  return entry.role === 'student' && entry.leftAt === null ? <Tag $look="dash">Unplaced</Tag> : null;
}

/** When they were last in; before that, whether they were asked in. */
function sayLastIn({ lastSeenAt, hasComeIn, invitedAt }: RosterEntry, dates: Dates): string {
  if (lastSeenAt) return dates.dateTime(lastSeenAt);
  if (hasComeIn) return 'never';
  return invitedAt ? `invited ${dates.day(invitedAt)}` : 'not invited';
}

/** All that someone may look for: who they are, which groups they are in, and what is known of them. */
const searchedOf = ({ name, reading, number, email, groups, attributes }: RosterEntry) => [
  name,
  reading,
  number,
  email,
  ...groups.map((group) => group.name),
  ...Object.values(attributes),
];

/** Those in whose entry every word is found, without accents and case: "crock evening" finds the evening students of Crock. */
export function useFound(entries: readonly RosterEntry[], sought: string): readonly RosterEntry[] {
  const searchable = useMemo(
    () => entries.map((entry) => ({ entry, text: fold(searchedOf(entry).filter(Boolean).join(' ')) })),
    [entries],
  );
  return useMemo(() => {
    const words = fold(sought).split(/\s+/).filter(Boolean);
    return words.length === 0
      ? entries
      : searchable.flatMap(({ entry, text }) => (words.every((word) => text.includes(word)) ? [entry] : []));
  }, [entries, searchable, sought]);
}

const Choice = z.record(z.string(), z.boolean());

/** Which columns someone has switched on or off here; kept in this browser. What they did not choose follows the usual. */
export function useColumnChoice(courseId: string, columns: readonly ColumnSpec[]) {
  const [choice, setChoice] = useStored(`roster columns ${courseId}`, Choice);
  // The same array while nothing changes, so that rows are not drawn anew at every key of a search.
  const shown = useMemo(
    () => columns.filter((column) => column.id === 'name' || (choice?.[column.id] ?? column.isUsual)),
    [columns, choice],
  );
  return {
    shown,
    isShown: (column: ColumnSpec) => shown.includes(column),
    show: (column: ColumnSpec, isShown: boolean) => setChoice({ ...choice, [column.id]: isShown }),
  };
}
