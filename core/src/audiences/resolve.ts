import { unreachable } from '../ids/index.js';
import type { AudienceId, EnrolmentId, GroupId, GroupSetId } from '../ids/index.js';
import { groupedBy, keyedBy } from '../lists/index.js';
import type { AudiencePerson, SavedAudience, Term, Terms } from './terms.js';
import { fitsTest } from './terms.js';

/** Who and which groups an audience reaches now, each with the term that says so. */
export interface Resolved {
  readonly people: ReadonlyMap<EnrolmentId, Term>;
  /** Named by a term of `include`, and removed by this term of `exclude`. */
  readonly removed: ReadonlyMap<EnrolmentId, Term>;
  /** Groups that it names or takes with a set, without those that it removes. */
  readonly groups: ReadonlyMap<GroupId, GroupSetId>;
}

export interface CourseFacts {
  /** Everyone who is in the course now, staff too. */
  readonly people: readonly AudiencePerson[];
  readonly groups: readonly { readonly groupId: GroupId; readonly setId: GroupSetId }[];
  readonly audiences: readonly SavedAudience[];
}

/** Works out audiences of one course; each saved one once, however many ask for it. A saved audience that is not there reaches no one.
 * @returns what terms reach, by the facts as they were given. */
export function resolver({ people, groups, audiences }: CourseFacts): (terms: Terms) => Resolved {
  const audienceById = keyedBy(audiences, (audience) => audience.id);
  const byRole = groupedBy(people, (person) => person.role);
  const bySet = inGroups(people, (group) => group.setId);
  const byGroup = inGroups(people, (group) => group.groupId);
  const byId = keyedBy(people, (person) => person.enrolmentId);
  const groupsOfSet = groupedBy(groups, (group) => group.setId);
  const groupById = keyedBy(groups, (group) => group.groupId);
  const known = new Map<AudienceId, Resolved>();

  function named(term: Term): {
    people: Iterable<EnrolmentId>;
    groups: Iterable<readonly [GroupId, GroupSetId]>;
  } {
    switch (term.kind) {
      case 'class':
        return { people: idsOf(byRole.get('student')), groups: [] };
      case 'role':
        return { people: idsOf(byRole.get(term.role)), groups: [] };
      case 'set':
        return { people: idsOf(bySet.get(term.setId)), groups: pairs(groupsOfSet.get(term.setId)) };
      case 'group': {
        const group = groupById.get(term.groupId);
        return { people: idsOf(byGroup.get(term.groupId)), groups: pairs(group ? [group] : []) };
      }
      case 'person':
        return { people: byId.has(term.enrolmentId) ? [term.enrolmentId] : [], groups: [] };
      case 'attribute':
        return {
          people: idsOf(
            people.filter(({ attributes }) => fitsTest(attributes[term.name], term.test, term.value)),
          ),
          groups: [],
        };
      case 'audience': {
        const found = saved(term.audienceId);
        return { people: found.people.keys(), groups: found.groups };
      }
      default:
        return unreachable(term);
    }
  }

  function saved(id: AudienceId): Resolved {
    const before = known.get(id);
    if (before) return before;
    known.set(id, noOne); // circles are refused when they are saved; one that got in all the same ends here
    const audience = audienceById.get(id);
    const resolved = audience ? resolve(audience) : noOne;
    known.set(id, resolved);
    return resolved;
  }

  function resolve({ include, exclude }: Terms): Resolved {
    const included = new Map<EnrolmentId, Term>();
    const reached = new Map<GroupId, GroupSetId>();
    for (const term of include) {
      const found = named(term);
      for (const id of found.people) if (!included.has(id)) included.set(id, term);
      for (const [groupId, setId] of found.groups) reached.set(groupId, setId);
    }
    const removed = new Map<EnrolmentId, Term>();
    for (const term of exclude) {
      const found = named(term);
      for (const id of found.people) if (included.delete(id)) removed.set(id, term);
      for (const [groupId] of found.groups) reached.delete(groupId);
    }
    return { people: included, removed, groups: reached };
  }

  return resolve;
}

/** What reaches no one. */
export const noOne: Resolved = { people: new Map(), removed: new Map(), groups: new Map() };

const idsOf = (people: readonly AudiencePerson[] = []): EnrolmentId[] =>
  people.map((person) => person.enrolmentId);
const pairs = (
  groups: readonly { readonly groupId: GroupId; readonly setId: GroupSetId }[] = [],
): (readonly [GroupId, GroupSetId])[] => groups.map((group) => [group.groupId, group.setId]);

function inGroups<Key>(
  people: readonly AudiencePerson[],
  keyOf: (group: AudiencePerson['groups'][number]) => Key,
): ReadonlyMap<Key, readonly AudiencePerson[]> {
  const found = new Map<Key, AudiencePerson[]>();
  for (const person of people)
    for (const key of new Set(person.groups.map(keyOf))) {
      const own = found.get(key);
      if (own) own.push(person);
      else found.set(key, [person]);
    }
  return found;
}
