import { Module } from '@nestjs/common';
import { AttributeNames, CourseModule, Viewers } from '../course/index.js';
import { GroupsService } from './groups.service.js';
import { renameInRules } from './renameInRules.js';
import { SetHearers } from './setHearers.js';
import { SetMaking } from './setMaking.js';
import { SetsController } from './sets.controller.js';
import { SetsService } from './sets.service.js';
import { TopicsService } from './topics.service.js';
import { SetViews } from './setViews.js';

@Module({
  imports: [CourseModule],
  controllers: [SetsController],
  providers: [SetsService, GroupsService, TopicsService, SetMaking, SetViews, SetHearers],
  exports: [SetMaking, SetViews, SetHearers],
})
export class SetsModule {
  constructor(viewers: Viewers, attributes: AttributeNames) {
    attributes.follow(renameInRules);
    viewers.know(
      'leads',
      (enrolmentId) =>
        `(SELECT jsonb_agg(l."groupId") FROM "group_lead" l WHERE l."enrolmentId" = ${enrolmentId})`,
    );
  }
}
