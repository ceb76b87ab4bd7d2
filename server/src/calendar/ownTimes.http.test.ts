import { afterAll, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import ICAL from 'ical.js';
import type { NewCalendarAddress } from '@jigsaw/contract/calendar';
import type { ActivityView, ManyChanged } from '@jigsaw/contract/release';
import type { CopyHead } from '@jigsaw/contract/rooms';
import { sure } from '@jigsaw/core/lists';
import { aCourse, anAssignment, copyOf, itemOf, released, toRead } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import { follow } from '../test/following.js';
import { marker, tellAll } from '../test/marker.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;
let title: string;
let count = 0;

beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server, { students: 5, groups: 2 }); // Crock: noor, jorge; Carboy: amina, kofi
});
afterAll(() => server.stop());
beforeEach(() => {
  count += 1;
  title = `Tasting ${count}`;
  server.clock.set('2026-10-20T10:00:00Z');
});

const student = (name: string): Browser => sure(given.students.get(name)).browser;
const times = { starts: '2026-10-22T09:00:00.000Z', ends: '2026-10-22T11:00:00.000Z', place: 'Lab 2', isCancelled: false }; // prettier-ignore
const anEventDraft = (settings: object) =>
  anAssignment(toRead('event', { title, settings: settings as ActivityView['settings'] }));
const anEvent = (settings: object) => released(given, anEventDraft(settings));

const addressOf = async (browser: Browser) =>
  (await browser.post('/api/calendar-addresses').send({ label: 'Phone' }).expect(200)).body as NewCalendarAddress; // prettier-ignore
/** Calendars have no session. */
async function readBack(url: string) {
  const { text } = await server.browser().get(new URL(url).pathname).expect(200);
  const calendar = new ICAL.Component(ICAL.parse(text) as never[]);
  return { text, events: calendar.getAllSubcomponents('vevent').map((each) => new ICAL.Event(each)) };
}

describe('an event at another time for a group', () => {
  const slot = { starts: '2026-10-22T09:20:00.000Z', ends: '2026-10-22T09:40:00.000Z', place: '', isCancelled: false }; // prettier-ignore
  const ofCrock = (more: object = {}) => ({ ...times, own: [{ ...slot, ...more, groupId: sure(given.board.groups[0]).id }] }); // prettier-ignore
  const headFor = async (name: string) =>
    (await student(name).get(`/api/copies/${await copyOf(student(name), given.course.id, title)}`).expect(200)).body as CopyHead; // prettier-ignore

  it('is told to its members in room, page, file and calendar; no one else learns of it', async () => {
    await anEvent(ofCrock());
    const seen = { ...slot, place: times.place };
    expect((await itemOf(student('noor'), given.course.id, title)).happens).toEqual(seen);
    expect((await itemOf(student('amina'), given.course.id, title)).happens).toEqual(times);
    expect((await headFor('noor')).settings).toEqual({ ...seen, own: [] });
    const other = await headFor('amina');
    expect(other.settings).toEqual({ ...times, own: [] });
    expect(JSON.stringify(other)).not.toContain(slot.starts);
    const starts = async (browser: Browser) =>
      (await readBack((await addressOf(browser)).url)).events.filter((each) => each.summary.includes(title)).map((each) => [each.summary, each.startDate.toJSDate().toISOString()]); // prettier-ignore
    expect(await starts(student('noor'))).toEqual([[`${title} (FER 220, Crock)`, slot.starts]]);
    expect(await starts(student('amina'))).toEqual([[`${title} (FER 220, Carboy)`, times.starts]]);
    expect(await starts(given.instructor)).toEqual([
      [`${title} (FER 220)`, times.starts],
      [`${title} (FER 220, Crock)`, slot.starts],
    ]);
  });

  it('is listed for staff with the group’s name; a group of another course has no name here', async () => {
    const other = await aCourse(server, { email: `own${count}@other.example`, school: 'other.example' });
    const theirs = { ...slot, groupId: sure(other.board.groups[0]).id };
    const { happens } = await anEvent({ ...times, own: [...ofCrock().own, theirs] });
    expect(happens).toEqual([{ ...times, whose: null }, { ...slot, place: times.place, whose: 'Crock' }]); // prettier-ignore
  });

  it('is new to that group alone when it changes, and no page of the others hears of it', async () => {
    const { id, version } = await anEvent(ofCrock());
    for (const name of ['noor', 'amina'])
      await student(name).post(`/api/copies/${(await headFor(name)).id}/seen`).send({ what: 'all' }).expect(200); // prettier-ignore
    const { url } = await addressOf(student('amina'));
    const before = (await readBack(url)).text;
    const [crocks, carboys] = [await follow(student('noor'), given.course.id), await follow(student('amina'), given.course.id)]; // prettier-ignore
    const edited = (await given.instructor.put(`/api/activities/${id}`).send({ ...anEventDraft(ofCrock({ place: 'Cellar' })), version }).expect(200)).body as ActivityView; // prettier-ignore
    await given.instructor.post(`/api/activities/${id}/publish`).send({ version: edited.version }).expect(200); // prettier-ignore
    await tellAll(server, given.course.id);
    expect(await crocks.until(marker)).toContain('activity.edited');
    expect(await carboys.until(marker)).toEqual([marker]);
    for (const page of [crocks, carboys]) page.stop();
    expect((await itemOf(student('noor'), given.course.id, title)).unread).toBe(1);
    expect((await itemOf(student('amina'), given.course.id, title)).unread).toBe(0);
    expect((await readBack(url)).text).toBe(before);
  });

  it('is one for each group, and ends after it starts', async () => {
    const sentence = async (settings: object) =>
      ((await given.instructor.post(`/api/courses/${given.course.id}/activities`).send(anEventDraft(settings)).expect(422)).body as { detail: string }).detail; // prettier-ignore
    const [own] = ofCrock().own;
    expect(await sentence({ ...times, own: [own, own] })).toBe('A group can have one time of its own. Remove the second.'); // prettier-ignore
    expect(await sentence(ofCrock({ ends: slot.starts }))).toBe('Choose an end after the start.');
  });

  it('moves with that of all, and stays behind where the event is copied to another course', async () => {
    const { id, version } = await anEvent(ofCrock());
    const act = { kind: 'move', days: 7 };
    await given.instructor.post(`/api/courses/${given.course.id}/activities/many`).send({ activities: [{ id, version }], act }).expect(200); // prettier-ignore
    expect((await itemOf(student('noor'), given.course.id, title)).happens?.starts).toBe('2026-10-29T10:20:00.000Z'); // prettier-ignore
    const next = (await given.instructor.post('/api/courses').send({ code: `N ${count}`, title: 'Next', term: '', timeZone: 'UTC' }).expect(200)).body as { id: string }; // prettier-ignore
    const copied = (await given.instructor.post(`/api/courses/${next.id}/activities/from-course`).send({ activityIds: [id], keepsDates: true }).expect(200)).body as ManyChanged; // prettier-ignore
    expect(copied.activities[0]?.settings).toMatchObject({ place: 'Lab 2', own: [] });
  });
});
