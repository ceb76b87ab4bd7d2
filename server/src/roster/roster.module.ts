import { Module } from '@nestjs/common';
import { CourseModule } from '../course/index.js';
import { IdentityModule } from '../identity/index.js';
import { MailModule } from '../mail/index.js';
import { PlacingModule } from '../placing/index.js';
import { SetsModule } from '../sets/index.js';
import { ClassFiles } from './classFiles.js';
import { ImportService } from './import.service.js';
import { Joining } from './joining.js';
import { Registrar } from './registrar.js';
import { RegistrarService } from './registrar.service.js';
import { RosterController } from './roster.controller.js';
import { RosterService } from './roster.service.js';
import { RosterChanges } from './rosterChanges.service.js';
import { WaysIn } from './waysIn.service.js';

@Module({
  imports: [IdentityModule, MailModule, CourseModule, SetsModule, PlacingModule],
  controllers: [RosterController],
  providers: [
    RosterService,
    RosterChanges,
    ImportService,
    ClassFiles,
    Registrar,
    RegistrarService,
    Joining,
    WaysIn,
  ],
  exports: [Joining],
})
export class RosterModule {}
