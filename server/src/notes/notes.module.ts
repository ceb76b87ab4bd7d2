import { Module } from '@nestjs/common';
import { CourseModule } from '../course/index.js';
import { NotesController } from './notes.controller.js';
import { NotesService } from './notes.service.js';

@Module({
  imports: [CourseModule],
  controllers: [NotesController],
  providers: [NotesService],
})
export class NotesModule {}
