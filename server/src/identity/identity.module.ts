import { Module } from '@nestjs/common';
import { IdentityController } from './identity.controller.js';
import { PeopleService } from './people.service.js';
import { SessionGuard } from './session.guard.js';
import { Tries } from './tries.js';
import { SessionService } from './session.service.js';
import { SitIns } from './sittingIn.js';

@Module({
  controllers: [IdentityController],
  providers: [Tries, SessionService, PeopleService, SitIns, SessionGuard],
  exports: [Tries, SessionService, PeopleService, SitIns, SessionGuard],
})
export class IdentityModule {}
