import { Controller, Query } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { z } from 'zod';
import { CopyId, PostId } from '@jigsaw/contract/common';
import {
  AddPost,
  ChangePost,
  DiscussionView,
  PostSaved,
  TalkChanges,
  TalkMoment,
} from '@jigsaw/contract/discussion';
import type * as ids from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import { CurrentPerson } from '../identity/index.js';
import { Endpoint, IdParam, Takes } from '../platform/endpoint.js';
import { problems } from '../platform/problems.js';
import { DiscussionService } from './discussion.service.js';

const Since = z.string().regex(/^\d+$/).transform(Number).pipe(TalkMoment);

@ApiTags('discussion')
@Controller('copies/:copyId')
export class DiscussionController {
  constructor(private readonly discussions: DiscussionService) {}

  @Endpoint('GET discussion', {
    id: 'readDiscussion',
    does: 'Threads with their posts, a page at a time (?after=thread)',
    answer: DiscussionView,
  })
  read(
    @CurrentPerson() person: SignedIn,
    @IdParam('copyId', CopyId) copyId: ids.CopyId,
    @Query('after') after: unknown,
  ): Promise<DiscussionView> {
    const cursor = PostId.safeParse(after);
    return this.discussions.read(person, copyId, cursor.success ? cursor.data : null);
  }

  @Endpoint('GET discussion/changes', {
    id: 'readTalkChanges',
    does: 'Threads in which something happened (?since=the moment of an earlier answer)',
    answer: TalkChanges,
  })
  changes(
    @CurrentPerson() person: SignedIn,
    @IdParam('copyId', CopyId) copyId: ids.CopyId,
    @Query('since') since: unknown,
  ): Promise<TalkChanges> {
    const moment = Since.safeParse(since);
    if (!moment.success) throw problems.invalidInput('Say since when.');
    return this.discussions.changes(person, copyId, moment.data);
  }

  @Endpoint('POST posts', {
    id: 'addPost',
    does: 'Start a thread or reply to a post',
    body: AddPost,
    largestKb: 1000,
    answer: PostSaved,
  })
  add(
    @CurrentPerson() person: SignedIn,
    @IdParam('copyId', CopyId) copyId: ids.CopyId,
    @Takes(AddPost) request: z.output<typeof AddPost>,
  ): Promise<PostSaved> {
    return this.discussions.add(person, copyId, request);
  }

  @Endpoint('PUT posts/:postId', {
    id: 'changePost',
    does: "Edit one's own post",
    body: ChangePost,
    largestKb: 1000,
    answer: PostSaved,
  })
  change(
    @CurrentPerson() person: SignedIn,
    @IdParam('copyId', CopyId) copyId: ids.CopyId,
    @IdParam('postId', PostId) postId: ids.PostId,
    @Takes(ChangePost) request: z.output<typeof ChangePost>,
  ): Promise<PostSaved> {
    return this.discussions.change(person, copyId, postId, request);
  }

  @Endpoint('DELETE posts/:postId', {
    id: 'deletePost',
    does: 'Delete a post; replies to it stay',
    answer: PostSaved,
  })
  remove(
    @CurrentPerson() person: SignedIn,
    @IdParam('copyId', CopyId) copyId: ids.CopyId,
    @IdParam('postId', PostId) postId: ids.PostId,
  ): Promise<PostSaved> {
    return this.discussions.remove(person, copyId, postId, true);
  }

  @Endpoint('POST posts/:postId/restore', {
    id: 'restorePost',
    does: 'Restore a deleted post',
    answer: PostSaved,
  })
  restore(
    @CurrentPerson() person: SignedIn,
    @IdParam('copyId', CopyId) copyId: ids.CopyId,
    @IdParam('postId', PostId) postId: ids.PostId,
  ): Promise<PostSaved> {
    return this.discussions.remove(person, copyId, postId, false);
  }
}
