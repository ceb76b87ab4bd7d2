import type { DeskView } from '@jigsaw/contract/marks';
import type { RosterView } from '@jigsaw/contract/roster';
import { sure } from '@jigsaw/core/lists';
import { certificate } from './certificate.js';
import type { Client } from './client.js';
import type { Vessel } from './people.js';
import { vessels } from './people.js';
import type { ReportPoints } from './rubricOfReport.js';
import { picksFor } from './rubricOfReport.js';
import type { Stage } from './stage.js';
import { copiesOf, mark, release, roomsOf, write } from './stage.js';
import { moreBriefs, readingsCsv, reportText } from './texts.js';
import { hour } from './scenes.js';

/** Onggi hands nothing in; Firkin is a day late; Barrel is three hours late; Cask hands in within its longer time. */
export async function handInReports(stage: Stage, nameOf: (email: string) => string): Promise<void> {
  const { instructor, people, courseId, clock, seated } = stage;
  const copies = await copiesOf(instructor, courseId, 'Ferment report');
  const late: Partial<Record<Vessel, string>> = {
    Firkin: 'Sat 21:05',
    Barrel: 'Fri 19:40',
    Cask: 'Sun 11:20',
  };
  for (const [at, vessel] of vessels.entries()) {
    const files = `copies/${sure(copies.get(vessel)).copyId}/files`;
    const members = seated(vessel);
    clock.weeksAgo(
      1,
      late[vessel] ?? `${at % 2 ? 'Thu' : 'Fri'} ${String(9 + (at % 7)).padStart(2, '0')}:2${at % 10}`,
    );
    // In Tun one member puts nothing in.
    await people
      .of(members[1] ?? sure(members[0]))
      .upload(files, `${vessel.toLowerCase()}-readings.csv`, 'text/csv', readingsCsv(vessel));
    if (vessel === 'Onggi') continue;
    await people
      .of(sure(members[0]))
      .upload(
        files,
        `${vessel.toLowerCase()}-ferment-report.md`,
        'text/markdown',
        reportText(vessel, members.map(nameOf)),
      );
    if (members[2] && vessel !== 'Tun')
      await people
        .of(members[2])
        .upload(files, `${vessel.toLowerCase()}-panel.csv`, 'text/csv', panelCsv(at));
    await people
      .of(sure(members[0]))
      .post(`copies/${sure(copies.get(vessel)).copyId}/hand-in`, { attempt: 1 });
  }
}

const panelCsv = (at: number) =>
  `taster,sour,salt,fizz,again\n${Array.from({ length: 6 }, (_, taster) => `T${taster + 1},${3 + ((at + taster) % 3)},${2 + ((at * taster) % 3)},${1 + ((at + taster * 2) % 4)},${(at + taster) % 4 === 0 ? 'no' : 'yes'}`).join('\n')}\n`;

/** Five benches are marked by the rubric, three of them released; one number stands in place of the rubric's. */
export async function markReports(stage: Stage): Promise<void> {
  const copies = await copiesOf(stage.instructor, stage.courseId, 'Ferment report');
  const sheet = (
    vessel: Vessel,
    points: ReportPoints,
    isReleased: boolean,
    more: Parameters<typeof mark>[4] = {},
    comments: Record<string, string> = {},
  ) =>
    mark(stage, sure(copies.get(vessel)).copyId, 'group', isReleased, {
      picks: picksFor(points, comments),
      ...more,
    });
  const good =
    'The control earns its place: you say what it rules out before you show it. Next time test the rival cause too.';
  stage.clock.daysAgo(2, '15:30');
  await sheet(
    'Carboy',
    ['7', '6.5', '6', '6.5', '7'],
    true,
    { feedback: good },
    {
      method: 'The control is argued, not only kept.',
      meaning: 'Two causes weighed; the warm shelf is a third.',
    },
  );
  await sheet(
    'Demijohn',
    ['8', '7', '7', '7', '7'],
    true,
    { feedback: good },
    { kinetics: 'The fit says where it stops being one. Rare and right.' },
  );
  await sheet('Tun', ['6', '6', '6', '7', '5'], true, {
    feedback: 'Sound method. The panel is tied to the figures well.',
    adjust: {
      name: 'Fergus MacAllan',
      by: '-6',
      reason: 'Agreed with the bench: nothing put in and two weighings missed',
    },
  });
  await sheet('Stoneware', ['6', '6', '6', '5', '5'], false, {
    typedMark: '30',
    overrideReason: 'The second trial they added is not in the rubric',
    feedback: 'Good curve. Figure 2 needs its unit.',
  });
  await sheet('Kvevri', ['6', '5.5', '5', '6', '6'], false, {
    feedback: 'Interpretation stops at the first cause that fits.',
  });
}

