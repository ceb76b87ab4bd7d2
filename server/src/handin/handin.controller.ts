import { Controller, Query, Req, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import type { z } from 'zod';
import { CopyId, FileId } from '@jigsaw/contract/common';
import { HandInRequest, SavePart, WorkView } from '@jigsaw/contract/handin';
import type * as ids from '@jigsaw/core/ids';
import { receivedFile, sendFile } from '../files/index.js';
import type { SignedIn } from '../identity/index.js';
import { CurrentPerson } from '../identity/index.js';
import { Endpoint, IdParam, Takes } from '../platform/endpoint.js';
import { HandInService } from './handin.service.js';

@ApiTags('handin')
@Controller()
export class HandInController {
  constructor(private readonly handIns: HandInService) {}

  @Endpoint('GET /copies/:copyId/work', {
    id: 'readWork',
    does: 'What is written, added and handed in',
    answer: WorkView,
  })
  read(@CurrentPerson() person: SignedIn, @IdParam('copyId', CopyId) copyId: ids.CopyId): Promise<WorkView> {
    return this.handIns.read(person, copyId);
  }

  @Endpoint('PUT /copies/:copyId/part', {
    id: 'savePart',
    does: "Save one's own part of the group's text",
    body: SavePart,
    largestKb: 1000,
    answer: WorkView,
  })
  savePart(
    @CurrentPerson() person: SignedIn,
    @IdParam('copyId', CopyId) copyId: ids.CopyId,
    @Takes(SavePart) part: z.output<typeof SavePart>,
  ): Promise<WorkView> {
    return this.handIns.savePart(person, copyId, part);
  }

  @Endpoint('POST /copies/:copyId/files', {
    id: 'addFile',
    does: 'Add a file: its bytes as the body (application/octet-stream), its name and type in the query',
    lasts: true,
    answer: WorkView,
  })
  addFile(
    @CurrentPerson() person: SignedIn,
    @IdParam('copyId', CopyId) copyId: ids.CopyId,
    @Query('name') name: unknown,
    @Query('type') type: unknown,
    @Req() request: Request,
  ): Promise<WorkView> {
    return this.handIns.addFile(person, copyId, receivedFile(request, name, type));
  }

  @Endpoint('DELETE /copies/:copyId/files/:fileId', {
    id: 'deleteFile',
    does: 'Delete a file that one has added',
    answer: WorkView,
  })
  remove(
    @CurrentPerson() person: SignedIn,
    @IdParam('copyId', CopyId) copyId: ids.CopyId,
    @IdParam('fileId', FileId) fileId: ids.FileId,
  ): Promise<WorkView> {
    return this.handIns.remove(person, copyId, fileId, true);
  }

  @Endpoint('POST /copies/:copyId/files/:fileId/restore', {
    id: 'restoreFile',
    does: 'Restore a deleted file',
    answer: WorkView,
  })
  restore(
    @CurrentPerson() person: SignedIn,
    @IdParam('copyId', CopyId) copyId: ids.CopyId,
    @IdParam('fileId', FileId) fileId: ids.FileId,
  ): Promise<WorkView> {
    return this.handIns.remove(person, copyId, fileId, false);
  }

  @Endpoint('GET /copies/:copyId/files/:fileId', { id: 'downloadFile', does: "A file's bytes", lasts: true })
  async download(
    @CurrentPerson() person: SignedIn,
    @IdParam('copyId', CopyId) copyId: ids.CopyId,
    @IdParam('fileId', FileId) fileId: ids.FileId,
    @Res() response: Response,
  ): Promise<void> {
    const { file, chunks } = await this.handIns.file(person, copyId, fileId);
    await sendFile(response, file, chunks);
  }

  @Endpoint('POST /copies/:copyId/hand-in', {
    id: 'handIn',
    does: 'Hand in, for the group or for oneself',
    body: HandInRequest,
    answer: WorkView,
  })
  handIn(
    @CurrentPerson() person: SignedIn,
    @IdParam('copyId', CopyId) copyId: ids.CopyId,
    @Takes(HandInRequest) request: HandInRequest,
  ): Promise<WorkView> {
    return this.handIns.handIn(person, copyId, request);
  }
}
