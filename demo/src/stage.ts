import type { GroupSetView } from '@jigsaw/contract/sets';
import type { SignInLinks } from '@jigsaw/contract/identity';
import type { MarkView } from '@jigsaw/contract/marks';
import { draftOf } from '@jigsaw/contract/release';
import type { ActivityView, AttachedFile, ReleaseRequest } from '@jigsaw/contract/release';
import type { RoomItem, RoomLines, RoomList, RoomView } from '@jigsaw/contract/rooms';
import { Client } from './client.js';
import type { Vessel } from './people.js';
import { demoPassword } from './people.js';
import type { StoryClock } from './storyClock.js';
import { wholeSet } from '@jigsaw/core/release';

/** One signed-in browser a person. */
export class Browsers {
  private readonly byAddress = new Map<string, Client>();

  constructor(private readonly base: string) {}

  async choosePasswords(instructor: Client, courseId: string): Promise<void> {
    const { links } = await instructor.post<SignInLinks>(`courses/${courseId}/roster/sign-in-links`);
    for (const link of links) {
      const client = new Client(this.base, { email: link.email, password: demoPassword });
      await client.post('session/password', { token: link.url.split('#')[1], password: demoPassword });
      this.byAddress.set(link.email, client);
    }
  }

  of(email: string): Client {
    const client = this.byAddress.get(email);
    if (!client) throw new Error(`${email} has chosen no password`);
    return client;
  }
}

/** Where the story is played: who is there, what time it is, and where everyone sits. */
export interface Stage {
  readonly instructor: Client;
  readonly people: Browsers;
  readonly courseId: string;
  readonly clock: StoryClock;
  readonly teams: GroupSetView;
  /** Addresses of a bench's members, in the order in which they are named. */
  readonly seated: (vessel: Vessel) => readonly string[];
}

const usual = {
  points: null,
  rubric: null,
  latePolicy: { graceMinutes: 15, stepPercent: 10, periodMinutes: 1440, capPercent: 50 },
  settings: {},
};

export interface Written {
  readonly kind: string;
  readonly title: string;
  readonly brief: object;
  readonly points?: string | null;
  readonly due?: string | null;
  readonly settings?: object;
  readonly rubric?: object | null;
}

export async function write(
  { instructor, courseId }: Stage,
  { due = null, ...written }: Written,
): Promise<ActivityView> {
  return instructor.post<ActivityView>(`courses/${courseId}/activities`, {
    ...usual,
    schedule: { opens: null, due, closes: null },
    ...written,
  });
}

/** Attaches a file to a draft, for everyone to read who gets it, or as each group's own. */
export async function attach(
  { instructor }: Pick<Stage, 'instructor'>,
  draft: ActivityView,
  {
    name,
    type,
    content,
    isPerGroup = false,
  }: {
    readonly name: string;
    readonly type: string;
    readonly content: string;
    readonly isPerGroup?: boolean;
  },
): Promise<ActivityView> {
  const { id, version } = draft;
  const file = await instructor.upload<AttachedFile>(`activities/${id}/files`, name, type, content);
  return instructor.put<ActivityView>(`activities/${id}`, {
    ...draftOf(draft),
    files: [{ ...file, isPerGroup }],
    version,
  });
}

/** To all bench teams with a copy each, unless `how` says otherwise. */
export async function release(
  { instructor, teams }: Stage,
  { id, version }: ActivityView,
  how: Partial<ReleaseRequest> = {},
): Promise<void> {
  const request = {
    to: wholeSet(teams.id),
    mode: 'own',
    outsiders: 'hidden',
    goesLiveAt: null,
    version,
    ...how,
  };
  await instructor.post(`activities/${id}/release`, request);
}

/** The rooms that someone sees into: their own, and for staff those of all groups. */
export async function roomsOf(
  client: Client,
  courseId: string,
  part: 'member' | 'staff',
): Promise<Pick<RoomList, 'rooms' | 'common'>> {
  if (part === 'member') return client.get<RoomList>(`courses/${courseId}/rooms`);
  const { lines, common } = await client.get<RoomLines>(`courses/${courseId}/room-lines`);
  const rooms = lines.map(({ group }) => client.get<RoomView>(`groups/${group.id}/room`));
  return { rooms: await Promise.all(rooms), common };
}

/** Every copy of one title, as staff find it: by bench, or the one for all under its own name. */
export async function copiesOf(
  client: Client,
  courseId: string,
  title: string,
): Promise<Map<string, RoomItem>> {
  const { rooms, common } = await roomsOf(client, courseId, 'staff');
  const own = rooms.flatMap((room) =>
    room.items.filter((item) => item.title === title).map((item) => [room.group.name, item] as const),
  );
  return new Map([
    ...own,
    ...common.filter((item) => item.title === title).map((item) => [title, item] as const),
  ]);
}

interface Sheet {
  readonly typedMark?: string | null;
  readonly overrideReason?: string;
  readonly picks?: object;
  readonly feedback?: string;
  readonly adjust?: { readonly name: string; readonly by: string; readonly reason: string };
}

/** Marks one group ('group') or one student of a copy, and releases it where `isReleased`. */
export async function mark(
  { instructor }: Pick<Stage, 'instructor'>,
  copyId: string,
  unit: string,
  isReleased: boolean,
  { adjust, ...sheet }: Sheet,
): Promise<void> {
  const path = `copies/${copyId}/marks/${unit}`;
  const before = await instructor.get<MarkView>(path);
  const member = adjust && before.members.find((each) => each.member.name === adjust.name);
  const adjustments =
    adjust && member
      ? [
          {
            enrolmentId: member.member.enrolmentId,
            adjustment: { kind: 'adjusted', by: adjust.by, reason: adjust.reason },
          },
        ]
      : [];
  const body = {
    typedMark: null,
    overrideReason: '',
    picks: {},
    feedback: '',
    ...sheet,
    adjustments,
    version: before.version,
  };
  const saved = await instructor.put<MarkView>(path, body);
  if (isReleased) await instructor.post(`${path}/release`, { version: saved.version });
}
