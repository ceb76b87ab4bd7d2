import { randomUUID } from 'node:crypto';
import type { AudienceList } from '@jigsaw/contract/audiences';
import type { CheckList } from '@jigsaw/contract/checks';
import type { OutlineView } from '@jigsaw/contract/outline';
import type { MarkView } from '@jigsaw/contract/marks';
import type { NoteList } from '@jigsaw/contract/notes';
import type { BoardView } from '@jigsaw/contract/placing';
import type { ActivityView } from '@jigsaw/contract/release';
import type { CourseSettings } from '@jigsaw/contract/course';
import type { CopyHead } from '@jigsaw/contract/rooms';
import type { GroupSetView } from '@jigsaw/contract/sets';
import { settingsOf } from '@jigsaw/contract/sets';
import type { ShelfView } from '@jigsaw/contract/shelf';
import type { PageView } from '@jigsaw/contract/wiki';
import { sure } from '@jigsaw/core/lists';
import { wholeSet } from '@jigsaw/core/release';
import { anAssignment, aSheet, aText, base64 } from './aCourse.js';
import type { CourseForTests } from './aCourse.js';
import type { Browser, TestServer } from './testServer.js';
import { password } from './testServer.js';
import type { Things } from './someThings.js';

export interface Operation {
  /** As the API document calls it. */
  readonly id: string;
  readonly method: 'get' | 'post' | 'put' | 'patch' | 'delete';
  readonly path: string;
  readonly by: Browser;
  /** What is taken as it is, at this moment. */
  readonly body: () => object | Promise<object>;
}

