import { Module } from '@nestjs/common';
import { CourseModule } from '../course/index.js';
import { IdentityModule } from '../identity/index.js';
import { Kinds, ReleaseModule } from '../release/index.js';
import { AddressesService } from './addresses.service.js';
import { CalendarController } from './calendar.controller.js';
import { CalendarService } from './calendar.service.js';
import { eventKind } from './event.kind.js';

@Module({
  imports: [IdentityModule, CourseModule, ReleaseModule],
  controllers: [CalendarController],
  providers: [AddressesService, CalendarService],
})
export class CalendarModule {
  constructor(kinds: Kinds) {
    kinds.register(eventKind);
  }
}
