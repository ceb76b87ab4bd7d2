import type { RoomLines } from '@jigsaw/contract/rooms';
import type { ShelfView } from '@jigsaw/contract/shelf';
import { sure } from '@jigsaw/core/lists';
import type { Vessel } from './people.js';
import type { Stage } from './stage.js';

const readings = (days: number) =>
  ['day,jar,pH,shelf °C', ...Array.from({ length: days * 2 }, (_each, at) => `${1 + Math.floor(at / 2)},${1 + (at % 2)},${(5.9 - Math.floor(at / 2) * 0.17).toFixed(2)},${(20.4 + ((at * 7) % 11) / 10).toFixed(1)}`)].join('\n'); // prettier-ignore
const rota = (weekend: string) =>
  `Who reads the meter\nMon and Tue: first half of the bench\nWed and Thu: second half\nFri: all who are in\nWeekend: ${weekend}\n`;

/** What the members of three benches share with one another: readings that grow, a rota that two write, and one file that someone removed. */
export async function fillShelves({ instructor, people, courseId, clock, seated }: Stage): Promise<void> {
  const { lines } = await instructor.get<RoomLines>(`courses/${courseId}/room-lines`);
  const groupOf = (vessel: Vessel) => sure(lines.find((line) => line.group.name === vessel)).group.id;
  const put = (vessel: Vessel, seat: number, name: string, content: string, type = 'text/csv') => {
    const by = people.of(sure(seated(vessel)[seat]));
    return by.upload<ShelfView>(`groups/${groupOf(vessel)}/shelf`, name, type, content);
  };
  for (const [at, days] of [4, 9, 13].entries()) {
    clock.daysAgo(16 - at * 5, `1${at}:20`);
    await put('Crock', at % 2, 'readings.csv', readings(days));
    await put('Cask', 0, 'our numbers.csv', readings(days + 1));
  }
  clock.daysAgo(8, '18:05');
  await put('Crock', 2, 'rota.txt', rota('no one'), 'text/plain');
  clock.daysAgo(7, '09:40');
  await put('Crock', 0, 'rota.txt', rota('draw lots'), 'text/plain');
  clock.daysAgo(3, '17:15');
  await put('Crock', 1, 'Draft for Thursday.md', '# What we say on Thursday\n\n1. The curve\n2. The warm shelf\n3. What we would do again\n', 'text/markdown'); // prettier-ignore
  await put('Onggi', 0, 'salt log.csv', readings(11));
  const { files } = await put('Onggi', 1, 'salt log (old).csv', readings(2));
  await people.of(sure(seated('Onggi')[1])).delete(`groups/${groupOf('Onggi')}/shelf/${sure(files[0]).id}`);
}
