import { Module } from '@nestjs/common';
import { RosterModule } from '../roster/index.js';
import { Changes } from './changes.js';
import { LiveController } from './live.controller.js';

@Module({ imports: [RosterModule], controllers: [LiveController], providers: [Changes] })
export class LiveModule {}
