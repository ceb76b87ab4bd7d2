import { CalendarDays } from 'lucide-react';
import { lazy } from 'react';
import { EventSettings } from '@jigsaw/contract/calendar';
import { eventFacts, eventFor, happeningOf } from '@jigsaw/core/calendar';
import type { KindOnPages } from '../kinds/index.js';

export const eventKind: KindOnPages<EventSettings> = {
  ...eventFacts,
  word: 'Event',
  says: 'Something that takes place, in everyone’s calendar: a tasting day, a meeting.',
  icon: CalendarDays,
  settings: EventSettings,
  usualPoints: null,
  SettingsForm: lazy(() => import('./SettingsForm.js')),
  afterDue: null,
  sayProgress: null,
  happens: happeningOf,
  forGroup: eventFor<EventSettings>,
  owed: 'To keep',
  Page: lazy(() => import('./EventPage.js')),
  OnDesk: null,
};
