import { EventSettings } from '@jigsaw/contract/calendar';
import { eventFacts, eventFor, happeningOf, movedEvent } from '@jigsaw/core/calendar';
import type { ActivityKind } from '../release/index.js';
import { asNews } from '../release/index.js';

export const eventKind: ActivityKind<EventSettings> = {
  ...eventFacts,
  ...asNews,
  settings: EventSettings,
  happens: happeningOf,
  forGroup: eventFor<EventSettings>,
  groupsWithOwn: ({ own }) => own.map(({ groupId }) => groupId),
  moved: movedEvent<EventSettings>,
};
