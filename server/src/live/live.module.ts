import { Module } from '@nestjs/common';
import { CourseModule } from '../course/index.js';
import { Changes } from './changes.js';
import { LiveController } from './live.controller.js';

@Module({ imports: [CourseModule], controllers: [LiveController], providers: [Changes] })
export class LiveModule {}
