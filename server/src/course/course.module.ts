import { Module } from '@nestjs/common';
import { AttributeNames } from './attributeNames.js';
import { CourseController } from './course.controller.js';
import { CoursesService } from './courses.service.js';
import { Viewers } from './viewers.js';

@Module({
  controllers: [CourseController],
  providers: [Viewers, CoursesService, AttributeNames],
  exports: [CoursesService, Viewers, AttributeNames],
})
export class CourseModule {}
