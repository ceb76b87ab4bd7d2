import type { Role } from '@jigsaw/contract/common';
import type { ToPlace } from '@jigsaw/contract/common';
import type { Figures } from '@jigsaw/contract/track';
import { counted } from '@jigsaw/core/text';

export interface Station {
  /** Under the course; it is known by it, too. */
  readonly path: string;
  readonly label: string;
  /** null: it is not counted yet. */
  readonly figure: string | null;
  readonly needs: boolean;
}
export type Side = Figures['kind'];
export const sideOf = (role: Role): Side => (role === 'student' ? 'student' : 'staff');

const labels = {
  staff: { people: 'People', groups: 'Groups', release: 'Release', rooms: 'Rooms', marks: 'Marks' },
  student: { due: 'Due', room: 'Room', 'my-marks': 'Marks' },
} as const satisfies Record<Side, Record<string, string>>;

/** The stations in their order: they are known before they are counted.
 * @param figures undefined: not read yet, or they could not be.
 * @param toCheck what there is to check before and after release; undefined: it is not for them, or not counted yet. */
export function stationsOf(side: Side, figures?: Figures, toCheck = 0): readonly Station[] {
  const said = figures?.kind === side ? saidOf(figures, toCheck) : {};
  return Object.entries(labels[side]).map(([path, label]) => {
    const { figure = null, needs = false } = said[path] ?? {};
    return { path, label, figure, needs };
  });
}

/** The stations at which something waits, or is new. */
export const callingAt = (side: Side, figures: Figures): readonly Station[] =>
  stationsOf(side, figures).filter(({ path, needs }) => needs || isNewAt(path, figures));
function isNewAt(path: string, figures: Figures): boolean {
  if (path === 'my-marks') return figures.kind === 'student' && figures.newMarks > 0;
  return (path === 'rooms' || path === 'room') && figures.unread > 0;
}

/** Pages that stand at no station's own path: what is worked on is in a room, and is led to from there. */
const within: Readonly<Record<Side, Readonly<Record<string, string>>>> = {
  staff: { copies: 'rooms', room: 'rooms', outbox: 'people', audiences: 'release', outline: 'release' },
  student: { copies: 'room', choose: 'room', outline: 'due' },
};
/** Where one is; undefined: at none of them.
 * @param path under the course: "copies/7…" */
export function stationOf(path: string, side: Side): Station | undefined {
  const first = path.split('/')[0] ?? '';
  const at = within[side][first] ?? first;
  return stationsOf(side).find((station) => station.path === at);
}

type Said = Partial<Record<string, { readonly figure: string; readonly needs?: boolean }>>;
const saidOf = (figures: Figures, toCheck: number): Said =>
  figures.kind === 'staff' ? saidToStaff(figures, toCheck) : saidToStudent(figures);

function saidToStaff(
  { enrolled, unplaced, choosing, live, scheduled, closed, drafts, rooms, unread, toMark }: StaffFigures,
  toCheck: number,
): Record<keyof typeof labels.staff, Said[string]> {
  return {
    people: { figure: counted(enrolled, 'enrolled', 'enrolled') },
    groups: { figure: sayPlaced({ unplaced, choosing }), needs: unplaced > 0 },
    release: {
      figure: toCheck > 0 ? `${toCheck} to check` : sayReleased({ live, scheduled, closed, drafts }),
      needs: toCheck > 0,
    },
    rooms: { figure: unread > 0 ? counted(unread, 'unread', 'unread') : counted(rooms, 'room') },
    marks: {
      figure: toMark > 0 ? counted(toMark, 'to mark', 'to mark') : 'nothing to mark',
      needs: toMark > 0,
    },
  };
}

type StaffFigures = Extract<Figures, { kind: 'staff' }>;

function sayReleased({
  live,
  scheduled,
  closed,
  drafts,
}: Pick<StaffFigures, 'live' | 'scheduled' | 'closed' | 'drafts'>): string {
  return [
    `${live} live`,
    scheduled > 0 && `${scheduled} scheduled`,
    // The track is narrow: what is over is told where nothing else is to tell.
    scheduled === 0 && drafts === 0 && closed > 0 && `${closed} closed`,
    drafts > 0 && counted(drafts, 'draft'),
  ]
    .filter(Boolean)
    .join(' · ');
}

function sayPlaced({ unplaced, choosing }: ToPlace): string {
  return unplaced === 0 && choosing > 0 ? `${choosing} yet to choose` : `${unplaced} unplaced`;
}

function saidToStudent({
  due,
  rooms,
  unread,
  newMarks,
}: Extract<Figures, { kind: 'student' }>): Record<keyof typeof labels.student, Said[string]> {
  return {
    due: { figure: due > 0 ? `${due} to do` : 'nothing due', needs: due > 0 },
    room: { figure: unread > 0 ? `${unread} new` : rooms > 0 ? counted(rooms, 'group') : 'no group yet' },
    'my-marks': { figure: newMarks > 0 ? counted(newMarks, 'new mark') : 'nothing new' },
  };
}
