import { Controller } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { CourseId } from '@jigsaw/contract/common';
import {
  ChangeAssistants,
  ChangeCourse,
  CourseList,
  CourseView,
  CreateCourse,
} from '@jigsaw/contract/course';
import type * as ids from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import { CurrentPerson, WhileSittingIn } from '../identity/index.js';
import { Endpoint, IdParam, Takes } from '../platform/endpoint.js';
import { CoursesService } from './courses.service.js';

@ApiTags('course')
@Controller('courses')
export class CourseController {
  constructor(private readonly courses: CoursesService) {}

  @WhileSittingIn()
  @Endpoint('GET /', { id: 'listCourses', does: 'Courses the signed-in person is in', answer: CourseList })
  list(@CurrentPerson() person: SignedIn): Promise<CourseList> {
    return this.courses.list(person);
  }

  @Endpoint('PUT /:courseId/assistants', {
    id: 'changeAssistants',
    does: 'Whose work assistants see',
    body: ChangeAssistants,
    answer: ChangeAssistants,
  })
  changeAssistants(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @Takes(ChangeAssistants) change: ChangeAssistants,
  ): Promise<ChangeAssistants> {
    return this.courses.changeAssistants(person, courseId, change);
  }

  @Endpoint('PUT /:courseId', {
    id: 'changeCourse',
    does: 'Change what a course is called, and its time zone',
    body: ChangeCourse,
    answer: ChangeCourse,
  })
  change(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @Takes(ChangeCourse) change: ChangeCourse,
  ): Promise<ChangeCourse> {
    return this.courses.change(person, courseId, change);
  }

  @Endpoint('POST /', { id: 'createCourse', does: 'Create a course', body: CreateCourse, answer: CourseView })
  create(@CurrentPerson() person: SignedIn, @Takes(CreateCourse) draft: CreateCourse): Promise<CourseView> {
    return this.courses.create(person, draft);
  }
}
