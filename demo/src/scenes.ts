import type { PostView } from '@jigsaw/contract/discussion';
import type { Lately, RoomLines } from '@jigsaw/contract/rooms';
import type { PageView, WikiView } from '@jigsaw/contract/wiki';
import { v7 as uuid } from 'uuid';
import { sure } from '@jigsaw/core/lists';
import type { Client } from './client.js';
import { blankPage, filledPrompt, growth, logBrief, logPrompt, saltMistake } from './log.js';
import type { Vessel } from './people.js';
import { staff, vessels } from './people.js';
import { reportRubric } from './rubricOfReport.js';
import type { Stage } from './stage.js';
import { copiesOf, release, roomsOf, write } from './stage.js';
import { answer, askTheLab, benchTalk, critique, staffWord } from './talk.js';
import { briefs, moreBriefs, text } from './texts.js';
import type { AudienceView } from '@jigsaw/contract/audiences';
import { someGroups, theClass } from '@jigsaw/core/release';

const post = (client: Client, copyId: string, parentId: string | null, said: object) =>
  client.post<PostView>(`copies/${copyId}/posts`, { id: uuid(), parentId, text: said });
export const hour = (first: number, at: number, step: number) =>
  `${String(first + ((at * step) % 12)).padStart(2, '0')}:${10 + ((at * 17) % 45)}`;

/** Due tomorrow: most have written, some shortly, some not at all, and the answers come in. */
export async function tastingCritique(stage: Stage): Promise<void> {
  const { instructor, people, courseId, clock, seated } = stage;
  const title = 'Week 3 tasting critique';
  clock.daysAgo(6, '09:10');
  const settings = { posts: 1, postWords: 120, replies: 2, replyWords: 40 };
  const { rooms } = await roomsOf(instructor, courseId, 'staff');
  const salted = rooms.filter(({ group }) => group.name === 'Amphora' || group.name === 'Onggi');
  await release(
    stage,
    await write(stage, {
      kind: 'discussion',
      title,
      brief: moreBriefs.critique(salted.map(({ group }) => group.id)),
      points: '10',
      due: clock.inDays(1, '17:00'),
      settings,
    }),
  );
  const copies = await copiesOf(instructor, courseId, title);
  for (const [at, vessel] of vessels.entries()) {
    const { copyId } = sure(copies.get(vessel));
    const members = seated(vessel);
    const opened: { readonly seat: number; readonly id: string }[] = [];
    for (const [seat, email] of members.entries()) {
      if ((seat + at) % 4 === 2) continue; // has not written yet
      clock.daysAgo(4 - ((seat + at) % 3), hour(9, seat + at, 4));
      const { id } = await post(
        people.of(email),
        copyId,
        null,
        critique(vessel, at + seat * 3, (seat + at) % 5 === 4),
      );
      opened.push({ seat, id });
    }
    for (const [seat, email] of members.entries()) {
      for (const { id, seat: wrote } of opened.filter((each) => each.seat !== seat).slice(0, 2)) {
        if ((seat + wrote + at) % 3 === 0) continue;
        clock.daysAgo(1, hour(10, seat * 3 + wrote + at, 5));
        await post(people.of(email), copyId, id, answer(at + seat + wrote, (seat + at + wrote) % 4 === 1));
      }
    }
    if (vessel === 'Crock' && opened[0]) {
      clock.daysAgo(1, '12:40');
      await post(instructor, copyId, opened[0].id, text(staffWord));
    }
  }
}

