import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { sure } from '@jigsaw/core/lists';
import { aCourse, aMember, crockIsLedBy } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { Operation } from '../test/operations.js';
import type { Things } from '../test/someThings.js';
import { otherOperations, takingOperations } from '../test/operations.js';
import { practising } from '../test/practising.js';
import { someThings } from '../test/someThings.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

/** Ilse teaches; Tomas assists and leads Crock, Bea assists and leads no group, Olga observes. Noor is in Crock, Jorge was and is in
 * Carboy by now, as Amina is; Nino is in no group; Kofi has left. Rui teaches another course, of which Ada is a student. The practice student acts in Crock. */
const inCourse = ['ilse', 'tomas', 'bea', 'olga', 'noor', 'jorge', 'amina', 'nino'] as const;
const everyone = [...inCourse, 'kofi', 'rui', 'ada', 'practice'] as const;
type Name = (typeof everyone)[number];

const staff: readonly Name[] = ['ilse', 'tomas', 'bea', 'olga'];
const students: readonly Name[] = ['noor', 'jorge', 'amina', 'nino'];
/** Who sees Crock's work, and who sees how it is marked. */
const crock: readonly Name[] = ['ilse', 'tomas', 'olga', 'noor'];
const markers: readonly Name[] = ['ilse', 'tomas', 'olga'];

/** The people who find something at an address; what they may do there is another matter. For everyone else there is nothing. */
const thereFor: Record<string, readonly Name[]> = {
  ...forAll(inCourse, 'markSeenMarks'),
  ...forAll(
    [...inCourse, 'practice'],
    'readFigures readMyMarks listRooms listSignUps readOutline listMessages countMessages listRecipients',
  ),
  ...forAll(
    staff,
    `orderGroupSets editTopics changeCourse readCourseSettings foreseeMarks changeAssistants createGroupSet copyGroupSet deriveExperts workOutDeal changeGroupSet changeRules freezeGroupSet
     archiveGroupSet editGroup editGroups leadGroups placeStudents draftActivity editActivity publishActivity discardChanges releaseActivity
     copyActivity changeManyActivities changeReach foresee grantExtension grantStudentExtension removeStudentExtension previewImport readTable applyImport chooseKind changeRoster invitePeople readOutbox readAudit readAuditChoice exportAudit
     readRegistrar readRoster listRoomLines exportRoster exportRosterBundle listRosterChanges listActivities listCollisions listDesk readGradebook exportGradebook readPlaces
     listGroupSets makeSignInLink makeSignInLinks undoRosterChange readBoard readMoves exportGroups readActivity removeExtension withdrawActivity
     restoreActivity deleteActivity readFileOfActivity listAudiences whoIsInAudience createAudience editAudience deleteAudience restoreAudience
     readSightlines foreseeSight readPractice startPractice clearPractice restorePractice listChecks countChecks dismissCheck takeUpCheck copyFromCourse createHeading renameHeading moveHeading deleteHeading restoreHeading placeActivity`,
  ),
  ...forAll(students, 'takePlace awaitPlace'),
  ...forAll([...students, 'practice'], 'readSignUp'),
  ...forAll(
    crock,
    `readShelfFile removeShelfFile restoreShelfFile markSeenOnShelf restoreShelfVersion markSeen savePart handIn addPost changePost addPage savePage readCopy readWork downloadFile deleteFile restoreFile readDiscussion readTalkChanges
     deletePost
     restorePost readAnswers giveAnswers readCall stepIn stayIn leaveCall setDoor readEventFile readAttachedFile readOwnFile restoreOwnFile readWiki readPage readRevision deletePage restorePage`,
  ),
  ...forAll([...crock, 'practice'], 'readLastWritten readShelf'),
  ...forAll(
    markers,
    `saveMark releaseMarks recallMarks releaseManyMarks recallManyMarks takeSuggestedMarks readDesk readReadyMarks readMark readRoom readLately answerStop listNotes addNote changeNote removeNote restoreNote
     readAllAnswers exportAnswers`,
  ),
  ...forAll([...markers, 'noor', 'jorge', 'amina', 'practice'], 'findCopies'),
  ...forAll(
    ['ilse', 'tomas', 'noor'],
    'readThread replyToThread markSeenMessages removeMessage restoreMessage',
  ),
  ...forAll(['ilse'], 'readSending removeSending restoreSending'),
  sendMessage: ['ilse', 'tomas', 'bea', 'noor'],
  nameGroup: [], // no one names groups of this set
};

/** They name nothing that could be someone else's, or have tests of their own (links, sessions, the stream). */
const notAsked = [
  ...['signIn', 'signInAsDemoPerson', 'lookAtLink', 'openLink', 'mailLink', 'signOut', 'readSession'],
  ...['readFrontDoor', 'readHealth', 'readOpenSessions', 'endSession', 'endOtherSessions'],
  ...[
    'createCourse',
    'listCourses',
    'readHome',
    'followChanges',
    'addFile',
    'attachFile',
    'putOwnFile',
    'putOnShelf',
    'putShelfVersion',
  ],
  ...['listCalendarAddresses', 'addCalendarAddress', 'removeCalendarAddress', 'readCalendar'],
];

