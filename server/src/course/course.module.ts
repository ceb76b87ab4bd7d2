import { Module } from '@nestjs/common';
import { IdentityModule } from '../identity/index.js';
import { AttributeNames } from './attributeNames.js';
import { CourseController } from './course.controller.js';
import { CoursesService } from './courses.service.js';
import { SitIn } from './sitIn.js';
import { Viewers } from './viewers.js';

@Module({
  imports: [IdentityModule],
  controllers: [CourseController],
  providers: [Viewers, CoursesService, AttributeNames, SitIn],
  exports: [CoursesService, Viewers, AttributeNames],
})
export class CourseModule {}
