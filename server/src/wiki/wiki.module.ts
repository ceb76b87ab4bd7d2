import { Module } from '@nestjs/common';
import { NewsModule } from '../news/index.js';
import { ReleaseModule } from '../release/index.js';
import { WikiController } from './wiki.controller.js';
import { WikiKind } from './wiki.kind.js';
import { WikiService } from './wiki.service.js';

@Module({
  imports: [ReleaseModule, NewsModule],
  controllers: [WikiController],
  providers: [WikiKind, WikiService],
})
export class WikiModule {}
