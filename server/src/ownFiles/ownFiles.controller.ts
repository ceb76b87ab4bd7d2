import { Controller, Query, Req, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { z } from 'zod';
import { CopyId, FileId } from '@jigsaw/contract/common';
import { OwnFiles, RestoreOwnVersion } from '@jigsaw/contract/ownFiles';
import type * as ids from '@jigsaw/core/ids';
import { receivedFile, sendFile } from '../files/index.js';
import type { SignedIn } from '../identity/index.js';
import { CurrentPerson } from '../identity/index.js';
import { Endpoint, IdParam, Takes } from '../platform/endpoint.js';
import { problems } from '../platform/problems.js';
import { OwnFilesService } from './ownFiles.service.js';

const VersionNumber = z.coerce.number().int().min(0).max(1_000_000);

@ApiTags('ownFiles')
@Controller('copies/:copyId/own-files/:fileId')
export class OwnFilesController {
  constructor(private readonly ownFiles: OwnFilesService) {}

  @Endpoint('POST versions', {
    id: 'putOwnFile',
    does: 'Upload a new version of a file that a copy has as its own: its bytes as the body (application/octet-stream); its name, its type and the newest version that was seen in the query',
    lasts: true,
    answer: OwnFiles,
  })
  put(
    @CurrentPerson() person: SignedIn,
    @IdParam('copyId', CopyId) copyId: ids.CopyId,
    @IdParam('fileId', FileId) fileId: ids.FileId,
    @Query('name') name: unknown,
    @Query('type') type: unknown,
    @Query('newest') newest: unknown,
    @Req() request: Request,
  ): Promise<OwnFiles> {
    const seen = VersionNumber.safeParse(newest);
    if (!seen.success) throw problems.invalidInput('Say which version is the newest that was seen.');
    return this.ownFiles.put(person, copyId, fileId, seen.data, receivedFile(request, name, type));
  }

  @Endpoint('POST restore', {
    id: 'restoreOwnFile',
    does: 'Make an earlier version the newest again',
    body: RestoreOwnVersion,
    answer: OwnFiles,
  })
  restore(
    @CurrentPerson() person: SignedIn,
    @IdParam('copyId', CopyId) copyId: ids.CopyId,
    @IdParam('fileId', FileId) fileId: ids.FileId,
    @Takes(RestoreOwnVersion) request: RestoreOwnVersion,
  ): Promise<OwnFiles> {
    return this.ownFiles.restore(person, copyId, fileId, request);
  }

  @Endpoint('GET versions/:number', {
    id: 'readOwnFile',
    does: 'One version of a file that a copy has as its own',
    lasts: true,
  })
  async read(
    @CurrentPerson() person: SignedIn,
    @IdParam('copyId', CopyId) copyId: ids.CopyId,
    @IdParam('fileId', FileId) fileId: ids.FileId,
    @IdParam('number', VersionNumber) number: number,
    @Res() response: Response,
  ): Promise<void> {
    const { file, chunks } = await this.ownFiles.read(person, copyId, fileId, number);
    await sendFile(response, file, chunks);
  }
}
