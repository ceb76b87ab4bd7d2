import { Controller } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';

import { CourseId, GroupId, GroupSetId } from '@jigsaw/contract/common';
import { CourseSettings } from '@jigsaw/contract/course';
import {
  BoardGroup,
  BoardGroups,
  NameGroup,
  EditGroup,
  EditGroups,
  EditTopics,
  FreezeRequest,
  GroupNaming,
  GroupSetList,
  GroupSetView,
  LeadGroups,
  ArchiveRequest,
  SetOrder,
  SetRules,
  SetSettings,
} from '@jigsaw/contract/sets';
import type * as ids from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import { CurrentPerson } from '../identity/index.js';
import { Endpoint, IdParam, Takes } from '../platform/endpoint.js';
import { GroupsService } from './groups.service.js';
import { TopicsService } from './topics.service.js';
import { SetsService } from './sets.service.js';

@ApiTags('sets')
@Controller()
export class SetsController {
  constructor(
    private readonly sets: SetsService,
    private readonly groups: GroupsService,
    private readonly topics: TopicsService,
  ) {}

  @Endpoint('GET /courses/:courseId/sets', {
    id: 'listGroupSets',
    does: 'The group sets of a course',
    answer: GroupSetList,
  })
  list(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
  ): Promise<GroupSetList> {
    return this.sets.list(person, courseId);
  }

  @Endpoint('GET /courses/:courseId/settings', {
    id: 'readCourseSettings',
    does: 'What holds in the whole course, and for which of the staff',
    answer: CourseSettings,
  })
  courseSettings(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
  ): Promise<CourseSettings> {
    return this.sets.courseSettings(person, courseId);
  }

  @Endpoint('PATCH /sets/:setId', {
    id: 'changeGroupSet',
    does: 'Change what a set is called and how it is filled',
    body: SetSettings,
    answer: GroupSetView,
  })
  change(
    @CurrentPerson() person: SignedIn,
    @IdParam('setId', GroupSetId) setId: ids.GroupSetId,
    @Takes(SetSettings) settings: SetSettings,
  ): Promise<GroupSetView> {
    return this.sets.change(person, setId, settings);
  }

  @Endpoint('PUT /sets/:setId/rules', {
    id: 'changeRules',
    does: 'The rules for deals of this set',
    body: SetRules,
    largestKb: 1000,
    answer: GroupSetView,
  })
  changeRules(
    @CurrentPerson() person: SignedIn,
    @IdParam('setId', GroupSetId) setId: ids.GroupSetId,
    @Takes(SetRules) rules: SetRules,
  ): Promise<GroupSetView> {
    return this.sets.changeRules(person, setId, rules);
  }

  @Endpoint('POST /sets/:setId/freeze', {
    id: 'freezeGroupSet',
    does: 'Fix where students sit, or let them choose again',
    body: FreezeRequest,
    answer: GroupSetView,
  })
  freeze(
    @CurrentPerson() person: SignedIn,
    @IdParam('setId', GroupSetId) setId: ids.GroupSetId,
    @Takes(FreezeRequest) { isFrozen }: FreezeRequest,
  ): Promise<GroupSetView> {
    return this.sets.freeze(person, setId, isFrozen);
  }

  @Endpoint('POST /sets/:setId/archive', {
    id: 'archiveGroupSet',
    does: 'Archive or restore a set',
    body: ArchiveRequest,
    answer: GroupSetView,
  })
  archive(
    @CurrentPerson() person: SignedIn,
    @IdParam('setId', GroupSetId) setId: ids.GroupSetId,
    @Takes(ArchiveRequest) { isArchived }: ArchiveRequest,
  ): Promise<GroupSetView> {
    return this.sets.archive(person, setId, isArchived);
  }

  @Endpoint('PUT /courses/:courseId/sets/order', {
    id: 'orderGroupSets',
    does: 'In which order the sets are shown',
    body: SetOrder,
    answer: GroupSetList,
  })
  order(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @Takes(SetOrder) order: SetOrder,
  ): Promise<GroupSetList> {
    return this.sets.order(person, courseId, order);
  }

  @Endpoint('PATCH /groups/:groupId', {
    id: 'editGroup',
    does: "Change a group's name and capacity",
    body: EditGroup,
    answer: BoardGroup,
  })
  edit(
    @CurrentPerson() person: SignedIn,
    @IdParam('groupId', GroupId) groupId: ids.GroupId,
    @Takes(EditGroup) edit: EditGroup,
  ): Promise<BoardGroup> {
    return this.groups.edit(person, groupId, edit);
  }

  @Endpoint('PUT /sets/:setId/groups', {
    id: 'editGroups',
    does: 'Edit, add and remove groups of a set at once',
    body: EditGroups,
    largestKb: 1000,
    answer: BoardGroups,
  })
  editAll(
    @CurrentPerson() person: SignedIn,
    @IdParam('setId', GroupSetId) setId: ids.GroupSetId,
    @Takes(EditGroups) edit: EditGroups,
  ): Promise<BoardGroups> {
    return this.groups.editAll(person, setId, edit);
  }

  @Endpoint('PUT /sets/:setId/topics', {
    id: 'editTopics',
    does: 'Topics of expert tables, and how many tables each has',
    body: EditTopics,
    answer: BoardGroups,
  })
  editTopics(
    @CurrentPerson() person: SignedIn,
    @IdParam('setId', GroupSetId) setId: ids.GroupSetId,
    @Takes(EditTopics) edit: EditTopics,
  ): Promise<BoardGroups> {
    return this.topics.edit(person, setId, edit);
  }

  @Endpoint('PUT /sets/:setId/leads', {
    id: 'leadGroups',
    does: 'Which staff lead these groups',
    body: LeadGroups,
    largestKb: 2000,
    answer: BoardGroups,
  })
  lead(
    @CurrentPerson() person: SignedIn,
    @IdParam('setId', GroupSetId) setId: ids.GroupSetId,
    @Takes(LeadGroups) request: LeadGroups,
  ): Promise<BoardGroups> {
    return this.groups.lead(person, setId, request);
  }

  @Endpoint('PATCH /groups/:groupId/naming', {
    id: 'nameGroup',
    does: 'The name and motto that members give their group',
    body: NameGroup,
    answer: GroupNaming,
  })
  nameByMember(
    @CurrentPerson() person: SignedIn,
    @IdParam('groupId', GroupId) groupId: ids.GroupId,
    @Takes(NameGroup) naming: NameGroup,
  ): Promise<GroupNaming> {
    return this.groups.nameByMember(person, groupId, naming);
  }
}
