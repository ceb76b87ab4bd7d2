import { Controller, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import type { z } from 'zod';
import { CourseId, EnrolmentId, RosterChangeId } from '@jigsaw/contract/common';
import { SignInLinks } from '@jigsaw/contract/identity';
import { Invited, InviteRequest, Outbox } from '@jigsaw/contract/mail';
import {
  ImportPreview,
  ImportRequest,
  ImportResult,
  PreviewRequest,
  TableRequest,
  TableView,
} from '@jigsaw/contract/import';
import {
  ChooseKind,
  RegistrarView,
  RosterAct,
  RosterAttributes,
  RosterChanged,
  RosterChangeList,
  RosterView,
} from '@jigsaw/contract/roster';
import type * as ids from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import { CurrentPerson } from '../identity/index.js';
import { sendExport } from '../platform/sendExport.js';
import { Endpoint, IdParam, Takes } from '../platform/endpoint.js';
import { ImportService } from './import.service.js';
import { RegistrarService } from './registrar.service.js';
import { RosterService } from './roster.service.js';
import { RosterChanges } from './rosterChanges.service.js';
import { WaysIn } from './waysIn.service.js';

const listTooLarge =
  'The file is larger than 10 MB. A class list is smaller: check that this is the right file.';

@ApiTags('roster')
@Controller('courses')
export class RosterController {
  constructor(
    private readonly roster: RosterService,
    private readonly imports: ImportService,
    private readonly changes: RosterChanges,
    private readonly registrars: RegistrarService,
    private readonly waysIn: WaysIn,
  ) {}

  @Endpoint('GET /:courseId/roster', {
    id: 'readRoster',
    does: 'Everyone in the course with their groups',
    answer: RosterView,
  })
  read(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
  ): Promise<RosterView> {
    return this.roster.read(person, courseId);
  }

  @Endpoint('GET /:courseId/roster.csv', { id: 'exportRoster', does: 'The roster with all groups as CSV' })
  async exportCsv(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @Res() response: Response,
  ): Promise<void> {
    sendExport(response, 'roster.csv', 'text/csv; charset=utf-8', await this.roster.csv(person, courseId));
  }

  @Endpoint('GET /:courseId/roster.zip', {
    id: 'exportRosterBundle',
    does: 'The roster with all groups as a OneRoster 1.1 CSV bundle',
  })
  async exportBundle(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @Res() response: Response,
  ): Promise<void> {
    const bundle = Buffer.from(await this.roster.bundle(person, courseId));
    sendExport(response, 'roster.zip', 'application/zip', bundle);
  }

  @Endpoint('POST /:courseId/roster/preview', {
    id: 'previewImport',
    does: 'What a class file or a paste would change; changes nothing',
    body: PreviewRequest,
    largestKb: 16000,
    tooLarge: listTooLarge,
    answer: ImportPreview,
  })
  preview(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @Takes(PreviewRequest) request: z.output<typeof PreviewRequest>,
  ): Promise<ImportPreview> {
    return this.imports.preview(person, courseId, request);
  }

  @Endpoint('POST /:courseId/roster/table', {
    id: 'readTable',
    does: 'A workbook or a delimited file as a table; nothing is kept',
    body: TableRequest,
    largestKb: 16000,
    tooLarge: listTooLarge,
    answer: TableView,
  })
  table(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @Takes(TableRequest) request: z.output<typeof TableRequest>,
  ): Promise<TableView> {
    return this.imports.table(person, courseId, request);
  }

  @Endpoint('POST /:courseId/roster/import', {
    id: 'applyImport',
    does: 'Import what was previewed, all or nothing',
    body: ImportRequest,
    largestKb: 16000,
    tooLarge: listTooLarge,
    answer: ImportResult,
  })
  apply(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @Takes(ImportRequest) request: z.output<typeof ImportRequest>,
  ): Promise<ImportResult> {
    return this.imports.apply(person, courseId, request);
  }

  @Endpoint('GET /:courseId/registrar', {
    id: 'readRegistrar',
    does: 'What the school’s registrar offers this course',
    answer: RegistrarView,
  })
  registrar(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
  ): Promise<RegistrarView> {
    return this.registrars.view(person, courseId);
  }

  @Endpoint('PUT /:courseId/roster/attributes', {
    id: 'chooseKind',
    does: 'Say what an attribute is',
    body: ChooseKind,
    answer: RosterAttributes,
  })
  chooseKind(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @Takes(ChooseKind) choice: ChooseKind,
  ): Promise<RosterAttributes> {
    return this.roster.chooseKind(person, courseId, choice);
  }

  @Endpoint('GET /:courseId/roster/changes', {
    id: 'listRosterChanges',
    does: 'Recent changes to the roster, and who made them',
    answer: RosterChangeList,
  })
  listChanges(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
  ): Promise<RosterChangeList> {
    return this.changes.list(person, courseId);
  }

  @Endpoint('POST /:courseId/roster/changes', {
    id: 'changeRoster',
    does: 'Add, edit, remove or restore people, all or nothing',
    body: RosterAct,
    largestKb: 4000,
    answer: RosterChanged,
  })
  change(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @Takes(RosterAct) act: z.output<typeof RosterAct>,
  ): Promise<RosterChanged> {
    return this.changes.act(person, courseId, act);
  }

  @Endpoint('POST /:courseId/roster/changes/:changeId/undo', {
    id: 'undoRosterChange',
    does: 'Undo one change of the roster as a whole',
    answer: RosterChanged,
  })
  undo(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @IdParam('changeId', RosterChangeId) changeId: ids.RosterChangeId,
  ): Promise<RosterChanged> {
    return this.changes.undo(person, courseId, changeId);
  }

  @Endpoint('POST /:courseId/roster/invitations', {
    id: 'invitePeople',
    does: 'Write to people who have not signed in yet, each with a link of their own',
    body: InviteRequest,
    largestKb: 512,
    answer: Invited,
  })
  invite(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @Takes(InviteRequest) request: z.output<typeof InviteRequest>,
  ): Promise<Invited> {
    return this.waysIn.invite(person, courseId, request);
  }

  @Endpoint('GET /:courseId/outbox', { id: 'readOutbox', does: 'Mail as it would have gone', answer: Outbox })
  outbox(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
  ): Promise<Outbox> {
    return this.roster.outbox(person, courseId);
  }

  @Endpoint('POST /:courseId/roster/sign-in-links', {
    id: 'makeSignInLinks',
    does: 'Sign-in links for people who have not signed in yet',
    answer: SignInLinks,
  })
  links(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
  ): Promise<SignInLinks> {
    return this.waysIn.links(person, courseId, null);
  }

  @Endpoint('POST /:courseId/roster/:enrolmentId/sign-in-link', {
    id: 'makeSignInLink',
    does: 'A sign-in link for one person who has not signed in yet',
    answer: SignInLinks,
  })
  link(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @IdParam('enrolmentId', EnrolmentId) enrolmentId: ids.EnrolmentId,
  ): Promise<SignInLinks> {
    return this.waysIn.links(person, courseId, enrolmentId);
  }
}
