import type { DataSourceOptions } from 'typeorm';
import { CallDoorRow, CallVisitRow } from '../call/index.js';
import { CalendarAddressRow } from '../calendar/index.js';
import { CourseRow, EnrolmentRow } from '../course/index.js';
import { PostRow } from '../discussion/index.js';
import { BlobChunkRow, BlobRow, FileRow } from '../files/files.rows.js';
import { CreditRow, HandInRow, PartRow, WorkFileRow } from '../handin/index.js';
import {
  KnownDeviceRow,
  PasswordLinkRow,
  PersonRow,
  SessionRow,
  SignInTryRow,
} from '../identity/identity.rows.js';
import { MailRow } from '../mail/index.js';
import { MarkAdjustmentRow, MarkRow, ReleasedMarkRow } from '../marks/index.js';
import { migrations } from '../migrations/index.js';
import { AwaitedPlaceRow, MembershipRow } from '../placing/index.js';
import { HeadingRow, OutlinePlaceRow } from '../outline/index.js';
import { EventRow } from '../platform/event.rows.js';
import { SteadyClient } from '../platform/steadyClient.js';
import {
  ActivityRow,
  ActivityFileRow,
  AnnouncedRow,
  CopyRow,
  ExtensionRow,
  ReleaseRow,
  StudentExtensionRow,
} from '../release/index.js';
import { CheckDismissalRow } from '../checks/index.js';
import { OwnVersionRow } from '../ownFiles/index.js';
import { AnsweredRow, AnswerSheetRow } from '../questionnaire/index.js';
import { NoteRow } from '../notes/index.js';
import { MessageRow, MessageSeenRow, SendingRow, ThreadRow } from '../messages/index.js';
import { ShelfFileRow, ShelfSeenRow, ShelfVersionRow } from '../shelf/index.js';
import { SeenCountRow, SeenRow, StopAnswerRow } from '../rooms/index.js';
import { SavedAudienceRow } from '../audiences/index.js';
import { RosterChangeRow } from '../roster/index.js';
import { GroupLeadRow, GroupRow, GroupSetRow } from '../sets/index.js';
import { WikiPageRow, WikiRevisionRow } from '../wiki/index.js';

const rows = [
  PersonRow, SessionRow, SignInTryRow, KnownDeviceRow, PasswordLinkRow, EventRow,
  CourseRow, EnrolmentRow, RosterChangeRow, MailRow,
  GroupSetRow, GroupRow, MembershipRow, GroupLeadRow, AwaitedPlaceRow,
  HeadingRow, OutlinePlaceRow, SavedAudienceRow, ActivityRow, ActivityFileRow, ReleaseRow, CopyRow, AnnouncedRow, ExtensionRow, StudentExtensionRow, SeenRow, SeenCountRow, StopAnswerRow, NoteRow, ShelfFileRow, ShelfVersionRow, ShelfSeenRow, SendingRow, ThreadRow, MessageRow, MessageSeenRow,
  CalendarAddressRow, CallVisitRow, CallDoorRow, OwnVersionRow, CheckDismissalRow, AnsweredRow, AnswerSheetRow, BlobRow, BlobChunkRow, FileRow,
  PartRow, WorkFileRow, HandInRow, CreditRow,
  PostRow, WikiPageRow, WikiRevisionRow,
  MarkRow, MarkAdjustmentRow, ReleasedMarkRow,
]; // prettier-ignore

/** How long someone waits for their turn when everyone presses at once. */
const patienceMs = 30_000;

/** The schema comes from migrations alone; nothing is ever synchronised from the entities. */
export const dataSourceOptions = (databaseUrl: string): DataSourceOptions => ({
  type: 'postgres',
  url: databaseUrl,
  entities: rows,
  migrations: [...migrations],
  migrationsTransactionMode: 'each',
  synchronize: false,
  logging: false,
  extra: { max: 10, connectionTimeoutMillis: patienceMs, Client: SteadyClient },
});