let server: TestServer;
let given: CourseForTests;
let other: CourseForTests;
let things: Things;
let browsers: Record<Name, Browser>;
let operations: Operation[];
let ofOther: Operation[];

beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server, { students: 5 });
  other = await aCourse(server, { email: 'rui@other.example', school: 'other.example' });
  things = await someThings(given);
  const ofStudent = (name: string) => sure(given.students.get(name)).browser;
  browsers = {
    ilse: given.instructor,
    tomas: await aMember(server, given, 'tomas', 'assistant'),
    bea: await aMember(server, given, 'bea', 'assistant'),
    olga: await aMember(server, given, 'olga', 'observer'),
    noor: ofStudent('noor'),
    jorge: ofStudent('jorge'),
    amina: ofStudent('amina'),
    nino: ofStudent('nino'),
    kofi: ofStudent('kofi'),
    rui: other.instructor,
    ada: sure(other.students.get('noor')).browser,
    practice: practising(given.instructor, sure(given.board.groups[0]).id),
  };
  await crockIsLedBy(given, 'Tomas');
  const [, carboy] = given.board.groups;
  const jorge = sure(given.students.get('jorge')).enrolmentId;
  await given.instructor
    .post(`/api/sets/${given.set.id}/place`)
    .send({ moves: [{ student: jorge, from: sure(given.board.groups[0]).id, to: null }] })
    .expect(200);
  await given.instructor
    .post(`/api/courses/${given.course.id}/roster/changes`)
    .send({ act: 'drop', enrolmentIds: [sure(given.students.get('kofi')).enrolmentId] })
    .expect(200);
  await given.instructor
    .post(`/api/sets/${given.set.id}/place`)
    .send({ moves: [{ student: jorge, from: null, to: sure(carboy).id }] })
    .expect(200);
  const asked = ({ id }: Operation) => !notAsked.includes(id);
  operations = [...takingOperations(server, given, things), ...otherOperations(given, things)].filter(asked);
  await given.instructor
    .post(`/api/courses/${given.course.id}/practice`)
    .send({ groupId: sure(given.board.groups[0]).id })
    .expect(200);
  const otherThings = await someThings(other);
  ofOther = [...takingOperations(server, other, otherThings), ...otherOperations(other, otherThings)].filter(
    asked,
  );
});
afterAll(() => server.stop());

function forAll(names: readonly Name[], ids: string): Record<string, readonly Name[]> {
  return Object.fromEntries(ids.split(/\s+/).map((id) => [id, names]));
}

const anId = /[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}/g;
/** A text once for each id in it, with that id replaced. */
const eachReplaced = (text: string, instead: (at: number) => string | undefined): string[] => {
  const found = [...text.matchAll(anId)];
  return found.map(
    ({ index, 0: id }, at) => text.slice(0, index) + (instead(at) ?? id) + text.slice(index + id.length),
  );
};

/** All of an answer that its reader can tell from another, ids apart. */
async function answerTo(
  by: Browser,
  method: Operation['method'],
  path: string,
  body: string,
): Promise<string> {
  const answer = await by[method](path).set('Content-Type', 'application/json').send(body);
  const headers = Object.entries(answer.headers as Record<string, string>).filter(
    ([name]) => !['date', 'etag'].includes(name), // an etag is what the content makes it
  );
  const content: unknown = answer.body instanceof Buffer ? answer.body.toString('base64') : answer.text;
  return JSON.stringify({ status: answer.status, headers, content }).replaceAll(anId, 'ID');
}

