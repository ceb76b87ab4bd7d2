import { counted } from '../text/index.js';

/** What someone did, by the part of the product that they did it in. */
export const kindsOfActs = ['people', 'groups', 'release', 'work', 'marks', 'messages', 'course'] as const;
export type KindOfAct = (typeof kindsOfActs)[number];

type Facts = Readonly<Record<string, unknown>>;

/** One kind of act: which part it belongs to, and how it is said after the name of who did it. Never a word that someone typed. */
interface Act {
  readonly of: KindOfAct;
  readonly says: string | ((facts: Facts) => string);
}

const num = (facts: Facts, name: string): number => (typeof facts[name] === 'number' ? facts[name] : 0);
const list = (facts: Facts, name: string): readonly unknown[] => (Array.isArray(facts[name]) ? facts[name] : []); // prettier-ignore
const has = (facts: Facts, name: string): boolean => facts[name] !== undefined && facts[name] !== null;

const changedSet = (facts: Facts): string => {
  if (has(facts, 'isFrozen')) return facts['isFrozen'] === true ? 'froze the set' : 'unfroze the set';
  if (has(facts, 'isArchived')) return facts['isArchived'] === true ? 'archived the set' : 'restored the set';
  if (has(facts, 'rules')) return `set ${counted(num(facts, 'rules'), 'rule')} for dealing`;
  if (has(facts, 'order')) return 'changed the order of the sets';
  if (has(facts, 'topics')) return `set ${counted(num(facts, 'topics'), 'topic')}`;
  if (has(facts, 'capacity')) return 'changed the size of a group';
  return 'edited the set';
};
const editedGroups = (facts: Facts): string => {
  if (has(facts, 'leads')) return 'changed who leads groups';
  const said = [
    num(facts, 'added') > 0 && `added ${counted(num(facts, 'added'), 'group')}`,
    num(facts, 'removed') > 0 && `removed ${counted(num(facts, 'removed'), 'group')}`,
  ].filter(Boolean);
  return said.length > 0 ? said.join(', ') : 'edited a group';
};
const changedRoster = (facts: Facts): string => {
  if (has(facts, 'attribute')) return 'said what an attribute holds';
  if (has(facts, 'assistantsSee')) return 'changed which groups assistants see';
  return `changed ${counted(num(facts, 'people'), 'person', 'people')} on the roster`;
};
const createdSet = (facts: Facts): string => {
  if (has(facts, 'copyOf')) return 'copied a set';
  if (has(facts, 'expertsOf')) return `derived ${counted(num(facts, 'tables'), 'expert table')}`;
  return `created a set of ${counted(num(facts, 'groups'), 'group')}`;
};
const released = (facts: Facts): string => {
  if (facts['isAgain'] === true) return 'released it again';
  const to = `to ${counted(num(facts, 'groups'), 'group')}`;
  const state = facts['state'] as { readonly state?: string } | undefined;
  return state?.state === 'scheduled' ? `scheduled the release ${to}` : `released it ${to}`;
};
const toStudents = (says: string) => (facts: Facts) =>
  has(facts, 'students')
    ? `${says} ${counted(num(facts, 'students'), 'student')}`
    : says.replace(/ (to|from)$/, '');
const words = (says: string) => (facts: Facts) =>
  num(facts, 'words') > 0 ? `${says} of ${counted(num(facts, 'words'), 'word')}` : says;

