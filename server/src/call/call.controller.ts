import { Controller } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { z } from 'zod';
import { CallView, SetDoor, StepIn, StillIn } from '@jigsaw/contract/call';
import { CopyId, VisitId } from '@jigsaw/contract/common';
import type * as ids from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import { CurrentPerson } from '../identity/index.js';
import { Endpoint, IdParam, Takes } from '../platform/endpoint.js';
import { CallService } from './call.service.js';

@ApiTags('call')
@Controller('copies/:copyId/call')
export class CallController {
  constructor(private readonly calls: CallService) {}

  @Endpoint('GET ', {
    id: 'readCall',
    does: 'Who is in, who came, and where the door leads',
    answer: CallView,
  })
  read(@CurrentPerson() person: SignedIn, @IdParam('copyId', CopyId) copyId: ids.CopyId): Promise<CallView> {
    return this.calls.read(person, copyId);
  }

  @Endpoint('POST visits', { id: 'stepIn', does: 'Step in', body: StepIn, answer: StillIn })
  stepIn(
    @CurrentPerson() person: SignedIn,
    @IdParam('copyId', CopyId) copyId: ids.CopyId,
    @Takes(StepIn) request: StepIn,
  ): Promise<StillIn> {
    return this.calls.stepIn(person, copyId, request);
  }

  @Endpoint('PUT visits/:visitId', { id: 'stayIn', does: 'Say that one is still there', answer: StillIn })
  stay(
    @CurrentPerson() person: SignedIn,
    @IdParam('copyId', CopyId) copyId: ids.CopyId,
    @IdParam('visitId', VisitId) visitId: ids.VisitId,
  ): Promise<StillIn> {
    return this.calls.stay(person, copyId, visitId);
  }

  @Endpoint('DELETE visits/:visitId', { id: 'leaveCall', does: 'Leave', answer: StillIn })
  leave(
    @CurrentPerson() person: SignedIn,
    @IdParam('copyId', CopyId) copyId: ids.CopyId,
    @IdParam('visitId', VisitId) visitId: ids.VisitId,
  ): Promise<StillIn> {
    return this.calls.leave(person, copyId, visitId);
  }

  @Endpoint('PUT door', { id: 'setDoor', does: 'Say where the door leads', body: SetDoor, answer: CallView })
  setDoor(
    @CurrentPerson() person: SignedIn,
    @IdParam('copyId', CopyId) copyId: ids.CopyId,
    @Takes(SetDoor) request: z.output<typeof SetDoor>,
  ): Promise<CallView> {
    return this.calls.setDoor(person, copyId, request);
  }
}
