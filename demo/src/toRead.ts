import { v7 as uuid } from 'uuid';
import type { BoardView } from '@jigsaw/contract/placing';
import type { ActivityView } from '@jigsaw/contract/release';
import { inTurn } from '@jigsaw/core/calendar';
import { sure } from '@jigsaw/core/lists';
import { someGroups, theClass } from '@jigsaw/core/release';
import type { Stage } from './stage.js';
import { attach, copiesOf, release, write } from './stage.js';
import { text } from './texts.js';

const minuteOf = (time: string) => Number(time.slice(0, 2)) * 60 + Number(time.slice(3));
const timeOf = (minute: number) =>
  `${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`;
const toAll = { to: theClass, mode: 'common' } as const;

/** A place for each bench to meet; Crock met there this week, and one of them is in. */
export async function benchCalls(stage: Stage): Promise<void> {
  const { instructor, people, courseId, clock, seated } = stage;
  clock.weeksAgo(5, 'Mon 12:00');
  const title = 'Bench call';
  await release(
    stage,
    await write(stage, {
      kind: 'call',
      title,
      brief: text('Meet here when you are not at the bench. It is yours all term.'),
    }),
  );
  const { copyId } = sure((await copiesOf(instructor, courseId, title)).get('Crock'));
  const members = seated('Crock').map((email) => people.of(email));
  const visit = async (by: number, days: number, from: string, to: string) => {
    const id = uuid();
    const path = `copies/${copyId}/call/visits`;
    const [begins, ends] = [minuteOf(from), minuteOf(to)];
    clock.daysAgo(days, from);
    await sure(members[by]).post(path, { id });
    // An open page is heard of every half minute; here once a minute is enough.
    for (let minute = begins + 1; minute <= ends; minute += 1) {
      clock.daysAgo(days, timeOf(minute));
      await sure(members[by]).put(`${path}/${id}`, {});
    }
    await sure(members[by]).delete(`${path}/${id}`);
  };
  await visit(1, 5, '16:00', '16:52');
  await visit(3, 5, '16:04', '16:52');
  await visit(0, 3, '12:10', '12:45');
  await visit(2, 2, '19:20', '19:45');
  await visit(1, 1, '17:00', '18:10');
  await visit(3, 1, '17:02', '18:10');
}

/** The salt of every vessel, as a file and a page that all may use. */
export async function thingsToUse(stage: Stage): Promise<void> {
  const { clock } = stage;
  clock.weeksAgo(6, 'Mon 09:00');
  const written = {
    kind: 'resource',
    title: 'Salt tables',
    brief: text('How much salt a vessel takes, by its volume and the water that your vegetable gives.'),
    settings: {
      link: 'https://quillmere.example/fermentation/salt',
      linkName: 'The tables on the lab’s own page',
    },
  };
  const resource = await write(stage, written);
  const table = ['litres,salt at 2 %,salt at 3 %', '1,20 g,30 g', '2,40 g,60 g', '5,100 g,150 g'].join('\n');
  const name = 'salt-by-volume.csv';
  await release(stage, await attach(stage, resource, { name, type: 'text/csv', content: table }), toAll);
}

/** What is to be read and kept: two notices, one with replies, a day for everyone, a meeting of each bench, and one that was cancelled. */
export async function noticesAndEvents(stage: Stage): Promise<void> {
  const { instructor, people, courseId, clock, seated, teams } = stage;
  clock.daysAgo(9, '08:30');
  await release(
    stage,
    await write(stage, {
      kind: 'notice',
      title: 'Goggles at every bench',
      brief: text(
        'Two bottles burst last week. No one was hurt. From today everyone at a bench wears goggles, also those who only look on.',
        'They hang beside the door. Bring them back when you leave.',
      ),
      settings: { hasReplies: false },
    }),
    toAll,
  );

  clock.daysAgo(3, '11:20');
  const { groups } = await instructor.get<BoardView>(`sets/${teams.id}/board`);
  const closed = 'The cold room is closed on Thursday';
  await release(
    stage,
    await write(stage, {
      kind: 'notice',
      title: closed,
      brief: text(
        'The compressor is changed on Thursday between 8 and 12. Take your jars out on Wednesday evening and keep them on the lower shelf in Lab 2.',
        'If your bench cannot, reply here and Tomas moves them for you.',
      ),
    }),
    // One bench was forgotten.
    { to: someGroups(teams.id, groups.flatMap(({ id, name }) => (name === 'Tun' ? [] : [id]))) }, // prettier-ignore
  );
  const copies = await copiesOf(instructor, courseId, closed);
  const reply = async (bench: 'Crock' | 'Barrel', said: string) => {
    const by = people.of(sure(seated(bench)[1]));
    const path = `copies/${sure(copies.get(bench)).copyId}/posts`;
    await by.post(path, { id: uuid(), parentId: null, text: text(said) });
  };
  clock.daysAgo(2, '18:05');
  await reply('Crock', 'We take ours out at six on Wednesday. The big jar needs two people.');
  clock.daysAgo(2, '19:40');
  await reply('Barrel', 'All of us have a test on Wednesday. Please move ours.');

  clock.daysAgo(4, '10:00');
  const anEvent = (title: string, said: readonly string[], settings: object) =>
    write(stage, { kind: 'event', title, brief: text(...said), settings });
  const at = (days: number, from: string, to: string) => ({
    starts: clock.inDays(days, from),
    ends: clock.inDays(days, to),
  });
  await release(
    stage,
    await anEvent(
      'Tasting day',
      [
        'Every bench brings one jar and a card. We taste blind, in the order in which you arrive.',
        'Eat something before you come.',
      ],
      { ...at(9, '14:00', '17:30'), place: 'Refectory kitchen' },
    ),
    toAll,
  );
  const talks = at(4, '10:00', '12:00');
  const inOrder = groups.map(({ id }) => id);
  await release(
    stage,
    await anEvent('Half-term talk', ['Ten minutes about your log and what you need for the second half.'], {
      ...talks,
      place: 'Lab 2, at your bench',
      own: inTurn(inOrder, { first: talks.starts, lasts: 10, pause: 0 }),
    }),
  );
  await release(
    stage,
    await anEvent('Visit to the vinegar works', ['We leave from the main gate.'], {
      ...at(6, '09:00', '13:00'),
      place: 'Main gate',
      isCancelled: true,
    }),
    toAll,
  );
}

/** Crock works in its own copy of a file: twice a newer version, the second by someone else. */
export async function workInReadings(
  { instructor, people, courseId, clock, seated }: Stage,
  title: string,
  { files }: ActivityView,
  readings: string,
): Promise<void> {
  const { copyId } = sure((await copiesOf(instructor, courseId, title)).get('Crock'));
  const { id, name, mediaType } = sure(files[0]);
  const path = `copies/${copyId}/own-files/${id}/versions`;
  const lines = readings.trim().split('\n');
  const [first, second] = seated('Crock').map((email) => people.of(email));
  clock.daysAgo(3, '18:20');
  const drop = [`${lines[0]},pH per hour`, ...lines.slice(1).map((line, at) => `${line},${['', '-0.057', '-0.068', '-0.026'][at]}`)].join('\n'); // prettier-ignore
  await sure(second).upload(path, name, mediaType, drop, { newest: '0' });
  clock.daysAgo(2, '09:45');
  await sure(first).upload(path, name, mediaType, `${drop}\n72,3.61,2.2,-0.015\n`, { newest: '1' });
}
