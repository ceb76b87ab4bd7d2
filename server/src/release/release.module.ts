import { Module } from '@nestjs/common';
import { RosterModule } from '../roster/index.js';
import { Gate } from './gate.js';
import { ReleaseController } from './release.controller.js';
import { ReleaseService } from './release.service.js';

@Module({ imports: [RosterModule], controllers: [ReleaseController], providers: [Gate, ReleaseService], exports: [Gate] })
export class ReleaseModule {}
