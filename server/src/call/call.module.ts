import { Module } from '@nestjs/common';
import { CallSettings } from '@jigsaw/contract/call';
import { callFacts } from '@jigsaw/core/call';
import { asNews, Kinds, ReleaseModule } from '../release/index.js';
import { CallController } from './call.controller.js';
import { CallService } from './call.service.js';

@Module({ imports: [ReleaseModule], controllers: [CallController], providers: [CallService] })
export class CallModule {
  constructor(kinds: Kinds) {
    kinds.register({ ...callFacts, ...asNews, settings: CallSettings });
  }
}
