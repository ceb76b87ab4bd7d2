import type { BoardView } from '@jigsaw/contract/placing';
import type { GroupDetails, GroupSetView } from '@jigsaw/contract/sets';
import { sure } from '@jigsaw/core/lists';
import { settle } from './groups.js';
import type { Stage } from './stage.js';

/** How many have chosen each so far: one is full, two almost. Seven of the class have still to choose. */
const panels = { Sour: 7, Bitter: 7, Salt: 6, Umami: 6, Malt: 7, Fruit: 8 } as const;
const places = 8;

/** When and where each tastes, and what. */
const details: Readonly<Record<keyof typeof panels, GroupDetails>> = {
  Sour: {
    time: 'Mon 14:00',
    place: 'Pilot hall',
    about: 'Sauerkraut brines, kombucha, sourdough',
    halfDay: 'Mon pm',
  },
  Bitter: {
    time: 'Tue 16:30',
    place: 'Room 2.14',
    about: 'Hop teas, cocoa pulp, over-aged brines',
    halfDay: 'Tue pm',
  },
  Salt: {
    time: 'Wed 10:00',
    place: 'Pilot hall',
    about: 'Brines from 1.5 % to 6 %, fish sauce, soy',
    halfDay: 'Wed am',
  },
  Umami: { time: 'Wed 14:00', place: 'Room 2.14', about: 'Koji, miso, aged cheese rinds', halfDay: 'Wed pm' },
  Malt: {
    time: 'Thu 16:30',
    place: 'Pilot hall',
    about: 'Kvass, small beers, malt vinegar',
    halfDay: 'Thu pm',
  },
  Fruit: {
    time: 'Fri 09:00',
    place: 'Room 2.14',
    about: 'Cider, tepache, country wines, shrubs',
    halfDay: 'Fri am',
  },
};

/** Tasting panels beside the benches: the students choose them themselves. */
export async function choosePanels(
  { instructor, people, courseId, clock }: Stage,
  emails: readonly string[],
): Promise<void> {
  clock.daysAgo(6, '12:00');
  const set = await instructor.post<GroupSetView>(`courses/${courseId}/sets`, {
    name: 'Tasting panels',
    shape: { by: 'count', groups: Object.keys(panels).length },
    capacity: places,
    pattern: 'Panel {n}',
    names: Object.keys(panels),
    signUp: { opens: null, closes: clock.inDays(2, '17:00'), showsNames: true },
  });
  await settle({ instructor }, set, {
    description: 'You taste with these people until the end of term, beside your bench team.',
  });
  const { groups } = await instructor.get<BoardView>(`sets/${set.id}/board`);
  for (const group of groups) {
    const { id, name, capacity, version } = group;
    await instructor.patch(`groups/${id}`, {
      name,
      capacity,
      version,
      details: details[name as keyof typeof panels],
    });
  }
  const wanted = Object.entries(panels).flatMap(([panel, count]) =>
    Array.from({ length: count }, () => panel),
  );
  // Friends of one bench do not all choose alike: every seventh of the class, and so on.
  const order = emails.toSorted(
    (a, b) => ((emails.indexOf(a) * 7) % emails.length) - ((emails.indexOf(b) * 7) % emails.length),
  );
  for (const [at, panel] of wanted.entries()) {
    if (at % 9 === 0) clock.daysAgo(5 - Math.floor(at / 9), `1${at % 8}:20`);
    await people
      .of(sure(order[at]))
      .post(`sets/${set.id}/sign-up`, { groupId: sure(groups.find((group) => group.name === panel)).id });
  }
}