/** Each student hands in alone; about half have. */
export async function certificates(stage: Stage): Promise<void> {
  const { instructor, people, courseId, clock, seated } = stage;
  const title = 'Hygiene certificate';
  clock.weeksAgo(2, 'Mon 08:00');
  const settings = { by: 'student', mostFiles: 1, types: ['pdf'], largestMb: 5, attempts: 'one' };
  await release(
    stage,
    await write(stage, {
      kind: 'folder',
      title,
      brief: moreBriefs.certificate,
      points: '2',
      due: clock.inDays(8, '12:00'),
      settings,
    }),
  );
  const copies = await copiesOf(instructor, courseId, title);
  const roster = await instructor.get<RosterView>(`courses/${courseId}/roster`);
  for (const [at, vessel] of vessels.entries()) {
    const { copyId } = sure(copies.get(vessel));
    for (const [seat, email] of seated(vessel).entries()) {
      if ((at + seat) % 2 === 1) continue;
      const entry = sure(roster.entries.find((each) => each.email === email));
      const client = people.of(email);
      clock.daysAgo(1 + ((at + seat) % 9), hour(8, at + seat, 5));
      await client.upload(
        `copies/${copyId}/files`,
        'certificate.pdf',
        'application/pdf',
        await certificate(entry.reading ?? entry.name, at * 10 + seat),
      );
      await client.post(`copies/${copyId}/hand-in`, { attempt: 1 });
    }
  }
}

/** Two students of the critique have a mark already. */
export async function markCritiques(stage: Stage): Promise<void> {
  const { activities } = await stage.instructor.get<{ activities: { releaseId: string; title: string }[] }>(
    `courses/${stage.courseId}/desk`,
  );
  const { releaseId } = sure(activities.find((each) => each.title === 'Week 3 tasting critique'));
  const { rows } = await stage.instructor.get<DeskView>(`releases/${releaseId}/desk`);
  stage.clock.daysAgo(0, '07:30');
  for (const row of rows.filter((each) => each.needsYou).slice(0, 3))
    await mark(stage, row.copyId, row.unit, false, {
      typedMark: '9',
      feedback: 'Exact about the nose. Say more of the after.',
    });
}

/** Most has been read by everyone; what came last has not. */
export async function readMost({ instructor, people, courseId, clock, seated }: Stage): Promise<void> {
  const see = async (client: Client, isLeft: (at: number) => boolean) => {
    const { rooms, common } = await roomsOf(client, courseId, client === instructor ? 'staff' : 'member');
    const items = [...rooms.flatMap((room) => room.items), ...common].filter((item) => item.unread > 0);
    for (const [at, { copyId }] of items.entries())
      if (!isLeft(at)) await client.post(`copies/${copyId}/seen`, { what: 'all' });
  };
  clock.daysAgo(0, '07:00');
  await see(instructor, (at) => at % 6 === 3);
  for (const vessel of vessels)
    for (const [seat, email] of seated(vessel).entries())
      await see(people.of(email), (at) => (at + seat) % 3 === 1);
}
