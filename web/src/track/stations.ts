import type { ToPlace } from '@jigsaw/contract/placing';
import type { Figures } from '@jigsaw/contract/track';
import { counted } from '@jigsaw/core/text';

export interface Station {
  /** Under the course; it is known by it, too. */
  readonly path: string;
  readonly label: string;
  readonly figure: string;
  readonly needs: boolean;
}

export const stationsOf = (figures: Figures): readonly Station[] =>
  figures.kind === 'staff' ? staffStations(figures) : studentStations(figures);

/** Pages that stand at no station's own path: what is worked on is in a room, and is led to from there. */
const within: Readonly<Record<Figures['kind'], Readonly<Record<string, string>>>> = {
  staff: { copies: 'rooms', room: 'rooms', outbox: 'people', audiences: 'release' },
  student: { copies: 'room', choose: 'room' },
};
/** Where one is; undefined: at none of them.
 * @param path under the course: "copies/7…" */
export function stationOf(path: string, figures: Figures): Station | undefined {
  const first = path.split('/')[0] ?? '';
  const at = within[figures.kind][first] ?? first;
  return stationsOf(figures).find((station) => station.path === at);
}

function staffStations({
  enrolled,
  unplaced,
  choosing,
  live,
  scheduled,
  closed,
  drafts,
  rooms,
  unread,
  toMark,
}: Extract<Figures, { kind: 'staff' }>): Station[] {
  return [
    { path: 'people', label: 'People', figure: counted(enrolled, 'enrolled', 'enrolled'), needs: false },
    {
      path: 'groups',
      label: 'Groups',
      figure: sayPlaced({ unplaced, choosing }),
      needs: unplaced > 0,
    },
    {
      path: 'release',
      label: 'Release',
      figure: [
        `${live} live`,
        scheduled > 0 && `${scheduled} scheduled`,
        // The track is narrow: what is over is told where nothing else is to tell.
        scheduled === 0 && drafts === 0 && closed > 0 && `${closed} closed`,
        drafts > 0 && counted(drafts, 'draft'),
      ]
        .filter(Boolean)
        .join(' · '),
      needs: false,
    },
    {
      path: 'rooms',
      label: 'Rooms',
      figure: unread > 0 ? counted(unread, 'unread', 'unread') : counted(rooms, 'room'),
      needs: false,
    },
    {
      path: 'marks',
      label: 'Marks',
      figure: toMark > 0 ? counted(toMark, 'to mark', 'to mark') : 'nothing to mark',
      needs: toMark > 0,
    },
  ];
}

function sayPlaced({ unplaced, choosing }: ToPlace): string {
  return unplaced === 0 && choosing > 0 ? `${choosing} yet to choose` : `${unplaced} unplaced`;
}

function studentStations({ due, rooms, unread, newMarks }: Extract<Figures, { kind: 'student' }>): Station[] {
  return [
    {
      path: 'due',
      label: 'Due',
      figure: due > 0 ? `${due} to do` : 'nothing due',
      needs: due > 0,
    },
    {
      path: 'room',
      label: 'Room',
      figure: unread > 0 ? `${unread} new` : rooms > 0 ? counted(rooms, 'group') : 'no group yet',
      needs: false,
    },
    {
      path: 'my-marks',
      label: 'Marks',
      figure: newMarks > 0 ? counted(newMarks, 'new mark') : 'nothing new',
      needs: false,
    },
  ];
}
