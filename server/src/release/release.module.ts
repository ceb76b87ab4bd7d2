import { Module } from '@nestjs/common';
import { CourseModule } from '../course/index.js';
import { FilesModule } from '../files/index.js';
import { DealingModule } from '../dealing/index.js';
import { PlacingModule } from '../placing/index.js';
import { Joining, RosterModule } from '../roster/index.js';
import { AudienceHearers, AudiencesModule } from '../audiences/index.js';
import { SetHearers, SetsModule } from '../sets/index.js';
import { ActivitiesService } from './activities.service.js';
import { AttachedController } from './attached.controller.js';
import { AttachedService } from './attached.service.js';
import { CollisionsService } from './collisions.service.js';
import { Copies } from './copies.js';
import { ExtensionsService } from './extensions.service.js';
import { Gate } from './gate.js';
import { joinAudiences } from './joinAudiences.js';
import { Kinds } from './kinds.js';
import { JobsModule } from '../jobs/index.js';
import { ManyService } from './many.service.js';
import { Moments } from './moments.js';
import { ReachService } from './reach.service.js';
import { ReleaseController } from './release.controller.js';
import { ReleaseService } from './release.service.js';
import { ReleasesOfAudiences } from './releasesOfAudiences.js';
import { SetUpController } from './setUp.controller.js';
import { SetUpService } from './setUp.service.js';

@Module({
  imports: [
    JobsModule,
    CourseModule,
    FilesModule,
    SetsModule,
    PlacingModule,
    DealingModule,
    RosterModule,
    AudiencesModule,
  ],
  controllers: [ReleaseController, AttachedController, SetUpController],
  providers: [
    Gate,
    Kinds,
    Copies,
    ActivitiesService,
    AttachedService,
    ReleaseService,
    ExtensionsService,
    CollisionsService,
    ManyService,
    Moments,
    ReachService,
    SetUpService,
    ReleasesOfAudiences,
  ],
  exports: [Gate, Kinds, ActivitiesService, ReleaseService, Copies],
})
export class ReleaseModule {
  constructor(
    joining: Joining,
    hearers: SetHearers,
    copies: Copies,
    audiences: AudienceHearers,
    releases: ReleasesOfAudiences,
  ) {
    joining.addStep(joinAudiences);
    hearers.add(copies);
    audiences.add(releases);
  }
}
