import { beforeEach, describe, expect, it } from '@jest/globals';
import type { ShelfView } from '@jigsaw/contract/shelf';
import type { GroupId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import { mostFiles } from '@jigsaw/core/shelf';
import { aMember, crockIsLedBy, putOnShelf } from '../test/aCourse.js';
import { follow } from '../test/following.js';
import { marker, tellAll } from '../test/marker.js';
import { practising } from '../test/practising.js';
import type { Browser } from '../test/testServer.js';
import { twoTeams } from '../test/twoTeams.js';

const teams = twoTeams('sh');
let noor: Browser;
let jorge: Browser;
let crock: GroupId;
let carboy: GroupId;
beforeEach(() => {
  [noor, jorge] = [teams.student('noor'), teams.student('jorge')];
  [crock, carboy] = teams.given.board.groups.map(({ id }) => id) as [GroupId, GroupId];
});

const put = async (name: string, content: string, by: Browser = noor) => {
  const { body } = await putOnShelf(by, crock, name, content).expect(200);
  teams.server.clock.pass({ minutes: 1 });
  return body as ShelfView;
};
const shelf = async (by: Browser = noor) => (await by.get(`/api/groups/${crock}/shelf`).expect(200)).body as ShelfView; // prettier-ignore
const idOf = ({ files }: ShelfView, name: string) => sure(files.find(({ versions }) => versions[0]?.name === name)).id; // prettier-ignore
/** “plan.txt 2 Jorge, 1 Noor” of each. */
const told = ({ files }: ShelfView) => files.map(({ versions }) => `${sure(versions[0]).name} ${versions.map(({ number, by }) => `${number} ${by.name}`).join(', ')}`); // prettier-ignore
const bytes = async (by: Browser, id: string, number: number) =>
  (await by.get(`/api/groups/${crock}/shelf/${id}/versions/${number}`).expect(200)).text;
const newer = (by: Browser, id: string, newest: number, content: string) =>
  putOnShelf(by, crock, 'plan.txt', content, `shelf/${id}/versions`).query({ newest });
const detail = ({ body }: { body: unknown }) => (body as { detail: string }).detail;
const fileRows = () => teams.server.rows('SELECT count(*) FROM "blob"'); // prettier-ignore

describe('the shelf of a group', () => {
  it('holds what its members put there, every version with who and when, what changed last first', async () => {
    await put('plan.txt', 'Salt first');
    await put('map.txt', 'Cellar');
    const now = await put('plan.txt', 'Starch first', jorge);
    expect(told(now)).toEqual(['plan.txt 2 Jorge, 1 Noor', 'map.txt 1 Noor']);
    expect(now).toEqual(await shelf(jorge));
    expect(now.files[0]?.versions[0]).toMatchObject({ at: '2026-11-10T10:02:00.000Z', sizeBytes: 12, mediaType: 'text/plain', restored: null, by: { isYou: true } }); // prettier-ignore
    const id = idOf(now, 'plan.txt');
    expect(await Promise.all([2, 1].map((number) => bytes(noor, id, number)))).toEqual(['Starch first', 'Salt first']); // prettier-ignore
    expect(now.bytes).toBe('Salt first'.length + 'Cellar'.length + 'Starch first'.length);
    await noor.get(`/api/groups/${crock}/shelf/${id}/versions/3`).expect(404);
  });

  it('holds a file once that is sent twice, and one name once where two put it there at the same time', async () => {
    await put('plan.txt', 'Salt first');
    const rows = await fileRows();
    expect(told(await put('plan.txt', 'Salt first'))).toEqual(['plan.txt 1 Noor']);
    expect(await fileRows()).toEqual(rows);
    const both = await Promise.all([putOnShelf(noor, crock, 'map.txt', 'a'), putOnShelf(jorge, crock, 'map.txt', 'b')]); // prettier-ignore
    expect(both.map(({ status }) => status)).toEqual([200, 200]);
    const [map, plan] = (await shelf()).files;
    expect([map?.versions.length, plan?.versions.length]).toEqual([2, 1]);
  });

  it('takes a version on top of what was looked at, makes an earlier one the newest again, and keeps those between', async () => {
    const id = idOf(await put('plan.txt', 'one'), 'plan.txt');
    await newer(jorge, id, 1, 'two').expect(200);
    const refused = await newer(noor, id, 1, 'mine').expect(409);
    expect(detail(refused)).toBe('There is a newer version of this file. Look at it first, then add yours.');
    const restore = (number: number, newest: number) => noor.post(`/api/groups/${crock}/shelf/${id}/versions/restore`).send({ number, newest }); // prettier-ignore
    await restore(1, 1).expect(409);
    await restore(7, 2).expect(404);
    const { files } = (await restore(1, 2).expect(200)).body as ShelfView;
    expect(files[0]?.versions.map(({ number, restored }) => [number, restored])).toEqual([[3, 1], [2, null], [1, null]]); // prettier-ignore
    expect(await bytes(jorge, id, 3)).toBe('one');
    await newer(noor, '01a22817-0000-7000-8000-000000000000', 1, 'x').expect(404);
  });

  it('lets go of a file for who put it there or an instructor, and has it again when that is undone', async () => {
    const id = idOf(await put('plan.txt', 'one'), 'plan.txt');
    const path = `/api/groups/${crock}/shelf/${id}`;
    expect(detail(await jorge.delete(path).expect(403))).toBe('Who put a file here removes it, or an instructor.'); // prettier-ignore
    for (const by of [noor, noor]) {
      const { files, removed } = (await by.delete(path).expect(200)).body as ShelfView;
      expect([files, removed]).toMatchObject([[], [{ id, name: 'plan.txt', by: { isYou: true } }]]);
    }
    expect((await shelf(jorge)).removed).toEqual([]);
    await jorge.get(`${path}/versions/1`).expect(404);
    await jorge.post(`${path}/restore`).expect(404);
    await newer(jorge, id, 1, 'two').expect(404);
    // What is put there meanwhile under its name is a file of its own.
    await put('plan.txt', 'other', jorge);
    expect(told((await noor.post(`${path}/restore`).expect(200)).body as ShelfView)).toEqual(['plan.txt 1 Jorge', 'plan.txt 1 Noor']); // prettier-ignore
    await teams.given.instructor.delete(path).expect(200);
    expect((await shelf(noor)).removed).toMatchObject([{ id, by: { isYou: false, isStaff: true } }]);
    await noor.post(`${path}/restore`).expect(200);
    expect(await bytes(jorge, id, 1)).toBe('one');
  });

  it('says what is new to each, until they have seen it', async () => {
    const news = async (by: Browser) => (await shelf(by)).files.map(({ isNew }) => isNew);
    const seen = async (by: Browser, upTo?: string) => {
      const newest = sure(sure((await shelf(by)).files[0]).versions[0]).at;
      await by
        .post(`/api/groups/${crock}/shelf/seen`)
        .send({ upTo: upTo ?? newest })
        .expect(200);
    };
    await put('plan.txt', 'one');
    expect([await news(noor), await news(jorge)]).toEqual([[false], [true]]);
    await seen(jorge);
    expect(await news(jorge)).toEqual([false]);
    await put('map.txt', 'two');
    await seen(jorge, '2026-11-10T09:00:00.000Z'); // an older page
    expect(await news(jorge)).toEqual([true, false]);
    await seen(jorge, '2031-01-01T00:00:00.000Z'); // nothing is seen before it is there
    teams.server.clock.pass({ minutes: 1 });
    await put('late.txt', 'three');
    expect(await news(jorge)).toEqual([true, false, false]);
  });

  it('is full at its limits, says so, and keeps nothing of what it refused', async () => {
    for (let at = 0; at < mostFiles; at += 1)
      await putOnShelf(noor, crock, `f${at}.txt`, `${at}`).expect(200);
    const rows = await fileRows();
    expect(detail(await putOnShelf(noor, crock, 'more.txt', 'more').expect(409))).toMatch(/Remove one/);
    expect(await fileRows()).toEqual(rows);
    const id = idOf(await shelf(), 'f1.txt');
    await noor.delete(`/api/groups/${crock}/shelf/${id}`).expect(200);
    await put('more.txt', 'more');
    expect(detail(await noor.post(`/api/groups/${crock}/shelf/${id}/restore`).expect(409))).toMatch(/Remove one/); // prettier-ignore
    await teams.server.rows(`UPDATE "file" SET "sizeBytes" = 1024 * 1024 * 1024 WHERE "name" = 'f2.txt'`);
    expect(detail(await putOnShelf(noor, crock, 'f3.txt', 'longer').expect(409))).toMatch(/1 GB is the most/);
    expect((await shelf()).files).toHaveLength(mostFiles);
  }, 60_000);

  it('keeps nothing where the disk is full, says so, and goes on when there is space again', async () => {
    await put('plan.txt', 'one');
    const before = await fileRows();
    await teams.server.rows(`CREATE FUNCTION full_disk() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN RAISE EXCEPTION 'no space left' USING ERRCODE = 'disk_full'; END $$`); // prettier-ignore
    const at = ['blob_chunk', 'shelf_version'];
    for (const table of at) {
      await teams.server.rows(`CREATE TRIGGER full_disk BEFORE INSERT ON "${table}" FOR EACH ROW EXECUTE FUNCTION full_disk()`); // prettier-ignore
      expect(detail(await putOnShelf(noor, crock, 'map.txt', 'two').expect(507))).toBe('The server has no space left. Nothing was changed; keep what you have, and tell the people who run it.'); // prettier-ignore
      await teams.server.rows(`DROP TRIGGER full_disk ON "${table}"`);
      expect(await fileRows()).toEqual(before);
    }
    expect(told(await shelf())).toEqual(['plan.txt 1 Noor']);
    expect(told(await put('map.txt', 'two'))).toEqual(['map.txt 1 Noor', 'plan.txt 1 Noor']);
  });
});

describe('who sees it', () => {
  it('is those in the group, and staff who see its work: they read and put nothing there', async () => {
    const id = idOf(await put('plan.txt', 'one'), 'plan.txt');
    const assistant = await aMember(teams.server, teams.given, `tomas${teams.count}`, 'assistant');
    const observer = await aMember(teams.server, teams.given, `olga${teams.count}`, 'observer');
    for (const by of [teams.given.instructor, assistant, observer]) {
      expect(await shelf(by)).toMatchObject({ mayPut: false, files: [{ versions: [{ by: { name: 'Noor' } }] }] }); // prettier-ignore
      expect(await bytes(by, id, 1)).toBe('one');
      expect(detail(await putOnShelf(by, crock, 'a.txt', 'a').expect(403))).toMatch(/Members of the group/);
    }
    await assistant.delete(`/api/groups/${crock}/shelf/${id}`).expect(403);
    await crockIsLedBy(teams.given, `Tomas${teams.count}`);
    await shelf(assistant);
    await assistant.get(`/api/groups/${carboy}/shelf`).expect(404);
  });

  it('is no one else, by any route, nor a member who has moved on', async () => {
    const id = idOf(await put('plan.txt', 'one'), 'plan.txt');
    const all = async (by: Browser, status: number) => {
      const path = `/api/groups/${crock}/shelf`;
      await by.get(path).expect(status);
      await by.get(`${path}/${id}/versions/1`).expect(status);
      await putOnShelf(by, crock, 'a.txt', 'a').expect(status);
      await newer(by, id, 1, 'x').expect(status);
      await by.post(`${path}/${id}/versions/restore`).send({ number: 1, newest: 1 }).expect(status);
      await by.delete(`${path}/${id}`).expect(status);
      await by.post(`${path}/${id}/restore`).expect(status);
      await by.post(`${path}/seen`).send({ upTo: '2026-11-10T10:00:00.000Z' }).expect(status);
    };
    await all(teams.student('amina'), 404);
    await all(teams.server.browser(), 401);
    // By the address of one's own group another's file is not there.
    await teams.student('amina').get(`/api/groups/${carboy}/shelf/${id}/versions/1`).expect(404);
    await teams.student('amina').delete(`/api/groups/${carboy}/shelf/${id}`).expect(404);
    const move = { student: sure(teams.given.students.get('noor')).enrolmentId, from: crock, to: carboy };
    await teams.given.instructor.post(`/api/sets/${teams.given.set.id}/place`).send({ moves: [move] }).expect(200); // prettier-ignore
    await all(noor, 404);
    expect(told(await shelf(jorge))).toEqual(['plan.txt 1 Noor']);
  });

  it('is not who practises: they find an empty shelf, and no way to what the members share', async () => {
    const id = idOf(await put('plan.txt', 'one'), 'plan.txt');
    await teams.given.instructor.post(`/api/courses/${teams.given.course.id}/practice`).send({ groupId: crock }).expect(200); // prettier-ignore
    const practice = practising(teams.given.instructor, crock);
    expect(await shelf(practice)).toEqual({ files: [], removed: [], mayPut: false, bytes: 0 });
    await practice.get(`/api/groups/${crock}/shelf/${id}/versions/1`).expect(404);
    expect((await putOnShelf(practice, crock, 'a.txt', 'a')).status).toBe(403);
  });

  it('hears of it: the group and its staff, and no one of another group', async () => {
    const tomas = await aMember(teams.server, teams.given, `tomas${teams.count}`, 'assistant');
    const bea = await aMember(teams.server, teams.given, `bea${teams.count}`, 'assistant');
    await crockIsLedBy(teams.given, `Tomas${teams.count}`);
    const open = await Promise.all([jorge, teams.given.instructor, tomas, teams.student('amina'), bea].map((by) => follow(by, teams.given.course.id))); // prettier-ignore
    await put('plan.txt', 'one');
    await tellAll(teams.server, teams.given.course.id);
    const heard = await Promise.all(
      open.map(async (page) => (await page.until(marker)).filter((type) => type.startsWith('shelf'))),
    );
    expect(heard).toEqual([['shelf-file.added'], ['shelf-file.added'], ['shelf-file.added'], [], []]);
    for (const page of open) page.stop();
  });
});
