import type { AudienceView } from '@jigsaw/contract/audiences';
import type { RosterView } from '@jigsaw/contract/roster';
import type { Term, TermNames } from '@jigsaw/core/audiences';
import { sayTerm } from '@jigsaw/core/audiences';
import { halfDays, readHalfDays } from '@jigsaw/core/course';
import { keyedBy } from '@jigsaw/core/lists';
import { fold } from '@jigsaw/core/text';
import type { Findable } from '../look/index.js';

/** A line that an audience can have. */
export interface TermChoice extends Findable {
  readonly term: Term;
}

/** More different values than these are no way to choose people. */
const mostValues = 40;

/** Every line that there is to choose in a course: the wide ones first, people last.
 * @param own the audience that is edited: it cannot name itself. */
export function termChoices(
  { entries, sets, attributes }: RosterView,
  audiences: readonly AudienceView[],
  names: TermNames,
  own: string | null,
): TermChoice[] {
  const present = entries.filter((entry) => entry.leftAt === null);
  const terms: Term[] = [
    { kind: 'class' },
    { kind: 'role', role: 'assistant' },
    { kind: 'role', role: 'instructor' },
    { kind: 'role', role: 'observer' },
    ...audiences.flatMap(({ id }): Term[] => (id === own ? [] : [{ kind: 'audience', audienceId: id }])),
    ...sets.map((set): Term => ({ kind: 'set', setId: set.id })),
    ...sets.flatMap((set) =>
      set.groups.map((group): Term => ({ kind: 'group', setId: set.id, groupId: group.id })),
    ),
    ...attributes.flatMap(({ name, kind }) =>
      valuesOf(name, kind, present).map((value): Term => ({
        kind: 'attribute',
        name,
        test: kind === 'half-days' ? 'has' : 'is',
        value,
      })),
    ),
    ...present.map((entry): Term => ({ kind: 'person', enrolmentId: entry.enrolmentId })),
  ];
  const entryById = keyedBy(present, (entry) => entry.enrolmentId);
  return terms.map((term) => {
    const says = sayTerm(term, names);
    const entry = term.kind === 'person' ? entryById.get(term.enrolmentId) : undefined;
    const more = entry ? [entry.reading, entry.number, entry.email] : [];
    return { id: JSON.stringify(term), term, says, found: fold([says, ...more].join(' ')) };
  });
}

/** What everything that a line may name is called in this course; of people in other scripts with the reading, of groups with their set. */
export function namesOf({ sets, entries }: RosterView, audiences: readonly AudienceView[]): TermNames {
  const setById = keyedBy(sets, (set) => set.id);
  const groupById = keyedBy(
    sets.flatMap((set) => set.groups.map((group) => ({ ...group, setName: set.name }))),
    (group) => group.id,
  );
  const entryById = keyedBy(
    entries.filter((entry) => entry.leftAt === null),
    (entry) => entry.enrolmentId,
  );
  const audienceById = keyedBy(audiences, (audience) => audience.id);
  return {
    set: (id) => setById.get(id)?.name ?? null,
    group: (id) => {
      const group = groupById.get(id);
      return group ? `${group.name} (${group.setName})` : null;
    },
    person: (id) => {
      const entry = entryById.get(id);
      return entry ? [entry.name, entry.reading].filter(Boolean).join(' ') : null;
    },
    audience: (id) => audienceById.get(id)?.name ?? null,
  };
}

function valuesOf(
  name: string,
  kind: RosterView['attributes'][number]['kind'],
  entries: RosterView['entries'],
): readonly string[] {
  const values = new Set(entries.flatMap((entry) => entry.attributes[name] ?? []));
  if (kind === 'half-days') {
    const said = new Set([...values].flatMap((value) => [...(readHalfDays(value) ?? [])]));
    return halfDays.filter((day) => said.has(day));
  }
  return values.size > mostValues ? [] : [...values].sort((a, b) => a.localeCompare(b));
}