/** Every operation that takes a body, with one that is taken. */
export function takingOperations(server: TestServer, given: CourseForTests, things: Things): Operation[] {
  const { instructor, course, set, board } = given;
  const {
    live,
    copyId,
    talk,
    wiki,
    call,
    ownFile,
    poll,
    post,
    pageId,
    other,
    panels,
    tables,
    audience,
    heading,
    noteId,
    shelfId,
    threadId,
  } = things;
  const noor = sure(given.students.get('noor'));
  const [crock] = board.groups;
  const read = async <Answer>(path: string, by: Browser = instructor) =>
    (await by.get(`/api/${path}`)).body as Answer;
  const activity = () => read<ActivityView>(`activities/${live.id}`);
  const versionOf = async () => (await activity()).version;
  const sheet = () => read<MarkView>(`copies/${copyId}/marks/group`);
  const setNow = async (id: string = set.id) => (await read<{ sets: GroupSetView[] }>(`courses/${course.id}/sets`)).sets.find((each) => each.id === id) ?? set; // prettier-ignore
  const groupNow = async () => sure((await read<BoardView>(`sets/${set.id}/board`)).groups[0]);
  const seatOf = async (setId: string) => (await read<BoardView>(`sets/${setId}/board`)).students.find((each) => each.enrolmentId === noor.enrolmentId)?.seats[0]?.groupId ?? null; // prettier-ignore
  const by = instructor;
  const one = (id: string, method: Operation['method'], path: string, body: Operation['body'], who = by): Operation => ({ id, method, path: `/api/${path}`, body, by: who }); // prettier-ignore
  const inCourse = (path: string) => `courses/${course.id}/${path}`;
  const reach = { to: wholeSet(set.id), outsiders: 'hidden' };
  const terms = wholeSet(set.id).include;
  const units = async () => ({ units: [{ copyId, unit: 'group', version: (await sheet()).version }] });
  const draft = { ...anAssignment(), settings: { attempts: 'latest' } };
  const source = { kind: 'paste', text: 'Ada Moss <ada.moss@quillmere.example>' };
  const file = { kind: 'file', fileName: 'a.csv', contentBase64: base64('Email,Name\nb@quillmere.example,Ben\n'), delimiter: null }; // prettier-ignore
  const entry = { name: 'Cleo Ek', familyName: null, reading: null, email: `cleo@quillmere.example`, number: '7', role: 'student', attributes: { Home: 'Faro' } }; // prettier-ignore
  // Those that others build on come first: what is spoiled and taken all the same changes the course.
  return [
    one('orderGroupSets', 'put', inCourse('sets/order'), async () => ({
      setIds: (await read<{ sets: GroupSetView[] }>(`courses/${course.id}/sets`)).sets.map((each) => each.id),
    })),
    one('nameGroup', 'patch', `groups/${sure(crock).id}/naming`, () => ({ name: 'Mine', motto: 'Salt', version: 1 }), noor.browser), // prettier-ignore
    one(
      'takePlace',
      'post',
      `sets/${other.id}/sign-up`,
      () => ({ groupId: sure(panels[1]).id }),
      noor.browser,
    ),
    one('awaitPlace', 'put', `sets/${other.id}/sign-up/awaited/${sure(panels[1]).id}`, () => ({ isAwaited: false }), noor.browser), // prettier-ignore
    one('markSeenMarks', 'post', inCourse('my-marks/seen'), () => ({ until: '2026-11-10T10:00:00.000Z' }), noor.browser), // prettier-ignore
    one('markSeen', 'post', `copies/${talk}/seen`, () => ({ what: 'all' }), noor.browser),
    one('savePart', 'put', `copies/${copyId}/part`, async () => ({ text: aText('mine'), version: (await read<{ yours: { version: number } | null }>(`copies/${copyId}/work`, noor.browser)).yours?.version ?? 0 }), noor.browser), // prettier-ignore
    one('handIn', 'post', `copies/${copyId}/hand-in`, () => ({ attempt: 1 }), noor.browser), // prettier-ignore
    one('addPost', 'post', `copies/${talk}/posts`, () => ({ ...post, id: randomUUID() }), noor.browser),
    one('changePost', 'put', `copies/${talk}/posts/${post.id}`, () => ({ text: aText('3.4'), version: 1 }), noor.browser), // prettier-ignore
    one(
      'addPage',
      'post',
      `copies/${wiki}/wiki/pages`,
      () => ({ id: randomUUID(), title: randomUUID() }),
      noor.browser,
    ),
    one('savePage', 'put', `copies/${wiki}/wiki/pages/${pageId}`, async () => ({ title: 'Log', text: aText('3.4'), basedOn: (await read<PageView>(`copies/${wiki}/wiki/pages/${pageId}`, noor.browser)).revision }), noor.browser), // prettier-ignore
    one('dismissCheck', 'post', inCourse('checks/dismissals'), async () => ({ id: (await read<CheckList>(inCourse('checks'))).checks[0]?.id ?? '0'.repeat(32), reason: 'Meant so' })), // prettier-ignore
    one('answerStop', 'put', inCourse('stops'), () => ({ groupId: sure(crock).id, code: 'question', subjectId: talk, upTo: '2026-11-10T10:00:00.000Z', said: 'later' })), // prettier-ignore
    one(
      'markSeenOnShelf',
      'post',
      `groups/${sure(crock).id}/shelf/seen`,
      () => ({ upTo: '2026-11-10T10:00:00.000Z' }),
      noor.browser,
    ),
    one('restoreShelfVersion', 'post', `groups/${sure(crock).id}/shelf/${shelfId}/versions/restore`, async () => ({ number: 1, newest: (await read<ShelfView>(`groups/${sure(crock).id}/shelf`)).files[0]?.versions[0]?.number ?? 0 }), noor.browser), // prettier-ignore
    one('addNote', 'post', `groups/${sure(crock).id}/notes`, () => ({ id: randomUUID(), text: 'Both leave early.', about: noor.enrolmentId })), // prettier-ignore
    one('changeNote', 'put', `notes/${noteId}`, async () => ({ text: 'Louder', version: (await read<NoteList>(`groups/${sure(crock).id}/notes`)).notes.find((each) => each.id === noteId)?.version ?? 0 })), // prettier-ignore
    one('startPractice', 'post', inCourse('practice'), () => ({ groupId: sure(crock).id })),
    one('restorePractice', 'post', inCourse('practice/restore'), () => ({ round: 1 })),
    one('foreseeSight', 'post', inCourse('foreseen'), () => ({ act: 'withdraw', activityId: live.id })),
    one('foreseeMarks', 'post', `activities/${live.id}/marks-foreseen`, () => ({ extension: null })),
    one('saveMark', 'put', `copies/${copyId}/marks/group`, async () => ({ ...aSheet, typedMark: '30', feedback: 'Good', adjustments: [{ enrolmentId: noor.enrolmentId, adjustment: { kind: 'adjusted', by: '1', reason: 'Led' } }], version: (await sheet()).version })), // prettier-ignore
    one('releaseMarks', 'post', `copies/${copyId}/marks/group/release`, async () => ({ version: (await sheet()).version })), // prettier-ignore
    one('recallMarks', 'post', `copies/${copyId}/marks/group/recall`, async () => ({ version: (await sheet()).version })), // prettier-ignore
    one('releaseManyMarks', 'post', `releases/${sure(live.release).id}/marks/release`, units),
    one('recallManyMarks', 'post', `releases/${sure(live.release).id}/marks/recall`, units),
    one('takeSuggestedMarks', 'post', `releases/${sure(live.release).id}/marks/take-suggested`, units),
    one('signIn', 'post', 'session', () => ({ email: 'noor@quillmere.example', password }), server.browser()),
    one('signInAsDemoPerson', 'post', 'session/demo', () => ({ personId: randomUUID() }), server.browser()),
    one('lookAtLink', 'post', 'session/link', () => ({ token: 'a'.repeat(30) }), server.browser()),
    one(
      'openLink',
      'post',
      'session/password',
      () => ({ token: 'a'.repeat(30), password }),
      server.browser(),
    ),
    one('mailLink', 'post', 'session/mailed-link', () => ({ email: 'a@b.example' }), server.browser()),
    one('giveAnswers', 'put', `copies/${poll.copyId}/answers`, async () => ({ answers: { [poll.question]: 3 }, version: (await read<{ mine: { version: number } | null }>(`copies/${poll.copyId}/answers`, noor.browser)).mine?.version ?? 0, isAnonymous: false }), noor.browser), // prettier-ignore
    one('restoreOwnFile', 'post', `copies/${ownFile.copyId}/own-files/${ownFile.fileId}/restore`, async () => ({ number: 0, newest: (await read<CopyHead>(`copies/${ownFile.copyId}`, noor.browser)).ownFiles.files[0]?.versions[0]?.number ?? 0 }), noor.browser), // prettier-ignore
    one('stepIn', 'post', `copies/${call}/call/visits`, () => ({ id: randomUUID() }), noor.browser),
    one('setDoor', 'put', `copies/${call}/call/door`, async () => ({ address: 'https://a.example', version: (await read<{ door: { version: number } }>(`copies/${call}/call`, noor.browser)).door.version }), noor.browser), // prettier-ignore
    one('addCalendarAddress', 'post', 'calendar-addresses', () => ({ label: 'Phone' })),
    one('createCourse', 'post', 'courses', () => ({
      code: 'A',
      title: 'B',
      term: 'C',
      timeZone: 'Europe/Lisbon',
    })),
    one('changeAssistants', 'put', inCourse('assistants'), () => ({ assistantsSee: 'all' })),
    one('changeCourse', 'put', `courses/${course.id}`, async () => { const { code, title, term, timeZone, version } = await read<CourseSettings>(`courses/${course.id}/settings`); return { code, title, term, timeZone, version }; }), // prettier-ignore
    one('createGroupSet', 'post', inCourse('sets'), () => ({ name: randomUUID(), shape: { by: 'count', groups: 1 }, capacity: 3, pattern: 'T {n}', names: ['One'], activities: [{ draft, isReleased: false }] })), // prettier-ignore
    one('copyGroupSet', 'post', `sets/${set.id}/copies`, () => ({ name: randomUUID(), withMembers: true })),
    one('deriveExperts', 'post', `sets/${set.id}/experts`, () => ({ name: randomUUID(), topics: ['Salt', 'Starch'], most: 4, seed: 3 })), // prettier-ignore
    one('workOutDeal', 'post', inCourse('deals'), () => ({ students: [], groups: [], rules: [], seed: 1 })),
    one('changeGroupSet', 'patch', `sets/${set.id}`, async () => settingsOf(await setNow())),
    one('changeRules', 'put', `sets/${set.id}/rules`, async () => ({ rules: [{ kind: 'apart', students: [noor.enrolmentId, sure(given.students.get('amina')).enrolmentId] }], version: (await setNow()).version })), // prettier-ignore
    one('editTopics', 'put', `sets/${tables.id}/topics`, async () => ({ topics: [{ topic: 1, name: 'Brine', about: 'How much', tables: 2 }, { topic: 2, name: 'Starch', about: '', tables: 1 }], version: (await setNow(tables.id)).version })), // prettier-ignore
    one('freezeGroupSet', 'post', `sets/${other.id}/freeze`, () => ({ isFrozen: false })),
    one('archiveGroupSet', 'post', `sets/${other.id}/archive`, () => ({ isArchived: false })),
    one('editGroup', 'patch', `groups/${sure(crock).id}`, async () => { const { name, capacity, isLocked, version } = await groupNow(); return { name, capacity, isLocked, version }; }), // prettier-ignore
    one('editGroups', 'put', `sets/${other.id}/groups`, () => ({ groups: panels.map(({ id, name, capacity, isLocked, version }) => ({ id, name, capacity, isLocked, version })), removed: [] })), // prettier-ignore
    one('leadGroups', 'put', `sets/${set.id}/leads`, () => ({ leads: [{ groupId: sure(crock).id, enrolmentIds: [] }] })), // prettier-ignore
    one('placeStudents', 'post', `sets/${other.id}/place`, async () => ({ moves: [{ student: noor.enrolmentId, from: await seatOf(other.id), to: sure(panels[0]).id }], why: 'Swap' })), // prettier-ignore
    one('draftActivity', 'post', inCourse('activities'), () => draft),
    one('editActivity', 'put', `activities/${live.id}`, async () => ({
      ...draft,
      version: await versionOf(),
    })),
    one('publishActivity', 'post', `activities/${live.id}/publish`, async () => ({
      version: await versionOf(),
    })),
    one('discardChanges', 'post', `activities/${live.id}/discard`, async () => ({
      version: await versionOf(),
    })),
    one('releaseActivity', 'post', `activities/${live.id}/release`, async () => ({ ...reach, mode: 'own', goesLiveAt: null, version: await versionOf() })), // prettier-ignore
    one('copyActivity', 'post', `activities/${live.id}/copy`, () => ({ keepsTitle: true })),
    one('changeReach', 'put', `activities/${live.id}/reach`, () => ({ ...reach, was: reach })),
    one('changeManyActivities', 'post', inCourse('activities/many'), async () => ({ activities: [{ id: live.id, version: await versionOf() }], act: { kind: 'move', days: 1 } })), // prettier-ignore
    one('foresee', 'post', `activities/${live.id}/reach`, () => ({ ...reach, mode: 'own' })),
    one('createAudience', 'post', inCourse('audiences'), () => ({
      name: randomUUID(),
      include: terms,
      exclude: [],
    })),
    one('whoIsInAudience', 'post', inCourse('audiences/members'), () => ({ include: terms, exclude: [], audienceId: audience.id })), // prettier-ignore
    one('editAudience', 'put', `audiences/${audience.id}`, async () => ({ name: 'Dairy', include: terms, exclude: [], version: sure((await read<AudienceList>(inCourse('audiences'))).audiences.find((each) => each.id === audience.id)).version })), // prettier-ignore
    one('createHeading', 'post', inCourse('headings'), () => ({ title: 'Milk' })),
    one('renameHeading', 'put', `headings/${heading.id}`, async () => ({ title: 'Salt', version: sure((await read<OutlineView>(inCourse('outline'))).headings.find((each) => each.id === heading.id)).version })), // prettier-ignore
    one('moveHeading', 'post', `headings/${heading.id}/move`, () => ({ before: heading.id })),
    one('placeActivity', 'post', `activities/${live.id}/place`, () => ({ headingId: heading.id, before: live.id })), // prettier-ignore
    one('copyFromCourse', 'post', inCourse('activities/from-course'), () => ({ activityIds: [live.id], keepsDates: false })), // prettier-ignore
    one('grantExtension', 'put', `activities/${live.id}/extensions/${sure(crock).id}`, () => ({ due: '2026-12-01T10:00:00.000Z', closes: null, reason: 'Ill' })), // prettier-ignore
    one('grantStudentExtension', 'put', `activities/${live.id}/student-extensions/${noor.enrolmentId}`, () => ({ due: '2026-12-02T10:00:00.000Z', closes: null, reason: 'Ill' })), // prettier-ignore
    one('readTable', 'post', inCourse('roster/table'), () => file),
    one('previewImport', 'post', inCourse('roster/preview'), () => ({ source, role: 'student', meanings: null, mends: [{ line: 1, cells: ['a@b.example', 'A'] }], newAddresses: [] })), // prettier-ignore
    one('previewImport', 'post', inCourse('roster/preview'), () => ({ source: file, role: 'student', meanings: null })), // prettier-ignore
    one('applyImport', 'post', inCourse('roster/import'), () => ({ source, role: 'student', meanings: ['email', 'name'], leaveOutLines: [], fingerprint: 'x', drop: [noor.enrolmentId] })), // prettier-ignore
    one('chooseKind', 'put', inCourse('roster/attributes'), () => ({ name: 'Home', kind: 'category' })),
    one('changeRoster', 'post', inCourse('roster/changes'), () => ({ act: 'add', entry: { ...entry, email: `${randomUUID()}@quillmere.example`, number: randomUUID().slice(0, 8) } })), // prettier-ignore
    one('changeRoster', 'post', inCourse('roster/changes'), () => ({ act: 'edit', edits: [{ enrolmentId: noor.enrolmentId, from: {}, to: { number: '12', attributes: { Home: 'Faro' } } }] })), // prettier-ignore
    one('changeRoster', 'post', inCourse('roster/changes'), () => ({ act: 'restore', enrolmentIds: [noor.enrolmentId] })), // prettier-ignore
    one('changeRoster', 'post', inCourse('roster/changes'), () => ({ act: 'rename-attribute', from: 'Home', to: 'Town' })), // prettier-ignore
    one('invitePeople', 'post', inCourse('roster/invitations'), () => ({ enrolmentIds: [noor.enrolmentId] })),
    one('sendMessage', 'post', inCourse('messages'), () => ({ id: randomUUID(), to: { kind: 'people', enrolmentIds: [noor.enrolmentId] }, subject: 'Hello', text: 'Bring salt', count: 1 })), // prettier-ignore
    one('replyToThread', 'post', `threads/${threadId}/messages`, () => ({ id: randomUUID(), text: 'Two' }), noor.browser), // prettier-ignore
    one('markSeenMessages', 'post', `threads/${threadId}/seen`, () => ({ upTo: 1 }), noor.browser),
  ];
}