/** Three talks that are not marked: benches reading along, some benches only, and one place for the class. */
export async function openTalks(stage: Stage): Promise<void> {
  const { instructor, people, courseId, clock, seated, teams } = stage;
  clock.weeksAgo(6, 'Mon 11:00');
  await release(
    stage,
    await write(stage, { kind: 'discussion', title: 'Bench talk', brief: moreBriefs.benchTalk }),
    { mode: 'read-along' },
  );
  const talks = await copiesOf(instructor, courseId, 'Bench talk');
  for (const [at, said] of benchTalk.entries()) {
    const vessel = sure((['Crock', 'Tun', 'Firkin'] as const)[at]);
    const { copyId } = sure(talks.get(vessel));
    const members = seated(vessel);
    clock.weeksAgo(3 - at, `Tue ${10 + at}:20`);
    const first = await post(people.of(sure(members[0])), copyId, null, text(said.opens));
    for (const [which, words] of said.answers.entries()) {
      clock.weeksAgo(3 - at, `Wed ${9 + which}:05`);
      await post(
        which === said.answers.length - 1 && which > 0 ? instructor : people.of(sure(members[1 + which])),
        copyId,
        first.id,
        text(words),
      );
    }
  }

  clock.weeksAgo(5, 'Tue 08:30');
  const groupIds = [...talks]
    .filter(([name]) => ['Crock', 'Kvevri', 'Onggi'].includes(name))
    .map(([, item]) => item.copyId);
  const { rooms } = await roomsOf(instructor, courseId, 'staff');
  const some = rooms
    .filter((room) => room.items.some((item) => groupIds.includes(item.copyId)))
    .map((room) => room.group.id);
  const benches = await instructor.post<AudienceView>(`courses/${courseId}/audiences`, {
    name: 'Kombucha and kefir benches',
    ...someGroups(teams.id, some),
  });
  await instructor.post<AudienceView>(`courses/${courseId}/audiences`, {
    name: 'Evening students',
    include: [{ kind: 'attribute', name: 'Timetable', test: 'is', value: 'evening' }],
    exclude: [],
  });
  await release(
    stage,
    await write(stage, {
      kind: 'discussion',
      title: 'Kombucha and kefir benches',
      brief: moreBriefs.kombucha,
    }),
    {
      to: { include: [{ kind: 'audience', audienceId: benches.id }], exclude: [] },
      mode: 'common',
      outsiders: 'listed',
    },
  );
  const mothers = sure(
    (await copiesOf(instructor, courseId, 'Kombucha and kefir benches')).get('Kombucha and kefir benches'),
  ).copyId;
  clock.weeksAgo(2, 'Mon 13:15');
  const spare = await post(
    people.of(sure(seated('Kvevri')[0])),
    mothers,
    null,
    text('Our mother has doubled. Who wants half of it before she takes over the jar?'),
  );
  clock.weeksAgo(2, 'Mon 18:50');
  await post(
    people.of(sure(seated('Onggi')[1])),
    mothers,
    spare.id,
    text('We do. I bring a jar on Tuesday and a cloth to cover her on the way.'),
  );

  clock.weeksAgo(6, 'Mon 11:10');
  await release(
    stage,
    await write(stage, { kind: 'discussion', title: 'Ask the lab', brief: moreBriefs.ask }),
    { to: theClass, mode: 'common' },
  );
  const ask = sure((await copiesOf(instructor, courseId, 'Ask the lab')).get('Ask the lab')).copyId;
  for (const [at, { asks, answers }] of askTheLab.entries()) {
    clock.daysAgo(9 - at * 3, '10:25');
    const question = await post(
      people.of(sure(seated(sure((['Flask', 'Stoneware', 'Barrel'] as const)[at]))[0])),
      ask,
      null,
      text(asks),
    );
    if (answers === null) continue;
    clock.daysAgo(9 - at * 3, '16:40');
    await post(instructor, ask, question.id, text(answers));
  }
}

/** Every bench's log: all members save, one page is blanked and restored, and one page leads to another. */
export async function starterLog(stage: Stage): Promise<void> {
  const { instructor, people, courseId, clock, seated } = stage;
  const title = 'Starter culture log';
  clock.weeksAgo(4, 'Mon 10:00');
  const activity = await write(stage, {
    kind: 'wiki',
    title,
    brief: logBrief,
    points: '20',
    due: clock.inDays(16, '17:00'),
    settings: logPrompt,
  });
  await release(stage, activity);
  const copies = await copiesOf(instructor, courseId, title);
  for (const [at, vessel] of vessels.entries()) {
    const wiki = `copies/${sure(copies.get(vessel)).copyId}/wiki`;
    const members = seated(vessel).map((email) => people.of(email));
    if (members.length < 2) continue;
    const prompt = sure((await instructor.get<WikiView>(wiki)).pages[0]).id;
    const save = (by: number, page: string, saved: { title: string; text: object }, basedOn: number) =>
      sure(members[by % members.length]).put<PageView>(`${wiki}/pages/${page}`, { ...saved, basedOn });

    clock.weeksAgo(3, `Mon ${10 + (at % 8)}:30`);
    await save(0, prompt, { title: logPrompt.promptTitle, text: filledPrompt(vessel) }, 1);
    if (at % 4 === 3) continue; // has not come further yet
    const days = uuid();
    clock.daysAgo(10, '09:00');
    await sure(members[1]).post(`${wiki}/pages`, { id: days, title: 'Days 15 to 28' });
    const saves = growth(vessel, members.length, vessel === 'Crock' ? 8 : 3 + (at % 4));
    let revision = 1;
    for (const { by, title: pageTitle, text: pageText, daysAgo, at: time } of saves) {
      clock.daysAgo(daysAgo, time);
      revision = (await save(by, days, { title: pageTitle, text: pageText }, revision)).revision;
    }
    if (vessel !== 'Crock' && vessel !== 'Carboy') continue;
    if (vessel === 'Crock') {
      // Someone blanks the page by mistake and the next one brings it back.
      const before = sure(saves.at(-1));
      clock.daysAgo(1, '20:55');
      revision = (await save(2, days, { title: before.title, text: blankPage }, revision)).revision;
      clock.daysAgo(1, '21:10');
      await save(3, days, { title: before.title, text: before.text }, revision);
    }
    const mistake = uuid();
    clock.daysAgo(7, '18:20');
    await sure(members[0]).post(`${wiki}/pages`, { id: mistake, title: 'The salt mistake' });
    clock.daysAgo(7, '18:31');
    await save(0, mistake, { title: 'The salt mistake', text: saltMistake(days) }, 1);
  }
}

