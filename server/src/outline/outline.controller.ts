import { Controller } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { ActivityId, CourseId, HeadingId } from '@jigsaw/contract/common';
import {
  ActivityPlaced,
  HeadingMoved,
  MoveHeading,
  NewHeading,
  OutlineView,
  PlaceActivity,
  RenameHeading,
} from '@jigsaw/contract/outline';
import type * as ids from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import { CurrentPerson } from '../identity/index.js';
import { Endpoint, IdParam, Takes } from '../platform/endpoint.js';
import { OutlineService } from './outline.service.js';

@ApiTags('outline')
@Controller()
export class OutlineController {
  constructor(private readonly outline: OutlineService) {}

  @Endpoint('GET /courses/:courseId/outline', {
    id: 'readOutline',
    does: 'The order in which a course shows its activities, as far as the asker sees them',
    answer: OutlineView,
  })
  read(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
  ): Promise<OutlineView> {
    return this.outline.read(person, courseId);
  }

  @Endpoint('POST /courses/:courseId/headings', {
    id: 'createHeading',
    does: 'Add a heading at the end of the outline',
    body: NewHeading,
    answer: OutlineView,
  })
  create(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @Takes(NewHeading) heading: NewHeading,
  ): Promise<OutlineView> {
    return this.outline.create(person, courseId, heading);
  }

  @Endpoint('PUT /headings/:headingId', {
    id: 'renameHeading',
    does: 'Rename a heading',
    body: RenameHeading,
    answer: OutlineView,
  })
  rename(
    @CurrentPerson() person: SignedIn,
    @IdParam('headingId', HeadingId) headingId: ids.HeadingId,
    @Takes(RenameHeading) renamed: RenameHeading,
  ): Promise<OutlineView> {
    return this.outline.rename(person, headingId, renamed);
  }

  @Endpoint('POST /headings/:headingId/move', {
    id: 'moveHeading',
    does: 'Move a heading, with what stands under it',
    body: MoveHeading,
    answer: HeadingMoved,
  })
  move(
    @CurrentPerson() person: SignedIn,
    @IdParam('headingId', HeadingId) headingId: ids.HeadingId,
    @Takes(MoveHeading) to: MoveHeading,
  ): Promise<HeadingMoved> {
    return this.outline.move(person, headingId, to);
  }

  @Endpoint('DELETE /headings/:headingId', {
    id: 'deleteHeading',
    does: 'Delete a heading; its activities stay, and it can be restored',
    answer: OutlineView,
  })
  remove(
    @CurrentPerson() person: SignedIn,
    @IdParam('headingId', HeadingId) headingId: ids.HeadingId,
  ): Promise<OutlineView> {
    return this.outline.remove(person, headingId);
  }

  @Endpoint('POST /headings/:headingId/restore', {
    id: 'restoreHeading',
    does: 'Restore a deleted heading, with what stands under it',
    answer: OutlineView,
  })
  restore(
    @CurrentPerson() person: SignedIn,
    @IdParam('headingId', HeadingId) headingId: ids.HeadingId,
  ): Promise<OutlineView> {
    return this.outline.restore(person, headingId);
  }

  @Endpoint('POST /activities/:activityId/place', {
    id: 'placeActivity',
    does: 'Put an activity under a heading, or elsewhere in its order',
    body: PlaceActivity,
    answer: ActivityPlaced,
  })
  place(
    @CurrentPerson() person: SignedIn,
    @IdParam('activityId', ActivityId) activityId: ids.ActivityId,
    @Takes(PlaceActivity) to: PlaceActivity,
  ): Promise<ActivityPlaced> {
    return this.outline.place(person, activityId, to);
  }
}