/** Every operation that takes no body but names something, where that is there. */
export function otherOperations(given: CourseForTests, things: Things): Operation[] {
  const { instructor, course, set, board } = given;
  const {
    live,
    copyId,
    talk,
    wiki,
    event,
    call,
    ownFile,
    poll,
    visitId,
    attachedId,
    post,
    pageId,
    fileId,
    other,
    changeId,
    audience,
    heading,
    noteId,
    shelfId,
    threadId,
    messageId,
    sendingId,
  } = things;
  const noor = sure(given.students.get('noor'));
  const [crock] = board.groups;
  const one = (id: string, method: Operation['method'], path: string, by = instructor): Operation => ({
    id,
    method,
    path: `/api/${path}`,
    by,
    body: () => ({}),
  });
  const ofCourse = (id: string, path: string, by = instructor, method: Operation['method'] = 'get') =>
    one(id, method, `courses/${course.id}/${path}`, by);
  const release = sure(live.release).id;
  return [
    ofCourse('readFigures', 'figures'),
    ofCourse('readOutbox', 'outbox'),
    ofCourse('readRegistrar', 'registrar'),
    ofCourse('readRoster', 'roster'),
    ofCourse('exportRoster', 'roster.csv'),
    ofCourse('exportRosterBundle', 'roster.zip'),
    ofCourse('listRosterChanges', 'roster/changes'),
    ofCourse('listActivities', 'activities'),
    ofCourse('listCollisions', 'collisions'),
    ofCourse('readOutline', 'outline'),
    one('findCopies', 'get', `activities/${live.id}/copies`, noor.browser),
    ofCourse('listDesk', 'desk'),
    ofCourse('readGradebook', 'gradebook'),
    ofCourse('exportGradebook', 'gradebook.csv'),
    ofCourse('readMyMarks', 'my-marks', noor.browser),
    ofCourse('listRooms', 'rooms'),
    ofCourse('listRoomLines', 'room-lines'),
    one('readLastWritten', 'get', `groups/${sure(crock).id}/last-written`, noor.browser),
    one('readLately', 'get', `groups/${sure(crock).id}/lately`),
    one('readShelf', 'get', `groups/${sure(crock).id}/shelf`, noor.browser),
    one('readShelfFile', 'get', `groups/${sure(crock).id}/shelf/${shelfId}/versions/1`, noor.browser),
    one('removeShelfFile', 'delete', `groups/${sure(crock).id}/shelf/${shelfId}`, noor.browser),
    one('restoreShelfFile', 'post', `groups/${sure(crock).id}/shelf/${shelfId}/restore`, noor.browser),
    one('listNotes', 'get', `groups/${sure(crock).id}/notes`),
    one('removeNote', 'delete', `notes/${noteId}`),
    one('restoreNote', 'post', `notes/${noteId}/restore`),
    one('readRoom', 'get', `groups/${sure(crock).id}/room`),
    ofCourse('readAudit', 'audit'),
    ofCourse('readAuditChoice', 'audit/choice'),
    ofCourse('exportAudit', 'audit.csv'),
    ofCourse('listMessages', 'messages', noor.browser),
    ofCourse('countMessages', 'messages/count', noor.browser),
    ofCourse('listRecipients', 'messages/recipients', noor.browser),
    one('readThread', 'get', `threads/${threadId}`, noor.browser),
    one('removeMessage', 'delete', `messages/${messageId}`),
    one('restoreMessage', 'post', `messages/${messageId}/restore`),
    one('readSending', 'get', `sendings/${sendingId}`),
    one('removeSending', 'delete', `sendings/${sendingId}`),
    one('restoreSending', 'post', `sendings/${sendingId}/restore`),
    ofCourse('readPlaces', `roster/${noor.enrolmentId}/places`),
    ofCourse('listGroupSets', 'sets'),
    ofCourse('readCourseSettings', 'settings'),
    ofCourse('listSignUps', 'sign-ups', noor.browser),
    ofCourse('makeSignInLink', `roster/${noor.enrolmentId}/sign-in-link`, instructor, 'post'),
    ofCourse('makeSignInLinks', 'roster/sign-in-links', instructor, 'post'),
    ofCourse('undoRosterChange', `roster/changes/${changeId}/undo`, instructor, 'post'),
    one('readBoard', 'get', `sets/${set.id}/board`),
    one('readMoves', 'get', `sets/${set.id}/moves`),
    one('exportGroups', 'get', `sets/${set.id}/groups.csv`),
    one('readSignUp', 'get', `sets/${other.id}/sign-up`, noor.browser),
    one('readActivity', 'get', `activities/${live.id}`),
    one('removeExtension', 'delete', `activities/${live.id}/extensions/${sure(crock).id}`),
    one('removeStudentExtension', 'delete', `activities/${live.id}/student-extensions/${noor.enrolmentId}`),
    one('readDesk', 'get', `releases/${release}/desk`),
    one('readReadyMarks', 'get', `releases/${release}/marks/ready`),
    one('readCopy', 'get', `copies/${copyId}`, noor.browser),
    one('readWork', 'get', `copies/${copyId}/work`, noor.browser),
    one('readMark', 'get', `copies/${copyId}/marks/group`),
    one('downloadFile', 'get', `copies/${copyId}/files/${fileId}`, noor.browser),
    one('deleteFile', 'delete', `copies/${copyId}/files/${fileId}`, noor.browser),
    one('restoreFile', 'post', `copies/${copyId}/files/${fileId}/restore`, noor.browser),
    one('readDiscussion', 'get', `copies/${talk}/discussion`, noor.browser),
    one('readTalkChanges', 'get', `copies/${talk}/discussion/changes?since=1`, noor.browser),
    one('deletePost', 'delete', `copies/${talk}/posts/${post.id}`, noor.browser),
    one('restorePost', 'post', `copies/${talk}/posts/${post.id}/restore`, noor.browser),
    one('readEventFile', 'get', `copies/${event}/event.ics`, noor.browser),
    one('readAnswers', 'get', `copies/${poll.copyId}/answers`, noor.browser),
    one('readAllAnswers', 'get', `activities/${poll.activityId}/answers`),
    one('exportAnswers', 'get', `activities/${poll.activityId}/answers.csv`),
    one('readCall', 'get', `copies/${call}/call`, noor.browser),
    one('stayIn', 'put', `copies/${call}/call/visits/${visitId}`, noor.browser),
    one('leaveCall', 'delete', `copies/${call}/call/visits/${visitId}`, noor.browser),
    one(
      'readOwnFile',
      'get',
      `copies/${ownFile.copyId}/own-files/${ownFile.fileId}/versions/1`,
      noor.browser,
    ),
    one('readAttachedFile', 'get', `copies/${copyId}/attached/${attachedId}`, noor.browser),
    one('readFileOfActivity', 'get', `activities/${live.id}/files/${attachedId}`),
    one('listCalendarAddresses', 'get', 'calendar-addresses'),
    one('readWiki', 'get', `copies/${wiki}/wiki`, noor.browser),
    one('readPage', 'get', `copies/${wiki}/wiki/pages/${pageId}`, noor.browser),
    one('readRevision', 'get', `copies/${wiki}/wiki/pages/${pageId}/revisions/1`, noor.browser),
    one('deletePage', 'delete', `copies/${wiki}/wiki/pages/${pageId}`, noor.browser),
    one('restorePage', 'post', `copies/${wiki}/wiki/pages/${pageId}/restore`, noor.browser),
    one('withdrawActivity', 'post', `activities/${live.id}/withdraw`),
    ofCourse('listAudiences', 'audiences'),
    ofCourse('readSightlines', 'sightlines'),
    ofCourse('listChecks', 'checks'),
    ofCourse('countChecks', 'checks/count'),
    ofCourse('readPractice', 'practice'),
    ofCourse('clearPractice', 'practice/clear', instructor, 'post'),
    ofCourse('takeUpCheck', `checks/dismissals/${'0'.repeat(32)}`, instructor, 'delete'),
    one('deleteAudience', 'delete', `audiences/${audience.id}`),
    one('restoreAudience', 'post', `audiences/${audience.id}/restore`),
    one('deleteHeading', 'delete', `headings/${heading.id}`),
    one('restoreHeading', 'post', `headings/${heading.id}/restore`),
    one('restoreActivity', 'post', `activities/${live.id}/restore`),
    one('deleteActivity', 'delete', `activities/${live.id}`),
  ];
}
