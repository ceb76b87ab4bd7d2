import { FirstSchema1764000000000 } from './1764000000000-firstSchema.js';
import { ChangesOfTheRoster1764200000000 } from './1764200000000-changesOfTheRoster.js';
import { JoinedEntries1764400000000 } from './1764400000000-joinedEntries.js';
import { KindsOfAttributes1764500000000 } from './1764500000000-kindsOfAttributes.js';
import { SetsPutAway1764700000000 } from './1764700000000-setsPutAway.js';
import { SignUp1764600000000 } from './1764600000000-signUp.js';
import { WaysOfGroups1764800000000 } from './1764800000000-waysOfGroups.js';
import { RulesOfSets1764900000000 } from './1764900000000-rulesOfSets.js';
import { ViewsOfOwners1765000000000 } from './1765000000000-viewsOfOwners.js';
import { MembersName1765100000000 } from './1765100000000-membersName.js';
import { GivenMarks1765200000000 } from './1765200000000-givenMarks.js';
import { InWork1765300000000 } from './1765300000000-inWork.js';
import { ExtensionCloses1765400000000 } from './1765400000000-extensionCloses.js';
import { CourseNames1765500000000 } from './1765500000000-courseNames.js';
import { ProvenAccounts1765600000000 } from './1765600000000-provenAccounts.js';
import { MarksOfMarkers1765700000000 } from './1765700000000-marksOfMarkers.js';
import { Audiences1765800000000 } from './1765800000000-audiences.js';
import { Sessions1765900000000 } from './1765900000000-sessions.js';
import { HandInsByCopy1766000000000 } from './1766000000000-hand-ins-by-copy.js';
import { HowMuchWasSeen1766100000000 } from './1766100000000-howMuchWasSeen.js';
import { TurnsOfTalks1766200000000 } from './1766200000000-turnsOfTalks.js';
import { MovesOfSets1766400000000 } from './1766400000000-movesOfSets.js';
import { TopicsAndDetails1766500000000 } from './1766500000000-topicsAndDetails.js';
import { SavedAudiences1766600000000 } from './1766600000000-savedAudiences.js';
import { StudentExtensions1766700000000 } from './1766700000000-studentExtensions.js';
import { Announcements1766800000000 } from './1766800000000-announcements.js';
import { CalendarAddresses1766900000000 } from './1766900000000-calendarAddresses.js';
import { AttachedFiles1767000000000 } from './1767000000000-attachedFiles.js';
import { Calls1767100000000 } from './1767100000000-calls.js';
import { Questionnaires1767200000000 } from './1767200000000-questionnaires.js';
import { Moments1767300000000 } from './1767300000000-moments.js';
import { OutlineOfCourses1767400000000 } from './1767400000000-outline.js';
import { OwnFiles1767500000000 } from './1767500000000-ownFiles.js';
import { Checks1767600000000 } from './1767600000000-checks.js';
import { Practice1767700000000 } from './1767700000000-practice.js';
import { Stops1767800000000 } from './1767800000000-stops.js';
import { Notes1767900000000 } from './1767900000000-notes.js';
import { Shelf1768000000000 } from './1768000000000-shelf.js';
import { Messages1768100000000 } from './1768100000000-messages.js';
import { PlainNames1766300000000 } from './1766300000000-plainNames.js';
import { TheRegistrar1764300000000 } from './1764300000000-theRegistrar.js';
import { KindsOfActivities1764100000000 } from './1764100000000-kindsOfActivities.js';

/** In the order in which they ran. A migration that ran is never changed. */
export const migrations = [
  FirstSchema1764000000000,
  KindsOfActivities1764100000000,
  ChangesOfTheRoster1764200000000,
  TheRegistrar1764300000000,
  JoinedEntries1764400000000,
  KindsOfAttributes1764500000000,
  SignUp1764600000000,
  SetsPutAway1764700000000,
  WaysOfGroups1764800000000,
  RulesOfSets1764900000000,
  ViewsOfOwners1765000000000,
  MembersName1765100000000,
  GivenMarks1765200000000,
  InWork1765300000000,
  ExtensionCloses1765400000000,
  CourseNames1765500000000,
  ProvenAccounts1765600000000,
  MarksOfMarkers1765700000000,
  Audiences1765800000000,
  Sessions1765900000000,
  HandInsByCopy1766000000000,
  HowMuchWasSeen1766100000000,
  TurnsOfTalks1766200000000,
  PlainNames1766300000000,
  MovesOfSets1766400000000,
  TopicsAndDetails1766500000000,
  SavedAudiences1766600000000,
  StudentExtensions1766700000000,
  Announcements1766800000000,
  CalendarAddresses1766900000000,
  AttachedFiles1767000000000,
  Calls1767100000000,
  Questionnaires1767200000000,
  Moments1767300000000,
  OutlineOfCourses1767400000000,
  OwnFiles1767500000000,
  Checks1767600000000,
  Practice1767700000000,
  Stops1767800000000,
  Notes1767900000000,
  Shelf1768000000000,
  Messages1768100000000,
] as const;
