import { useState } from 'react';
import { styled } from 'styled-components';
import type { EntryFields, RosterAct, RosterEntry, RosterView } from '@jigsaw/contract/roster';
import { isAddress, readHalfDays, writeHalfDays } from '@jigsaw/core/course';
import type { Role } from '@jigsaw/core/course';
import { sure } from '@jigsaw/core/lists';
import { ProblemStrip } from '../api/index.js';
import type { Dates } from '../look/index.js';
import { Button, Choice, Field, GroupChip, Sheet, Small } from '../look/index.js';
import { useCourse } from '../course/index.js';
import { roleSays, roleWords } from './columns.js';
import { HalfDayGrid } from './HalfDays.js';
import { useReadPlacesQuery } from './rosterApi.js';
import { useRosterAct } from './useRosterAct.js';

const Fields = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px 14px;
  > .wide {
    grid-column: 1 / -1;
  }
  > .places {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 14px;
  }
`;

interface Draft {
  readonly email: string;
  readonly name: string;
  readonly familyName: string;
  readonly reading: string;
  readonly number: string;
  readonly role: Role;
  readonly attributes: Readonly<Record<string, string>>;
}

const draftOf = (entry: RosterEntry | null, attributes: RosterView['attributes']): Draft => ({
  email: entry?.email ?? '',
  name: entry?.name ?? '',
  familyName: entry?.familyName ?? '',
  reading: entry?.reading ?? '',
  number: entry?.number ?? '',
  role: entry?.role ?? 'student',
  attributes: Object.fromEntries(attributes.map(({ name }) => [name, entry?.attributes[name] ?? ''])),
});

const orNull = (text: string): string | null => text.trim() || null;
const roles = Object.entries(roleWords).map(([id, label]) => ({ id: id as Role, label }));

/** Only what someone changed is sent, with what it was: two people may edit one person's different fields. */
function editOf(
  entry: RosterEntry,
  before: Draft,
  draft: Draft,
): { from: EntryFields; to: EntryFields } | null {
  const from: Record<string, unknown> = {};
  const to: Record<string, unknown> = {};
  for (const key of ['email', 'name', 'familyName', 'reading', 'number', 'role'] as const) {
    if (before[key] === draft[key]) continue;
    from[key] = entry[key];
    to[key] = key === 'email' || key === 'name' || key === 'role' ? draft[key] : orNull(draft[key]);
  }
  const touched = Object.keys(draft.attributes).filter(
    (name) => draft.attributes[name] !== (before.attributes[name] ?? ''),
  );
  if (touched.length > 0) {
    from['attributes'] = Object.fromEntries(touched.map((name) => [name, entry.attributes[name] ?? null]));
    to['attributes'] = Object.fromEntries(
      touched.map((name) => [name, orNull(sure(draft.attributes[name]))]),
    );
  }
  return Object.keys(to).length === 0 ? null : { from, to };
}

/** When they came, and were here last. */
function sayLastIn({ joinedAt, lastSeenAt, hasComeIn, invitedAt }: RosterEntry, dates: Dates): string {
  const joined = `On the roster since ${dates.day(joinedAt)}`;
  if (lastSeenAt) return `${joined}, last in ${dates.dateTime(lastSeenAt)}.`;
  if (hasComeIn) return `${joined}, has chosen a password.`;
  return `${joined}, has not signed in yet${invitedAt ? `; invited ${dates.dateTime(invitedAt)}` : ''}.`;
}

const History = styled.details`
  grid-column: 1 / -1;
  summary {
    cursor: pointer;
    font: 600 12px/20px var(--font-text);
  }
  li {
    display: grid;
    grid-template-columns: 150px 1fr;
    gap: 10px;
    align-items: center;
    padding: 4px 0;
    border-bottom: var(--hair);
  }
