import { Controller, Query, Req, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { z } from 'zod';
import { Done, GroupId, ShelfFileId } from '@jigsaw/contract/common';
import { RestoreOwnVersion } from '@jigsaw/contract/ownFiles';
import { MarkSeenOnShelf, ShelfView } from '@jigsaw/contract/shelf';
import type * as ids from '@jigsaw/core/ids';
import { receivedFile, sendFile } from '../files/index.js';
import type { SignedIn } from '../identity/index.js';
import { CurrentPerson } from '../identity/index.js';
import { Endpoint, IdParam, Takes } from '../platform/endpoint.js';
import { problems } from '../platform/problems.js';
import { ShelfService } from './shelf.service.js';

const VersionNumber = z.coerce.number().int().min(1).max(1_000_000);

@ApiTags('shelf')
@Controller('groups/:groupId')
export class ShelfController {
  constructor(private readonly shelf: ShelfService) {}

  @Endpoint('GET shelf', {
    id: 'readShelf',
    does: 'What the members of a group share with one another, for them and for staff who see its work',
    answer: ShelfView,
  })
  read(
    @CurrentPerson() person: SignedIn,
    @IdParam('groupId', GroupId) groupId: ids.GroupId,
  ): Promise<ShelfView> {
    return this.shelf.read(person, groupId);
  }

  @Endpoint('POST shelf', {
    id: 'putOnShelf',
    does: "Put a file on the shelf of one's group: its bytes as the body (application/octet-stream), its name and type in the query; under a name that is there it is a new version",
    lasts: true,
    answer: ShelfView,
  })
  put(
    @CurrentPerson() person: SignedIn,
    @IdParam('groupId', GroupId) groupId: ids.GroupId,
    @Query('name') name: unknown,
    @Query('type') type: unknown,
    @Req() request: Request,
  ): Promise<ShelfView> {
    return this.shelf.put(person, groupId, receivedFile(request, name, type));
  }

  @Endpoint('POST shelf/seen', {
    id: 'markSeenOnShelf',
    does: 'What lies on a shelf was seen',
    body: MarkSeenOnShelf,
    answer: Done,
  })
  markSeen(
    @CurrentPerson() person: SignedIn,
    @IdParam('groupId', GroupId) groupId: ids.GroupId,
    @Takes(MarkSeenOnShelf) request: MarkSeenOnShelf,
  ): Promise<Done> {
    return this.shelf.markSeen(person, groupId, request);
  }

  @Endpoint('POST shelf/:fileId/versions', {
    id: 'putShelfVersion',
    does: 'Add a new version of a file on a shelf; the newest version that was seen in the query',
    lasts: true,
    answer: ShelfView,
  })
  putVersion(
    @CurrentPerson() person: SignedIn,
    @IdParam('groupId', GroupId) groupId: ids.GroupId,
    @IdParam('fileId', ShelfFileId) fileId: ids.ShelfFileId,
    @Query('name') name: unknown,
    @Query('type') type: unknown,
    @Query('newest') newest: unknown,
    @Req() request: Request,
  ): Promise<ShelfView> {
    const seen = VersionNumber.safeParse(newest);
    if (!seen.success) throw problems.invalidInput('Say which version is the newest that was seen.');
    return this.shelf.putVersion(person, groupId, fileId, seen.data, receivedFile(request, name, type));
  }

  @Endpoint('GET shelf/:fileId/versions/:number', {
    id: 'readShelfFile',
    does: 'One version of a file on a shelf',
    lasts: true,
  })
  async readFile(
    @CurrentPerson() person: SignedIn,
    @IdParam('groupId', GroupId) groupId: ids.GroupId,
    @IdParam('fileId', ShelfFileId) fileId: ids.ShelfFileId,
    @IdParam('number', VersionNumber) number: number,
    @Res() response: Response,
  ): Promise<void> {
    const { file, chunks } = await this.shelf.readFile(person, groupId, fileId, number);
    await sendFile(response, file, chunks);
  }

  @Endpoint('POST shelf/:fileId/versions/restore', {
    id: 'restoreShelfVersion',
    does: 'Make an earlier version of a file on a shelf the newest again',
    body: RestoreOwnVersion,
    answer: ShelfView,
  })
  restoreVersion(
    @CurrentPerson() person: SignedIn,
    @IdParam('groupId', GroupId) groupId: ids.GroupId,
    @IdParam('fileId', ShelfFileId) fileId: ids.ShelfFileId,
    @Takes(RestoreOwnVersion) request: RestoreOwnVersion,
  ): Promise<ShelfView> {
    return this.shelf.restoreVersion(person, groupId, fileId, request);
  }

  @Endpoint('DELETE shelf/:fileId', {
    id: 'removeShelfFile',
    does: 'Remove a file from a shelf; it can be restored',
    answer: ShelfView,
  })
  remove(
    @CurrentPerson() person: SignedIn,
    @IdParam('groupId', GroupId) groupId: ids.GroupId,
    @IdParam('fileId', ShelfFileId) fileId: ids.ShelfFileId,
  ): Promise<ShelfView> {
    return this.shelf.remove(person, groupId, fileId, true);
  }

  @Endpoint('POST shelf/:fileId/restore', {
    id: 'restoreShelfFile',
    does: 'A file that was removed lies on the shelf again',
    answer: ShelfView,
  })
  restore(
    @CurrentPerson() person: SignedIn,
    @IdParam('groupId', GroupId) groupId: ids.GroupId,
    @IdParam('fileId', ShelfFileId) fileId: ids.ShelfFileId,
  ): Promise<ShelfView> {
    return this.shelf.remove(person, groupId, fileId, false);
  }
}