const acts = {
  'course.created': { of: 'course', says: 'created the course' },
  'course.changed': { of: 'course', says: 'changed the name, term or time zone of the course' },
  'practice.cleared': { of: 'course', says: 'cleared the practice' },
  'practice.restored': { of: 'course', says: 'restored the practice' },
  'roster.imported': {
    of: 'people',
    says: (facts) => `imported ${counted(num(facts, 'people'), 'person', 'people')}`,
  },
  'roster.changed': { of: 'people', says: changedRoster },
  'roster.invited': {
    of: 'people',
    says: (facts) => `invited ${counted(num(facts, 'invited'), 'person', 'people')}`,
  },
  'set.created': { of: 'groups', says: createdSet },
  'set.changed': { of: 'groups', says: changedSet },
  'students.placed': {
    of: 'groups',
    says: (facts) =>
      `placed ${counted(new Set(list(facts, 'moves').map((move) => (move as { readonly student: string }).student)).size, 'student')}`,
  },
  'places.changed': { of: 'groups', says: 'changed which places are free' },
  'group.edited': { of: 'groups', says: editedGroups },
  'audience.changed': { of: 'release', says: 'changed a saved audience' },
  'outline.changed': { of: 'release', says: 'changed the outline' },
  'check.dismissed': { of: 'release', says: 'dismissed something to check' },
  'check.taken-up': { of: 'release', says: 'took up something to check again' },
  'activity.drafted': { of: 'release', says: 'drafted it' },
  'activity.edited': { of: 'release', says: 'edited it' },
  'activity.deleted': { of: 'release', says: 'deleted it' },
  'activity.restored': { of: 'release', says: 'restored it' },
  'activity.released': { of: 'release', says: released },
  'activity.reach-changed': {
    of: 'release',
    says: (facts) => `changed who gets it: ${counted(num(facts, 'groups'), 'group')}`,
  },
  'activity.withdrawn': { of: 'release', says: 'withdrew it' },
  'activity.went-live': { of: 'release', says: 'went to its groups at its time' },
  'activity.opened': { of: 'release', says: 'opened at its time' },
  'activity.closed': { of: 'release', says: 'closed at its time' },
  'extension.granted': { of: 'release', says: 'gave longer time' },
  'extension.taken-back': { of: 'release', says: 'removed longer time' },
  'handed-in': { of: 'work', says: (facts) => `handed in, no. ${num(facts, 'attempt')}` },
  'part.saved': { of: 'work', says: words('saved a text') },
  'file.added': { of: 'work', says: 'added a file' },
  'file.deleted': { of: 'work', says: 'deleted a file' },
  'file.restored': { of: 'work', says: 'restored a file' },
  'own-file.changed': { of: 'work', says: 'added a version of the group’s own file' },
  'answers.given': { of: 'work', says: 'answered the questionnaire' },
  'post.added': { of: 'work', says: words('wrote a post') },
  'post.changed': { of: 'work', says: 'edited a post' },
  'post.deleted': { of: 'work', says: 'deleted a post' },
  'post.restored': { of: 'work', says: 'restored a post' },
  'page.added': { of: 'work', says: 'added a page' },
  'page.saved': {
    of: 'work',
    says: (facts) => `saved a page: ${num(facts, 'added')} words more, ${num(facts, 'removed')} fewer`,
  },
  'page.deleted': { of: 'work', says: 'deleted a page' },
  'page.restored': { of: 'work', says: 'restored a page' },
  'call.changed': {
    of: 'work',
    says: (facts) =>
      facts['door'] === true
        ? 'opened or closed the call'
        : facts['isIn'] === true
          ? 'stepped into the call'
          : 'left the call',
  },
  'shelf-file.added': { of: 'work', says: 'put a file on the shelf' },
  'shelf-file.changed': { of: 'work', says: 'added a version of a file on the shelf' },
  'shelf-file.removed': { of: 'work', says: 'removed a file from the shelf' },
  'shelf-file.restored': { of: 'work', says: 'restored a file on the shelf' },
  'mark.drafted': { of: 'marks', says: 'drafted a mark' },
  'mark.released': { of: 'marks', says: toStudents('released a mark to') },
  'mark.recalled': { of: 'marks', says: toStudents('recalled a mark from') },
  'message.sent': {
    of: 'messages',
    says: (facts) =>
      num(facts, 'to') > 1 ? `sent a message to ${num(facts, 'to')} at once` : 'sent a message',
  },
  'message.removed': { of: 'messages', says: 'removed a message' },
  'message.restored': { of: 'messages', says: 'restored a message' },
  'note.written': { of: 'messages', says: 'wrote a note for staff' },
  'note.changed': { of: 'messages', says: 'edited a note for staff' },
  'note.removed': { of: 'messages', says: 'removed a note for staff' },
  'note.restored': { of: 'messages', says: 'restored a note for staff' },
} satisfies Record<string, Act>;

/** Everything that is written down when it happens. A new one has its words here before it compiles. */
export type ActType = keyof typeof acts;

const known: ReadonlyMap<string, Act> = new Map(Object.entries(acts));

/** Which part an act belongs to; null: a type that an older version wrote and no one knows any more. */
export const kindOfAct = (type: string): KindOfAct | null => known.get(type)?.of ?? null;

/** The act in words, as they follow a name: “released it to 12 groups”. */
export function sayAct(type: string, facts: Facts): string {
  const act = known.get(type);
  if (!act) return 'did something that is not told here';
  return typeof act.says === 'string' ? act.says : act.says(facts);
}

/** All types of acts of one part. */
export const typesOfKind = (kind: KindOfAct): readonly string[] =>
  Object.entries(acts).flatMap(([type, { of }]) => (of === kind ? [type] : []));

/** Where an act is seen, and undone where it can be, below the course; null: nowhere.
 * @param at what it was about, as far as that is there still. */
export function placesOf(
  type: string,
  at: {
    readonly activityId: string | null;
    readonly copyId: string | null;
    readonly groupId: string | null;
    readonly setId: string | null;
  },
): { readonly path: string; readonly label: string } | null {
  const { activityId, copyId, groupId, setId } = at;
  switch (kindOfAct(type)) {
    case 'people':
      return { path: 'people', label: 'To the roster' };
    case 'groups':
      return setId === null
        ? { path: 'groups', label: 'To the groups' }
        : { path: `groups/${setId}`, label: 'To the Board' };
    case 'release':
      return activityId === null
        ? { path: 'release', label: 'To the activities' }
        : { path: `release/${activityId}`, label: 'To the activity' };
    case 'work':
      if (copyId !== null) return { path: `copies/${copyId}`, label: 'To the work' };
      return groupId === null ? null : { path: `room/${groupId}`, label: 'To the room' };
    case 'marks':
      return { path: 'marks', label: 'To the marks' };
    case 'messages':
      return groupId === null
        ? { path: 'messages', label: 'To the messages' }
        : { path: `room/${groupId}`, label: 'To the room' };
    case 'course':
      return { path: 'course', label: 'To the settings' };
    case null:
      return null;
  }
}