describe('what is not yours is answered like what is not there', () => {
  it('is asked below of every operation', async () => {
    const { body } = (await server.browser().get('/api/openapi.json').expect(200)) as {
      body: { paths: Record<string, Record<string, { operationId: string }>> };
    };
    const all = Object.values(body.paths).flatMap((path) =>
      Object.values(path).map((each) => each.operationId),
    );
    expect([...new Set([...operations.map(({ id }) => id), ...notAsked])].toSorted()).toEqual(all.toSorted());
    expect(Object.keys(thereFor).toSorted()).toEqual([...new Set(operations.map(({ id }) => id))].toSorted());
  });

  it('is there for those who may read it', async () => {
    const refused: string[] = [];
    for (const { id, method, path } of operations.filter((each) => each.method === 'get'))
      for (const name of sure(thereFor[id])) {
        const { status } = await browsers[name].get(path);
        // Assistants and observers know of it and may not have it.
        if (status !== 200 && !(status === 403 && staff.includes(name) && name !== 'ilse'))
          refused.push(`${id} ${method} ${name} ${status}`);
      }
    expect(refused).toEqual([]);
  });

  it('by any operation, whoever asks: status, headers and words are the same', async () => {
    const told: string[] = [];
    let asked = 0;
    for (const { id, method, path, body } of operations) {
      const sound = JSON.stringify(await body());
      for (const name of everyone.filter((each) => !thereFor[id]?.includes(each)))
        for (const sent of [sound, '{}']) {
          const hidden = await answerTo(browsers[name], method, path, sent);
          const absent = await Promise.all(
            eachReplaced(path, () => randomUUID()).map((none) =>
              answerTo(browsers[name], method, none, sent),
            ),
          );
          asked += 1;
          const isNothing =
            hidden.startsWith('{"status":404') ||
            (name === 'practice' && hidden.includes('only-practising')) ||
            (sent === '{}' && hidden.startsWith('{"status":422'));
          if (!isNothing || absent.some((answer) => answer !== hidden))
            told.push(`${id} ${name} ${hidden} ${absent.find((answer) => answer !== hidden) ?? ''}`);
        }
    }
    expect([told.length, ...told.slice(0, 10)]).toEqual([0]);
    expect(asked).toBeGreaterThan(800);
  }, 300_000);

  it('by the stream of changes and by files that are sent', async () => {
    const send = async (by: Browser, copyId: string) => {
      const sent = by.post(`/api/copies/${copyId}/files?name=a.txt`);
      const { status, text } = await sent.set('Content-Type', 'application/octet-stream').send('a');
      return `${status} ${text}`;
    };
    for (const name of ['kofi', 'rui', 'ada'] as const) {
      const [here, nowhere] = [given.course.id, randomUUID()].map(
        (id) => `/api/courses/${id}/changes?page=p`,
      );
      const hidden = await answerTo(browsers[name], 'get', sure(here), '');
      expect(hidden).toContain('"status":404');
      expect(await answerTo(browsers[name], 'get', sure(nowhere), '')).toBe(hidden);
    }
    for (const name of everyone.filter((each) => !crock.includes(each))) {
      const hidden = await send(browsers[name], things.copyId);
      expect(hidden).toMatch(/^404/);
      expect(await send(browsers[name], randomUUID())).toBe(hidden);
    }
  });

  it('signed out nothing is there at all', async () => {
    for (const { method, path } of operations) {
      const hidden = await answerTo(server.browser(), method, path, '{}');
      expect(hidden).toContain('"status":401');
      for (const none of eachReplaced(path, () => randomUUID()))
        expect(await answerTo(server.browser(), method, none, '{}')).toBe(hidden);
    }
  }, 120_000);

  it('named inside an address or a body of one’s own, and nothing of it is changed', async () => {
    const told: string[] = [];
    const before = await shown(given);
    let asked = 0;
    for (const [at, { id, method, path, body, by }] of ofOther.entries()) {
      const theirs = sure(operations[at]);
      const theirIds = {
        path: theirs.path.match(anId) ?? [],
        body: JSON.stringify(await theirs.body()).match(anId) ?? [],
      };
      const fresh = async () => JSON.stringify(await body());
      const compare = async (
        foreign: () => Promise<[string, string]>,
        none: () => Promise<[string, string]>,
      ) => {
        asked += 1;
        const answers: string[] = [];
        for (const ask of [foreign, none]) answers.push(await answerTo(by, method, ...(await ask())));
        if (answers[0] !== answers[1]) told.push(`${id} ${path} ${answers.join(' | ')}`);
      };
      for (const [place] of (path.match(anId) ?? []).entries())
        await compare(
          async () => [sure(eachReplaced(path, (each) => theirIds.path[each])[place]), await fresh()],
          async () => [sure(eachReplaced(path, () => randomUUID())[place]), await fresh()],
        );
      for (const [place] of ((await fresh()).match(anId) ?? []).entries())
        await compare(
          async () => [path, sure(eachReplaced(await fresh(), (each) => theirIds.body[each])[place])],
          async () => [path, sure(eachReplaced(await fresh(), () => randomUUID())[place])],
        );
    }
    expect([told.length, ...told.slice(0, 10)]).toEqual([0]);
    expect(asked).toBeGreaterThan(100);
    expect(await shown(given)).toEqual(before);
  }, 300_000);
});

it('says that there is nothing no sooner than the step ends', async () => {
  const stepping = await startTestServer({ notFoundStepMs: 2_000 });
  const instructor = await stepping.instructor();
  const asked = performance.now();
  await instructor.get(`/api/courses/${randomUUID()}/roster`).expect(404);
  const answered = performance.now();
  await stepping.stop();
  expect(answered - asked).toBeGreaterThanOrEqual(1_995); // both ends are read outside the server
});

/** What a course's instructor sees of it. */
async function shown({ instructor, course, set }: CourseForTests): Promise<unknown[]> {
  const paths = [
    `courses/${course.id}/roster`,
    `courses/${course.id}/sets`,
    `courses/${course.id}/activities`,
    `sets/${set.id}/board`,
  ];
  return Promise.all(
    paths.map(async (path) => (await instructor.get(`/api/${path}`).expect(200)).body as unknown),
  );
}
