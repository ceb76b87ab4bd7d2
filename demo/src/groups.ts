import type { BoardView } from '@jigsaw/contract/placing';
import { settingsOf } from '@jigsaw/contract/sets';
import type { GroupSetList, GroupSetView, SetSettings } from '@jigsaw/contract/sets';
import { sure } from '@jigsaw/core/lists';
import type { Vessel } from './people.js';
import { staff } from './people.js';
import type { Stage } from './stage.js';

/** Changes some of a set's settings; the others stay. */
export async function settle(
  { instructor }: Pick<Stage, 'instructor'>,
  set: GroupSetView,
  more: Partial<SetSettings>,
): Promise<void> {
  await instructor.patch(`sets/${set.id}`, { ...settingsOf(set), ...more });
}

/** Benches that named someone to turn to, and such as gave themselves a motto. */
const led: readonly Vessel[] = ['Crock', 'Carboy', 'Barrel', 'Firkin', 'Onggi'];
const mottos: Partial<Record<Vessel, string>> = {
  Crock: 'Salt first, ask later',
  Kvevri: 'Buried treasure',
  Onggi: 'Slow is fast enough',
};

/** The benches have leaders and mottos; each assistant leads half of them, and after the lab of theirs. */
export async function furnishBenches(stage: Stage): Promise<void> {
  const { instructor, courseId, teams, people } = stage;
  const description = 'The people you share a bench, a vessel and a report with until the tasting day.';
  await settle(stage, teams, { hasLeaders: true, membersName: true, description });
  const board = await instructor.get<BoardView>(`sets/${teams.id}/board`);
  const groupOf = (vessel: Vessel) => sure(board.groups.find((group) => group.name === vessel));
  const moves = led.flatMap((vessel) => {
    const { id } = groupOf(vessel);
    const leader = sure(board.students.find((student) => student.email === stage.seated(vessel)[0]));
    return [{ student: leader.enrolmentId, from: id, to: id, leads: { from: false, to: true } }];
  });
  await instructor.post(`sets/${teams.id}/place`, { moves });
  for (const [vessel, motto] of Object.entries(mottos)) {
    const { id, name, version } = groupOf(vessel as Vessel);
    await people
      .of(sure(stage.seated(vessel as Vessel)[1]))
      .patch(`groups/${id}/naming`, { name, motto, version });
  }

  const rules = [
    { kind: 'spread', attribute: 'Lab experience', as: 'category' },
    { kind: 'nobody-alone', attribute: 'First language' },
    { kind: 'common-time', attribute: 'Free half-days', wanted: 1 },
    { kind: 'spread', attribute: 'Timetable', as: 'category' },
    {
      kind: 'apart',
      students: ['Crock', 'Barrel'].map(
        (vessel) =>
          sure(board.students.find((student) => student.email === stage.seated(vessel as Vessel)[0]))
            .enrolmentId,
      ),
    },
  ];
  await instructor.put(`sets/${teams.id}/rules`, { rules, version: teams.version + 1 });

  const { sets } = await instructor.get<GroupSetList>(`courses/${courseId}/sets`);
  for (const set of sets) {
    const { groups, staff: all } = await instructor.get<BoardView>(`sets/${set.id}/board`);
    const half = groups.length / 2;
    const leads = groups.map((group, at) => {
      const name = staff.assistants[at < half ? 0 : 1].name;
      return {
        groupId: group.id,
        enrolmentIds: all.filter((each) => each.name === name).map((each) => each.enrolmentId),
      };
    });
    await instructor.put(`sets/${set.id}/leads`, { leads });
  }
}

/** Each bench sends someone to each table, who brings back what was learned. */
export async function meetAsExperts({ instructor, teams }: Stage): Promise<void> {
  const topics = {
    Salt: 'What each brine strength selects for',
    Temperature: 'Rates, and when to cool',
    'Starter cultures': 'What to add, and what comes by itself',
    Packaging: 'Oxygen, film and burping',
  };
  const draft = { name: 'Expert tables', topics: Object.keys(topics), most: 8, seed: 4127 };
  const set = await instructor.post<GroupSetView>(`sets/${teams.id}/experts`, draft);
  const told = Object.entries(topics).map(([name, about], at) => ({ topic: at + 1, name, about, tables: 2 }));
  await instructor.put(`sets/${set.id}/topics`, { topics: told, version: set.version });
}

/** Anyone who hands a poster in names the people they made it with. */
export async function askForPosters({ instructor, courseId }: Stage): Promise<void> {
  await instructor.post(`courses/${courseId}/sets`, {
    name: 'Poster pairs',
    shape: { by: 'hand-in' },
    capacity: 3,
    pattern: 'Poster {n}',
    names: [],
  });
}
