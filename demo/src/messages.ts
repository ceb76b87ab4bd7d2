import { v7 as uuid } from 'uuid';
import type { MessageList, RecipientChoice } from '@jigsaw/contract/messages';
import type { RoomLines } from '@jigsaw/contract/rooms';
import { sure } from '@jigsaw/core/lists';
import type { Client } from './client.js';
import type { Vessel } from './people.js';
import { staff } from './people.js';
import type { Stage } from './stage.js';

const tasting = `Hello {first name},

tasting day is on Thursday at 14:00 in the cellar. Bring one jar from {group}, labelled, and something to spit into.

If you cannot come, write to me here before Wednesday.

Ilse Marrow`;
const cracked = `Hello {group},

the second crock is yours from Monday. Please write down what you put into it before you close it: the first one left us guessing.

Does Tuesday at 10:00 suit you for the start?`;

/** What goes to and fro beside the work: one letter to the class and what some reply, a group that is asked something, and two who write to staff. */
export async function writeMessages({ instructor, people, courseId, clock, seated }: Stage): Promise<void> {
  const { lines } = await instructor.get<RoomLines>(`courses/${courseId}/room-lines`);
  const idOf = (vessel: Vessel) => sure(lines.find((line) => line.group.name === vessel)).group.id;
  const student = (vessel: Vessel, seat: number) => people.of(sure(seated(vessel)[seat]));
  const send = (by: Client, to: object, subject: string, text: string, count = 1) =>
    by.post(`courses/${courseId}/messages`, { id: uuid(), to, subject, text, count });
  const reply = async (by: Client, subject: string, text: string) => {
    const { threads } = await by.get<MessageList>(`courses/${courseId}/messages`);
    const { id } = sure(threads.find((thread) => thread.subject === subject));
    await by.post(`threads/${id}/messages`, { id: uuid(), text });
  };
  clock.daysAgo(6, '09:10');
  const { everyone } = await instructor.get<RecipientChoice>(`courses/${courseId}/messages/recipients`);
  await send(instructor, { kind: 'class' }, 'Tasting day', tasting, sure(everyone));
  clock.daysAgo(6, '11:32');
  await reply(student('Crock', 0), 'Tasting day', 'I have a lab until 14:20. May I come late?');
  clock.daysAgo(6, '12:05');
  await reply(
    student('Tun', 1),
    'Tasting day',
    'Our jar is the one with the blue lid. It smells of apples, is that right?',
  );
  clock.daysAgo(5, '16:48');
  await reply(instructor, 'Tasting day', 'Yes, come when you can. Your bench starts last.');
  clock.daysAgo(4, '10:20');
  await send(instructor, { kind: 'groups', groupIds: [idOf('Cask')] }, 'Your second crock', cracked);
  clock.daysAgo(4, '13:02');
  await reply(student('Cask', 0), 'Your second crock', 'Tuesday suits three of us. Could we start at 10:30?');
  clock.daysAgo(3, '08:55');
  await send(
    student('Firkin', 3),
    { kind: 'staff' },
    'The day late',
    'I was at the hospital with my brother when the report was due. I have a letter. Where do I bring it?',
  );
  clock.daysAgo(2, '17:40');
  await send(
    student('Crock', 1),
    { kind: 'groups', groupIds: [idOf('Crock')] },
    'Who brings the scale?',
    'The one in the cellar drifts. Can someone bring theirs on Thursday?',
  );
  clock.daysAgo(2, '18:15');
  await reply(
    student('Crock', 0),
    'Who brings the scale?',
    'I do. It has a battery for two hours, so let us weigh first.',
  );
  clock.daysAgo(1, '09:05');
  await reply(
    people.of(sure(staff.assistants[0]).email),
    'Who brings the scale?',
    'There is a new one on shelf 3 since Friday. Calibrate it with the 50 g weight.',
  );
}