export async function releaseReport(stage: Stage): Promise<void> {
  stage.clock.weeksAgo(4, 'Mon 09:30');
  const settings = {
    by: 'group',
    mostFiles: 6,
    types: ['pdf', 'docx', 'md', 'csv'],
    largestMb: 20,
    attempts: 'latest',
  };
  const due = stage.clock.at(1, 'Fri 17:00');
  const report = await write(stage, {
    kind: 'folder',
    title: 'Ferment report',
    brief: briefs.report,
    points: '40',
    due,
    settings,
    rubric: reportRubric,
  });
  await release(stage, report);
  const { rooms } = await roomsOf(stage.instructor, stage.courseId, 'staff');
  const cask = sure(rooms.find((room) => room.group.name === 'Cask')).group.id;
  const firkin = sure(rooms.find((room) => room.group.name === 'Firkin'));
  stage.clock.weeksAgo(1, 'Wed 10:15');
  await stage.instructor.put(`activities/${report.id}/extensions/${cask}`, {
    due: stage.clock.at(1, 'Sun 17:00'),
    reason: 'Their crock cracked in week 4 and was set up anew',
  });
  await stage.instructor.put(
    `activities/${report.id}/student-extensions/${sure(firkin.members[0]).enrolmentId}`,
    { due: stage.clock.at(0, 'Mon 17:00'), reason: 'In hospital until Saturday' },
  );
}

/** The practice student is made ready in one group: what reaches it has its second copies. */
export async function practise({ instructor, courseId }: Stage, vessel: Vessel): Promise<void> {
  const { lines } = await instructor.get<RoomLines>(`courses/${courseId}/room-lines`);
  const { group } = sure(lines.find((line) => line.group.name === vessel));
  await instructor.post(`courses/${courseId}/practice`, { groupId: group.id });
}

/** What staff note about two benches, for themselves. */
export async function noteSome({ instructor, people, courseId, clock }: Stage): Promise<void> {
  const { lines } = await instructor.get<RoomLines>(`courses/${courseId}/room-lines`);
  const groupOf = (vessel: Vessel) => sure(lines.find((line) => line.group.name === vessel)).group.id;
  const note = async (by: Client, vessel: Vessel, text: string, member: number | null = null) => {
    const { members } = await by.get<Lately>(`groups/${groupOf(vessel)}/lately`);
    const about = member === null ? null : sure(members[member]).enrolmentId;
    await by.post(`groups/${groupOf(vessel)}/notes`, { id: uuid(), text, about });
  };
  clock.daysAgo(9, '15:40');
  await note(
    instructor,
    'Cask',
    'Their crock cracked in week 4. A second one stands in the cellar, labelled 12.',
  );
  clock.daysAgo(4, '11:05');
  await note(people.of(sure(staff.assistants[0]).email), 'Cask', 'Does most of the measuring and says little. Ask for the others’ numbers, too.', 0); // prettier-ignore
  await note(instructor, 'Onggi', 'Two of three read the meter differently. Look at their log together on Thursday.'); // prettier-ignore
}
