import { Controller, Query, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import { AuditChoice, AuditFilter, AuditTrail } from '@jigsaw/contract/audit';
import { CourseId } from '@jigsaw/contract/common';
import type * as ids from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import { CurrentPerson } from '../identity/index.js';
import { Endpoint, IdParam } from '../platform/endpoint.js';
import { problems } from '../platform/problems.js';
import { sendExport } from '../platform/sendExport.js';
import { AuditService } from './audit.service.js';

@ApiTags('audit')
@Controller('courses/:courseId')
export class AuditController {
  constructor(private readonly audit: AuditService) {}

  @Endpoint('GET audit', {
    id: 'readAudit',
    does: 'Who did what in a course, the latest first; narrowed by kind, person, group and activity in the query',
    answer: AuditTrail,
  })
  read(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @Query() query: unknown,
  ): Promise<AuditTrail> {
    return this.audit.read(person, courseId, filterOf(query));
  }

  @Endpoint('GET audit/choice', {
    id: 'readAuditChoice',
    does: 'What the audit trail can be narrowed to',
    answer: AuditChoice,
  })
  choice(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
  ): Promise<AuditChoice> {
    return this.audit.choice(person, courseId);
  }

  @Endpoint('GET audit.csv', { id: 'exportAudit', does: 'Who did what in a course, as CSV' })
  async csv(
    @CurrentPerson() person: SignedIn,
    @IdParam('courseId', CourseId) courseId: ids.CourseId,
    @Query() query: unknown,
    @Res() response: Response,
  ): Promise<void> {
    const csv = await this.audit.csv(person, courseId, filterOf(query));
    sendExport(response, 'audit.csv', 'text/csv; charset=utf-8', csv);
  }
}

/** @throws invalid-input for what no trail can be narrowed to. */
function filterOf(query: unknown): AuditFilter {
  const filter = AuditFilter.safeParse(query);
  if (!filter.success)
    throw problems.invalidInput('The trail cannot be narrowed to this. Choose from the lists.');
  return filter.data;
}
