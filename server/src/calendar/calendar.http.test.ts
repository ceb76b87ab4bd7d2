import { afterAll, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import ICAL from 'ical.js';
import type { CalendarAddresses, NewCalendarAddress } from '@jigsaw/contract/calendar';
import type { ActivityView, ManyChanged, ReleaseRequest } from '@jigsaw/contract/release';
import { sure } from '@jigsaw/core/lists';
import { theClass } from '@jigsaw/core/release';
import { aCourse, anAssignment, aText, copyOf, itemOf, released, toRead } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
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
const anEventDraft = (settings: object = times, more: object = {}) =>
  anAssignment({ ...toRead('event', { title, settings: settings as ActivityView['settings'] }), ...more });
const anEvent = (settings: object = times, how: Partial<ReleaseRequest> = {}, more: object = {}) =>
  released(given, anEventDraft(settings, more), how);

const addressOf = async (browser: Browser, label = 'Phone') =>
  (await browser.post('/api/calendar-addresses').send({ label }).expect(200)).body as NewCalendarAddress;
/** Calendars have no session. */
const fetched = (url: string) => server.browser().get(new URL(url).pathname);
/** Read back by a parser that did not write it. */
async function readBack(url: string) {
  const { text } = await fetched(url)
    .expect(200)
    .expect('Content-Type', /text\/calendar/);
  return parsed(text);
}
function parsed(text: string) {
  const calendar = new ICAL.Component(ICAL.parse(text) as never[]);
  const events = calendar.getAllSubcomponents('vevent').map((each) => new ICAL.Event(each));
  return {
    text,
    calendar,
    events,
    of: (summary: string) => events.find((each) => each.summary.includes(summary)),
  };
}

describe('an event', () => {
  it('is released once it has its times, and stands in its room with them', async () => {
    const draft = (
      await given.instructor
        .post(`/api/courses/${given.course.id}/activities`)
        .send(anEventDraft({ place: 'Lab 2' }))
        .expect(200)
    ).body as ActivityView;
    const request = { to: theClass, mode: 'common', outsiders: 'hidden', goesLiveAt: null, version: draft.version }; // prettier-ignore
    const refused = await given.instructor
      .post(`/api/activities/${draft.id}/release`)
      .send(request)
      .expect(422);
    expect((refused.body as { detail: string }).detail).toBe('Choose when it starts.');
    await anEvent();
    expect(await itemOf(student('noor'), given.course.id, title)).toMatchObject({ happens: times, due: null, unread: 1 }); // prettier-ignore
  });

  it('does not end before it starts', async () => {
    const refused = await given.instructor
      .post(`/api/courses/${given.course.id}/activities`)
      .send(anEventDraft({ ...times, ends: times.starts }))
      .expect(422);
    expect((refused.body as { detail: string }).detail).toBe('Choose an end after the start.');
  });

  it('keeps its times with its groups: a change without them is not published, nor released again', async () => {
    const { id, version } = await anEvent();
    const edited = (await given.instructor.put(`/api/activities/${id}`).send({ ...anEventDraft({ place: 'Lab 2' }), version }).expect(200)).body as ActivityView; // prettier-ignore
    const refused = await given.instructor.post(`/api/activities/${id}/publish`).send({ version: edited.version }).expect(422); // prettier-ignore
    expect((refused.body as { detail: string }).detail).toBe('Choose when it starts.');
    expect((await itemOf(student('noor'), given.course.id, title)).happens).toEqual(times);
  });

  it('keeps its times while it is scheduled', async () => {
    const { id, version } = await anEvent(times, { goesLiveAt: '2026-12-20T09:00:00.000Z' });
    const edit = given.instructor.put(`/api/activities/${id}`).send({ ...anEventDraft({ place: 'Lab 2' }), version }); // prettier-ignore
    expect(((await edit.expect(422)).body as { detail: string }).detail).toBe('Choose when it starts.');
  });

  it('can be in work without its times once it came out by itself', async () => {
    const { id, version } = await anEvent(times, { goesLiveAt: '2026-10-21T09:00:00.000Z' });
    server.clock.set('2026-10-21T10:00:00Z');
    const draft = { ...anEventDraft({ place: 'Lab 3' }), version };
    const edited = (await given.instructor.put(`/api/activities/${id}`).send(draft).expect(200)).body as ActivityView; // prettier-ignore
    expect(edited.inWork?.settings).toMatchObject({ place: 'Lab 3', starts: null });
    expect((await itemOf(student('noor'), given.course.id, title)).happens).toEqual(times);
  });

  it('is called by its article where it is refused', async () => {
    const draft = anEventDraft(times, { points: '10' });
    const refused = await given.instructor.post(`/api/courses/${given.course.id}/activities`).send(draft).expect(422); // prettier-ignore
    expect((refused.body as { detail: string }).detail).toMatch(/^An event has no points/);
  });

  it('moves with others by days, at the same time of day where clocks change, and is new again', async () => {
    const { id, version } = await anEvent();
    const before = await itemOf(student('noor'), given.course.id, title);
    await student('noor').post(`/api/copies/${before.copyId}/seen`).send({ what: 'all' }).expect(200);
    const many = (days: number, at: number) =>
      given.instructor
        .post(`/api/courses/${given.course.id}/activities/many`)
        .send({ activities: [{ id, version: at }], act: { kind: 'move', days } });
    const { activities } = (await many(7, version).expect(200)).body as ManyChanged;
    // Lisbon leaves summer time on 25 October.
    expect(await itemOf(student('noor'), given.course.id, title)).toMatchObject({
      happens: { ...times, starts: '2026-10-29T10:00:00.000Z', ends: '2026-10-29T12:00:00.000Z' },
      unread: 1,
    });
    await many(700, sure(activities[0]).version).expect(200);
  });

  it('is refused a move to where a date field ends', async () => {
    const far = { ...times, starts: '2199-01-02T09:00:00.000Z', ends: '2199-01-02T11:00:00.000Z' };
    const { id, version } = await anEvent(far);
    const refused = await given.instructor
      .post(`/api/courses/${given.course.id}/activities/many`)
      .send({ activities: [{ id, version }], act: { kind: 'move', days: 700 } })
      .expect(422);
    expect((refused.body as { detail: string }).detail).toContain('cannot be moved that far');
    expect((await itemOf(student('noor'), given.course.id, title)).happens?.starts).toBe(far.starts);
  });

  it('is a file of its own for those who see it, and not there for others', async () => {
    await anEvent();
    const copyId = await copyOf(student('noor'), given.course.id, title);
    const { text } = await student('noor').get(`/api/copies/${copyId}/event.ics`).expect(200);
    expect(parsed(text).events.map((each) => each.summary)).toEqual([`${title} (FER 220, Crock)`]);
    const absent = await student('amina').get('/api/copies/01a22817-0000-7000-8000-000000000000/event.ics').expect(404); // prettier-ignore
    const other = await student('amina').get(`/api/copies/${copyId}/event.ics`).expect(404);
    expect(other.body).toEqual(absent.body);
    const report = `Report ${count}`;
    await released(given, { title: report });
    const ofReport = await copyOf(student('noor'), given.course.id, report);
    await student('noor').get(`/api/copies/${ofReport}/event.ics`).expect(404);
  });
});

describe('a calendar address', () => {
  it('holds the events and due times of one’s own groups, in the zone of the course', async () => {
    await anEvent();
    await released(given, { title: `Report ${count}` });
    const { url } = await addressOf(student('noor'));
    const { of, calendar, text } = await readBack(url);
    const event = sure(of(title));
    expect(event.summary).toBe(`${title} (FER 220, Crock)`);
    expect(event.location).toBe('Lab 2');
    expect([event.startDate.toString(), event.startDate.zone.tzid]).toEqual(['2026-10-22T10:00:00', 'Europe/Lisbon']); // prettier-ignore
    expect(event.startDate.toJSDate().toISOString()).toBe(times.starts);
    expect(event.endDate.toJSDate().toISOString()).toBe(times.ends);
    expect(calendar.getAllSubcomponents('vtimezone').map((zone) => zone.getFirstPropertyValue('tzid'))).toEqual(['Europe/Lisbon']); // prettier-ignore
    const due = sure(of(`Due: Report ${count}`));
    expect(due.startDate.toJSDate().toISOString()).toBe('2026-11-12T17:00:00.000Z');
    for (const line of text.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75);
    expect(text.endsWith('END:VCALENDAR\r\n')).toBe(true);
    // The same again, byte for byte, while nothing changes.
    expect((await readBack(url)).text).toBe(text);
  });

  it('brings titles, places and texts back as they were typed', async () => {
    title = `Sauer; Kraut, “süß” \\ 한서연 ${'long '.repeat(20)}${count}`.trim();
    const place = 'Haus 3; Raum "Süd", 2. Stock';
    await anEvent({ ...times, place }, {}, { brief: aText('Line one; two, three\\four 🥕') });
    const { url } = await addressOf(student('noor'));
    const event = sure((await readBack(url)).of('Sauer'));
    expect(event.summary).toBe(`${title} (FER 220, Crock)`);
    expect(event.location).toBe(place);
    expect(event.description).toContain('Line one; two, three\\four 🥕');
  });

  it('holds nothing of other groups, nor of what is not out yet', async () => {
    await anEvent(times, { to: { include: [{ kind: 'group', setId: given.set.id, groupId: sure(given.board.groups[1]).id }], exclude: [] } }); // prettier-ignore
    const later = `Later ${count}`;
    await released(given, { ...anEventDraft(), title: later }, { goesLiveAt: '2026-12-01T08:00:00.000Z' });
    const crocks = await addressOf(student('noor'));
    const carboys = await addressOf(student('amina'));
    const staffs = await addressOf(given.instructor); // who may look into it, and has nothing to keep yet
    expect((await readBack(staffs.url)).of(later)).toBeUndefined();
    expect((await readBack(crocks.url)).of(title)).toBeUndefined();
    expect((await readBack(crocks.url)).of(later)).toBeUndefined();
    expect((await readBack(carboys.url)).of(title)).toBeDefined();
    server.clock.set('2026-12-01T08:00:00Z');
    expect((await readBack(crocks.url)).of(later)).toBeDefined();
    expect((await readBack(staffs.url)).of(later)).toBeDefined();
  });

  it('says what is cancelled, follows the group’s name, and one’s own longer time', async () => {
    const { id, version } = await anEvent();
    const report = await released(given, { title: `Report ${count}` });
    const { url } = await addressOf(student('jorge'));
    const edited = (await given.instructor.put(`/api/activities/${id}`).send({ ...anEventDraft({ ...times, isCancelled: true }), version }).expect(200)).body as ActivityView; // prettier-ignore
    expect((await readBack(url)).of(title)?.component.getFirstPropertyValue('status')).toBe('CONFIRMED');
    await given.instructor.post(`/api/activities/${id}/publish`).send({ version: edited.version }).expect(200); // prettier-ignore
    const cancelled = sure((await readBack(url)).of(title));
    expect(cancelled.summary).toBe(`Cancelled: ${title} (FER 220, Crock)`);
    expect(cancelled.component.getFirstPropertyValue('status')).toBe('CANCELLED');

    await given.instructor
      .put(`/api/activities/${report.id}/student-extensions/${sure(given.students.get('jorge')).enrolmentId}`)
      .send({ due: '2026-11-20T17:00:00.000Z', reason: 'ill' })
      .expect(200);
    const due = sure((await readBack(url)).of(`Due: Report ${count}`));
    expect(due.startDate.toJSDate().toISOString()).toBe('2026-11-20T17:00:00.000Z');

    const crock = sure(given.board.groups[0]);
    const name = async (from: string, to: string) => {
      const { groups } = (await given.instructor.get(`/api/sets/${given.set.id}/board`)).body as { groups: { id: string; version: number }[] }; // prettier-ignore
      const { version: at } = sure(groups.find((each) => each.id === crock.id));
      await given.instructor.patch(`/api/groups/${crock.id}`).send({ name: to, capacity: null, version: at }).expect(200); // prettier-ignore
      return from;
    };
    await name('Crock', 'Demijohn');
    expect(sure((await readBack(url)).of(title)).summary).toContain('Demijohn');
    await name('Demijohn', 'Crock');
  });

  it('holds each release once for staff', async () => {
    await anEvent();
    const { url } = await addressOf(given.instructor);
    const { events } = await readBack(url);
    expect(events.filter((each) => each.summary === `${title} (FER 220)`)).toHaveLength(1);
  });

  it('tells staff when it is due for all, whichever group has longer', async () => {
    const report = await released(given, { title: `Report ${count}` });
    for (const group of given.board.groups)
      await given.instructor
        .put(`/api/activities/${report.id}/extensions/${group.id}`)
        .send({ due: '2026-11-20T17:00:00.000Z', reason: 'late' })
        .expect(200);
    const { url } = await addressOf(given.instructor);
    const due = sure((await readBack(url)).of(`Due: Report ${count}`));
    expect(due.startDate.toJSDate().toISOString()).toBe('2026-11-12T17:00:00.000Z');
  });

  it('does not change by a byte while staff only write, and counts up once they publish', async () => {
    const { id, version } = await anEvent();
    const { url } = await addressOf(student('noor'));
    const before = await readBack(url);
    server.clock.pass({ minutes: 5 });
    const edited = (await given.instructor.put(`/api/activities/${id}`).send({ ...anEventDraft({ ...times, place: 'Lab 9' }), version }).expect(200)).body as ActivityView; // prettier-ignore
    expect((await readBack(url)).text).toBe(before.text);
    await given.instructor.post(`/api/activities/${id}/publish`).send({ version: edited.version }).expect(200); // prettier-ignore
    const after = sure((await readBack(url)).of(title));
    expect(after.location).toBe('Lab 9');
    expect(after.sequence).toBeGreaterThan(sure(before.of(title)).sequence);
  });

  it('is told once, is kept as a hash, and is not there once it was removed', async () => {
    const { url, addresses } = await addressOf(student('kofi'), 'Laptop');
    expect(addresses.map((each) => each.label)).toEqual(['Laptop']);
    const token = sure(/calendars\/(.+)\.ics$/.exec(url)?.[1]);
    expect(JSON.stringify(await server.rows('SELECT * FROM "calendar_address"'))).not.toContain(token);
    const listed = (await student('kofi').get('/api/calendar-addresses').expect(200))
      .body as CalendarAddresses;
    expect(JSON.stringify(listed)).not.toContain(token);
    await fetched(url).expect(200);
    // Someone else cannot end it.
    const [mine] = listed.addresses;
    await student('amina')
      .delete(`/api/calendar-addresses/${sure(mine).id}`)
      .expect(200);
    await fetched(url).expect(200);
    await student('kofi')
      .delete(`/api/calendar-addresses/${sure(mine).id}`)
      .expect(200);
    const gone = await fetched(url).expect(404);
    const never = await fetched(url.replace(token, token.replace(/^./, token.startsWith('a') ? 'b' : 'a'))).expect(404); // prettier-ignore
    expect(gone.body).toEqual(never.body);
    await fetched(url.replace('.ics', '')).expect(404);
  });

  it('of someone who left the course is as one that never was', async () => {
    const nino = sure(given.students.get('nino'));
    const { url } = await addressOf(nino.browser);
    await fetched(url).expect(200);
    await server.rows(`UPDATE "enrolment" SET "leftAt" = now() WHERE "id" = '${nino.enrolmentId}'`);
    const left = await fetched(url).expect(404);
    expect(left.body).toEqual((await fetched('http://x/api/calendars/none.ics').expect(404)).body);
    expect(left.headers['content-type']).toContain('json');
  });

  it('of which there are ten is refused another, with a sentence', async () => {
    for (let at = 0; at < 10; at += 1) await addressOf(student('jorge'), `No. ${at}`).catch(() => null);
    const refused = await student('jorge')
      .post('/api/calendar-addresses')
      .send({ label: 'One more' })
      .expect(409);
    expect((refused.body as { detail: string }).detail).toContain('Remove one that you no longer use.');
    const { addresses } = (await student('jorge').get('/api/calendar-addresses').expect(200)).body as CalendarAddresses; // prettier-ignore
    expect(addresses).toHaveLength(10);
  });
});
