import { Module } from '@nestjs/common';
import { CourseModule, Viewers } from '../course/index.js';
import { SetHearers, SetsModule, SetViews } from '../sets/index.js';
import { MailModule } from '../mail/index.js';
import { AwaitedPlaces } from './awaitedPlaces.js';
import { BoardService } from './board.service.js';
import { GroupWork } from './groupWork.js';
import { Memberships } from './memberships.js';
import { PlacingController } from './placing.controller.js';
import { SeatsOfSets } from './seatsOfSets.js';
import { SetCopies } from './setCopies.service.js';
import { SignUpService } from './signUp.service.js';
import { unplacedSql } from './unplaced.js';

@Module({
  imports: [CourseModule, MailModule, SetsModule],
  controllers: [PlacingController],
  providers: [BoardService, SignUpService, SetCopies, Memberships, SeatsOfSets, GroupWork, AwaitedPlaces],
  exports: [BoardService, AwaitedPlaces, Memberships, SetCopies, GroupWork],
})
export class PlacingModule {
  constructor(viewers: Viewers, views: SetViews, hearers: SetHearers, seats: SeatsOfSets) {
    viewers.know(
      'groups',
      (enrolmentId) =>
        `(SELECT jsonb_agg(jsonb_build_object('groupId', m."groupId", 'setId', m."setId"))
            FROM "membership" m WHERE m."enrolmentId" = ${enrolmentId} AND m."until" IS NULL)`,
    );
    views.countUnplaced(unplacedSql);
    hearers.add(seats);
  }
}
