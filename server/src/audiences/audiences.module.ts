import { Module } from '@nestjs/common';
import { AttributeNames, CourseModule } from '../course/index.js';
import { Joining, RosterModule } from '../roster/index.js';
import { AudienceHearers } from './audienceHearers.js';
import { AudiencesController } from './audiences.controller.js';
import { AudiencesService } from './audiences.service.js';
import { renameInTerms } from './renameInTerms.js';
import { joinTerms } from './joinTerms.js';

@Module({
  imports: [CourseModule, RosterModule],
  controllers: [AudiencesController],
  providers: [AudiencesService, AudienceHearers],
  exports: [AudienceHearers],
})
export class AudiencesModule {
  constructor(joining: Joining, attributes: AttributeNames) {
    attributes.follow(renameInTerms);
    joining.addStep(joinTerms);
  }
}
