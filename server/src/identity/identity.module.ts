import { Module } from '@nestjs/common';
import { IdentityController } from './identity.controller.js';
import { PeopleService } from './people.service.js';
import { SessionGuard } from './session.guard.js';
import { Tries } from './tries.js';
import { SessionService } from './session.service.js';

@Module({
  controllers: [IdentityController],
  providers: [Tries, SessionService, PeopleService, SessionGuard],
  exports: [Tries, SessionService, PeopleService, SessionGuard],
})
export class IdentityModule {}