`;

/** Where they have been, from when until when, and who placed them. */
function Places({ entry }: { readonly entry: RosterEntry }) {
  const { course, dates } = useCourse();
  const { data } = useReadPlacesQuery({ courseId: course.id, enrolmentId: entry.enrolmentId });
  if (!data || data.places.length === 0) return null;
  return (
    <History>
      <summary>Where {entry.name} has been</summary>
      <ul>
        {data.places.map((place, at) => (
          <li key={at}>
            <GroupChip number={place.number} name={place.name} look={place.until ? 'line' : 'solid'} />
            <Small>
              {place.set},{' '}
              {place.until
                ? `${dates.day(place.from)} to ${dates.dateTime(place.until)}`
                : `since ${dates.dateTime(place.from)}`}
              ; placed by {place.placedBy}
              {place.endedBy && place.endedBy !== place.placedBy && `, ended by ${place.endedBy}`}
              {place.why && `. Joined because: ${place.why}`}
              {place.endedWhy && `. Left because: ${place.endedWhy}`}
            </Small>
          </li>
        ))}
      </ul>
    </History>
  );
}

interface PersonSheetProps {
  /** null: someone new. */
  readonly entry: RosterEntry | null;
  readonly attributes: RosterView['attributes'];
  readonly onClose: () => void;
}

/** One person of the course: added, corrected, removed, restored. */
export function PersonSheet({ entry, attributes, onClose }: PersonSheetProps) {
  const { course, dates } = useCourse();
  const [before] = useState(() => draftOf(entry, attributes));
  const [draft, setDraft] = useState(before);
  const { act, error, isBusy } = useRosterAct();
  const put = (part: Partial<Draft>) => setDraft({ ...draft, ...part });
  const edit = entry && editOf(entry, before, draft);
  const addressFault =
    draft.email !== '' && !isAddress(draft.email.trim())
      ? 'Write the address like name@school.example.'
      : undefined;
  const isReady = draft.name.trim() !== '' && draft.email.trim() !== '' && !addressFault;
  const send = async (body: RosterAct, said: string) => {
    if (await act(body, said)) onClose();
  };
  const save = () => {
    if (!isReady) return;
    if (!entry) {
      const { name, email, role } = draft;
      const filled = Object.fromEntries(
        Object.entries(draft.attributes).filter(([, value]) => value.trim() !== ''),
      );
      const texts = {
        familyName: orNull(draft.familyName),
        reading: orNull(draft.reading),
        number: orNull(draft.number),
      };
      void send(
        { act: 'add', entry: { name, email, role, ...texts, attributes: filled } },
        `${name.trim()} added`,
      );
    } else if (edit)
      void send(
        { act: 'edit', edits: [{ enrolmentId: entry.enrolmentId, ...edit }] },
        `${draft.name.trim()} changed`,
      );
  };
  const losesPlaces = entry !== null && entry.groups.length > 0 && draft.role !== 'student';
  return (
    <Sheet title={entry ? entry.name : 'Add a person'} onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          save();
        }}
      >
        {error && <ProblemStrip of={error} />}
        <Fields>
          <Field label="Name" value={draft.name} onChange={(name) => put({ name })} autoFocus={!entry} />
          <Field
            label="Family name, for sorting"
            value={draft.familyName}
            onChange={(familyName) => put({ familyName })}
          />
          <Field
            label="Email"
            value={draft.email}
            onChange={(email) => put({ email })}
            fault={addressFault}
          />
          <Field label="Number" value={draft.number} onChange={(number) => put({ number })} />
          <Field
            label="Name in Latin letters"
            value={draft.reading}
            onChange={(reading) => put({ reading })}
          />
          <Choice label="Role" value={draft.role} choices={roles} onChange={(role) => put({ role })} />
          <Small className="wide">
            {roleWords[draft.role]}: {roleSays[draft.role]}{' '}
            {losesPlaces && 'Staff are not in groups, so the places below become free.'}
          </Small>
          {attributes.map(({ name, kind }) => {
            const value = draft.attributes[name] ?? '';
            const set = (next: string) => put({ attributes: { ...draft.attributes, [name]: next } });
            const free = value === '' ? new Set<never>() : readHalfDays(value);
            return kind === 'half-days' && free ? (
              <div key={name} className="wide" role="group" aria-label={name}>
                <Small>{name}</Small>
                <HalfDayGrid free={free} onChange={(next) => set(writeHalfDays(next))} />
              </div>
            ) : (
              <Field key={name} label={name} value={value} onChange={set} />
            );
          })}
          {entry && entry.groups.length > 0 && (
            <div className="wide places">
              {entry.groups.map((group) => (
                <GroupChip key={group.groupId} number={group.number} name={group.name} />
              ))}
            </div>
          )}
          {entry && <Places entry={entry} />}
          {entry && <Small className="wide">{sayLastIn(entry, dates)}</Small>}
          {entry?.leftAt && (
            <Small className="wide">
              Left the course on {dates.dateTime(entry.leftAt)}. Work and marks are kept.
            </Small>
          )}
        </Fields>
        <footer>
          {entry && entry.leftAt === null && entry.enrolmentId !== course.enrolmentId && (
            <Button
              kind="quiet"
              isDisabled={isBusy}
              onPress={() =>
                void send(
                  { act: 'drop', enrolmentIds: [entry.enrolmentId] },
                  `${entry.name} removed from the course. Work and marks are kept.`,
                )
              }
            >
              Remove from course
            </Button>
          )}
          {entry && entry.leftAt !== null && (
            <Button
              isDisabled={isBusy}
              onPress={() =>
                void send(
                  { act: 'restore', enrolmentIds: [entry.enrolmentId] },
                  `${entry.name} restored to the course`,
                )
              }
            >
              Restore
            </Button>
          )}
          <span style={{ flex: 1 }} />
          <Button kind="main" type="submit" isDisabled={isBusy || !isReady || (entry !== null && !edit)}>
            {isBusy ? 'Saving…' : entry ? 'Save' : 'Add'}
          </Button>
        </footer>
      </form>
    </Sheet>
  );
}
