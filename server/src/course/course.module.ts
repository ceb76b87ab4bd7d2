import { Module } from '@nestjs/common';
import { CourseController } from './course.controller.js';
import { CoursesService } from './courses.service.js';
import { Viewers } from './viewers.js';

@Module({ controllers: [CourseController], providers: [Viewers, CoursesService], exports: [Viewers] })
export class CourseModule {}
