import { Module } from '@nestjs/common';
import { IdentityModule } from '../identity/index.js';
import { MailModule } from '../mail/index.js';
import { CoursesService } from './courses.service.js';
import { ImportService } from './import.service.js';
import { Joining } from './joining.js';
import { NewGroups } from './newGroups.js';
import { NewSets } from './newSets.js';
import { Registrar } from './registrar.js';
import { RegistrarService } from './registrar.service.js';
import { RosterController } from './roster.controller.js';
import { RosterService } from './roster.service.js';
import { RosterChanges } from './rosterChanges.service.js';
import { Viewers } from './viewers.js';

@Module({
  imports: [IdentityModule, MailModule],
  controllers: [RosterController],
  providers: [
    Viewers,
    CoursesService,
    RosterService,
    RosterChanges,
    ImportService,
    Registrar,
    RegistrarService,
    Joining,
    NewGroups,
    NewSets,
  ],
  exports: [Viewers, Joining, NewGroups, NewSets],
})
export class RosterModule {}
