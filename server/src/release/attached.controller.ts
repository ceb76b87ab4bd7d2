import { Controller, Query, Req, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { ActivityId, CopyId, FileId } from '@jigsaw/contract/common';
import { AttachedFile } from '@jigsaw/contract/release';
import type * as ids from '@jigsaw/core/ids';
import { receivedFile, sendFile } from '../files/index.js';
import type { SignedIn } from '../identity/index.js';
import { CurrentPerson } from '../identity/index.js';
import { Endpoint, IdParam } from '../platform/endpoint.js';
import { AttachedService } from './attached.service.js';

@ApiTags('release')
@Controller()
export class AttachedController {
  constructor(private readonly attached: AttachedService) {}

  @Endpoint('POST /activities/:activityId/files', {
    id: 'attachFile',
    does: 'Upload a file for an activity: its bytes as the body (application/octet-stream), its name and type in the query',
    lasts: true,
    answer: AttachedFile,
  })
  add(
    @CurrentPerson() person: SignedIn,
    @IdParam('activityId', ActivityId) activityId: ids.ActivityId,
    @Query('name') name: unknown,
    @Query('type') type: unknown,
    @Req() request: Request,
  ): Promise<AttachedFile> {
    return this.attached.add(person, activityId, receivedFile(request, name, type));
  }

  @Endpoint('GET /activities/:activityId/files/:fileId', {
    id: 'readFileOfActivity',
    does: 'An attached file, for those who write the activity',
    lasts: true,
  })
  async ofActivity(
    @CurrentPerson() person: SignedIn,
    @IdParam('activityId', ActivityId) activityId: ids.ActivityId,
    @IdParam('fileId', FileId) fileId: ids.FileId,
    @Res() response: Response,
  ): Promise<void> {
    const { file, chunks } = await this.attached.ofActivity(person, activityId, fileId);
    await sendFile(response, file, chunks);
  }

  @Endpoint('GET /copies/:copyId/attached/:fileId', {
    id: 'readAttachedFile',
    does: 'An attached file, for those who have a copy',
    lasts: true,
  })
  async ofCopy(
    @CurrentPerson() person: SignedIn,
    @IdParam('copyId', CopyId) copyId: ids.CopyId,
    @IdParam('fileId', FileId) fileId: ids.FileId,
    @Res() response: Response,
  ): Promise<void> {
    const { file, chunks } = await this.attached.ofCopy(person, copyId, fileId);
    await sendFile(response, file, chunks);
  }
}
