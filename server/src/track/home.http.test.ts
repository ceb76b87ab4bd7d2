import { beforeEach, describe, expect, it } from '@jest/globals';
import type { Home } from '@jigsaw/contract/track';
import { sure } from '@jigsaw/core/lists';
import { aCourse, aMember, copyOf, released } from '../test/aCourse.js';
import type { Browser } from '../test/testServer.js';
import { twoTeams } from '../test/twoTeams.js';

const teams = twoTeams('ho');
let noor: Browser;
beforeEach(() => {
  noor = teams.student('noor');
});

const home = async (by: Browser) => (await by.get('/api/home').expect(200)).body as Home;
const titles = ({ due }: Home) => due.map(({ title }) => title);

describe('where someone begins', () => {
  it('tells a student what they owe, the first due first, with the time that they have been given', async () => {
    const { instructor } = teams.given;
    await released(teams.given, {
      title: 'Later',
      schedule: { opens: null, due: '2026-11-20T17:00:00.000Z', closes: null },
    });
    await released(teams.given, { title: 'No day', schedule: { opens: null, due: null, closes: null } });
    const soon = await released(teams.given, {
      title: 'Soon',
      schedule: { opens: null, due: '2026-11-12T17:00:00.000Z', closes: null },
    });
    expect(titles(await home(noor))).toEqual(['Soon', 'Later', 'No day']);
    const [crock] = teams.given.board.groups;
    await instructor.put(`/api/activities/${soon.id}/extensions/${sure(crock).id}`).send({ due: '2026-11-25T17:00:00.000Z', reason: 'Their jar broke' }).expect(200); // prettier-ignore
    expect(titles(await home(noor))).toEqual(['Later', 'Soon', 'No day']);
    expect((await home(noor)).due[1]).toMatchObject({ due: '2026-11-25T17:00:00.000Z', isExtended: true, groupName: sure(crock).name }); // prettier-ignore
    expect(titles(await home(teams.student('amina')))).toEqual(['Soon', 'Later', 'No day']);
    const copyId = await copyOf(noor, teams.given.course.id, 'Later');
    expect((await home(noor)).due.map((line) => line.copyId)).toContain(copyId);
    expect((await home(noor)).courses).toMatchObject([{ courseId: teams.given.course.id, figures: { kind: 'student', due: 3 } }]); // prettier-ignore
  });

  it('tells staff what needs them, and nothing of what is due', async () => {
    await released(teams.given, { title: 'Later' });
    const { courses, due } = await home(teams.given.instructor);
    expect([courses, due]).toMatchObject([[{ figures: { kind: 'staff', unplaced: 1 } }], []]);
  });

  it('tells of no course that is not theirs any more, or never was, and of nothing not released to them', async () => {
    const other = await aCourse(teams.server, { email: `rui@ho${teams.count}b.example`, school: `ho${teams.count}b.example` }); // prettier-ignore
    await released(other, { title: 'Elsewhere' });
    await released(teams.given, { title: 'Here' });
    const olga = await aMember(teams.server, teams.given, `olga${teams.count}`, 'observer');
    for (const by of [noor, olga])
      expect((await home(by)).courses.map(({ courseId }) => courseId)).toEqual([teams.given.course.id]);
    expect(titles(await home(noor))).toEqual(['Here']);
    expect(titles(await home(teams.student('nino')))).toEqual([]);
    const { enrolmentId } = sure(teams.given.students.get('noor'));
    await teams.given.instructor.post(`/api/courses/${teams.given.course.id}/roster/changes`).send({ act: 'drop', enrolmentIds: [enrolmentId] }).expect(200); // prettier-ignore
    expect(await home(noor)).toEqual({ courses: [], due: [] });
    await teams.server.browser().get('/api/home').expect(401);
  });

  it('belongs to its owner: who sits in as a student is not told of it', async () => {
    const { enrolmentId } = sure(teams.given.students.get('noor'));
    await teams.given.instructor.get(`/sit-in/${enrolmentId}/api/courses/${teams.given.course.id}/figures`).expect(200); // prettier-ignore
    await teams.given.instructor.get(`/sit-in/${enrolmentId}/api/home`).expect(404);
  });
});
