import { Module } from '@nestjs/common';
import { Jobs } from './jobs.js';

@Module({ providers: [Jobs], exports: [Jobs] })
export class JobsModule {}
