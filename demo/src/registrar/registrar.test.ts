import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from '@jest/globals';
import { unzipSync } from 'fflate';
import { sure } from '@jigsaw/core/lists';
import { readBundle } from '@jigsaw/core/roster';
import type { Enrolled } from './index.js';
import { openRegistrar, School } from './index.js';

const aPerson = (name: string, more: Partial<Enrolled> = {}): Enrolled => ({
  name,
  familyName: '',
  email: `${sure(name.split(' ')[0]).toLowerCase()}@b.example`,
  number: '',
  reading: '',
  role: 'student',
  section: 'tue',
  ...more,
});
const course = {
  code: 'FER 220',
  title: 'Applied Fermentation',
  sections: [
    { id: 'tue', title: 'Tuesday lab' },
    { id: 'thu', title: 'Thursday lab' },
  ],
  people: [
    aPerson('Ilse Marrow', { role: 'teacher', familyName: 'Marrow', section: null }),
    aPerson('Noor Haddad', { familyName: 'Haddad' }),
    aPerson('한서연', { familyName: '한', reading: 'Han Seo-yeon', email: 'han@b.example', section: 'thu' }),
  ],
};

let school: School;
let registrar: Awaited<ReturnType<typeof openRegistrar>>;
beforeEach(async () => {
  school = new School();
  school.put(course);
  registrar = await openRegistrar(school, 0);
});
afterEach(() => registrar.close());

const at = (where: string) => `${registrar.url}${where}`;
const press = (where: string, form: Record<string, string>) =>
  fetch(at(where), { method: 'POST', body: new URLSearchParams(form), redirect: 'manual' });
async function listed() {
  const answer = await fetch(at('/courses/FER%20220/roster.zip'));
  const read = readBundle(new Map(Object.entries(unzipSync(new Uint8Array(await answer.arrayBuffer())))));
  if (!read.ok) throw new Error(read.code);
  return read.table.rows.map((row) => row.cells.join('|'));
}

describe('the registrar’s stand-in', () => {
  it('gives a course as a bundle that is read as it was meant', async () => {
    expect(await listed()).toEqual([
      'ilse@b.example|Ilse|Marrow|||teacher|',
      'noor@b.example|Noor|Haddad|||student|Tuesday lab',
      'han@b.example|한서연||Han Seo-yeon||student|Thursday lab',
    ]);
  });

  it('names to a teacher only what they teach', async () => {
    const of = async (teacher: string) =>
      ((await (await fetch(at(`/courses.json?teacher=${teacher}`))).json()) as { courses: unknown[] })
        .courses;
    expect(await of('ILSE@b.example')).toEqual([
      { code: 'FER 220', title: 'Applied Fermentation', people: 3 },
    ]);
    expect(await of('noor@b.example')).toEqual([]);
  });

  it('lets people join, leave and change sections by its page', async () => {
    expect(
      (await press('/courses/FER%20220/enrol', { name: 'Hana <b>', email: 'hana@b.example', section: 'thu' }))
        .status,
    ).toBe(303);
    await press('/courses/FER%20220/seat', { email: 'noor@b.example', section: 'thu' });
    await press('/courses/FER%20220/drop', { email: 'han@b.example' });
    expect((await listed()).slice(1)).toEqual([
      'noor@b.example|Noor|Haddad|||student|Thursday lab',
      'hana@b.example|Hana <b>||||student|Thursday lab',
    ]);
    expect(await (await fetch(at('/courses/FER%20220'))).text()).toContain('Hana &lt;b&gt;');
    expect((await press('/courses/FER%20220/enrol', { name: '', email: 'no one' })).status).toBe(422);
  });

  it('can be away or talk nonsense, but its own page stays', async () => {
    await press('/mood', { mood: 'away' });
    expect((await fetch(at('/courses/FER%20220/roster.zip'))).status).toBe(503);
    await press('/mood', { mood: 'nonsense' });
    expect(await (await fetch(at('/courses.json?teacher=x'))).text()).toContain('Welcome');
    expect((await fetch(at('/'))).status).toBe(200);
  });

  it('keeps what happened over a restart', async () => {
    const folder = mkdtempSync(path.join(os.tmpdir(), 'registrar-'));
    const file = path.join(folder, 'registrar.json');
    new School(file).put(course);
    const again = new School(file);
    again.drop('FER 220', 'noor@b.example');
    expect(sure(new School(file).find('FER 220')).people.map((person) => person.email)).toEqual([
      'ilse@b.example',
      'han@b.example',
    ]);
    expect(readFileSync(file, 'utf8')).toContain('Tuesday lab');
    rmSync(folder, { recursive: true });
  });

  it('takes another port where someone has its own', async () => {
    const second = await openRegistrar(school, Number(new URL(registrar.url).port));
    expect(second.url).not.toBe(registrar.url);
    await second.close();
  });
});
