import { Controller } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { z } from 'zod';
import { CopyId, PageId } from '@jigsaw/contract/common';
import { AddPage, PageView, RevisionView, SavePage, WikiView } from '@jigsaw/contract/wiki';
import type * as ids from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import { CurrentPerson } from '../identity/index.js';
import { Endpoint, IdParam, Takes } from '../platform/endpoint.js';
import { WikiService } from './wiki.service.js';

@ApiTags('wiki')
@Controller('copies/:copyId/wiki')
export class WikiController {
  constructor(private readonly wikis: WikiService) {}

  @Endpoint('GET ', { id: 'readWiki', does: 'The pages of one copy', answer: WikiView })
  read(@CurrentPerson() person: SignedIn, @IdParam('copyId', CopyId) copyId: ids.CopyId): Promise<WikiView> {
    return this.wikis.read(person, copyId);
  }

  @Endpoint('POST pages', {
    id: 'addPage',
    does: 'Add a page',
    body: AddPage,
    largestKb: 1000,
    answer: PageView,
  })
  add(
    @CurrentPerson() person: SignedIn,
    @IdParam('copyId', CopyId) copyId: ids.CopyId,
    @Takes(AddPage) request: AddPage,
  ): Promise<PageView> {
    return this.wikis.add(person, copyId, request);
  }

  @Endpoint('GET pages/:pageId', {
    id: 'readPage',
    does: 'A page as it stands, and who saved it when',
    answer: PageView,
  })
  page(
    @CurrentPerson() person: SignedIn,
    @IdParam('copyId', CopyId) copyId: ids.CopyId,
    @IdParam('pageId', PageId) pageId: ids.PageId,
  ): Promise<PageView> {
    return this.wikis.page(person, copyId, pageId);
  }

  @Endpoint('PUT pages/:pageId', {
    id: 'savePage',
    does: 'Save a page as a new revision',
    body: SavePage,
    largestKb: 1000,
    answer: PageView,
  })
  save(
    @CurrentPerson() person: SignedIn,
    @IdParam('copyId', CopyId) copyId: ids.CopyId,
    @IdParam('pageId', PageId) pageId: ids.PageId,
    @Takes(SavePage) request: z.output<typeof SavePage>,
  ): Promise<PageView> {
    return this.wikis.save(person, copyId, pageId, request);
  }

  @Endpoint('DELETE pages/:pageId', {
    id: 'deletePage',
    does: 'Delete a page; its revisions stay',
    answer: PageView,
  })
  remove(
    @CurrentPerson() person: SignedIn,
    @IdParam('copyId', CopyId) copyId: ids.CopyId,
    @IdParam('pageId', PageId) pageId: ids.PageId,
  ): Promise<PageView> {
    return this.wikis.remove(person, copyId, pageId, true);
  }

  @Endpoint('POST pages/:pageId/restore', {
    id: 'restorePage',
    does: 'Restore a deleted page',
    answer: PageView,
  })
  restore(
    @CurrentPerson() person: SignedIn,
    @IdParam('copyId', CopyId) copyId: ids.CopyId,
    @IdParam('pageId', PageId) pageId: ids.PageId,
  ): Promise<PageView> {
    return this.wikis.remove(person, copyId, pageId, false);
  }

  @Endpoint('GET pages/:pageId/revisions/:number', {
    id: 'readRevision',
    does: 'A page as someone saved it',
    answer: RevisionView,
  })
  revision(
    @CurrentPerson() person: SignedIn,
    @IdParam('copyId', CopyId) copyId: ids.CopyId,
    @IdParam('pageId', PageId) pageId: ids.PageId,
    @IdParam('number', z.coerce.number().int().min(1).max(1_000_000)) number: number,
  ): Promise<RevisionView> {
    return this.wikis.revision(person, copyId, pageId, number);
  }
}
