import { Module } from '@nestjs/common';
import { ReleaseModule } from '../release/index.js';
import { NewsController } from './news.controller.js';
import { News } from './news.service.js';

@Module({ imports: [ReleaseModule], controllers: [NewsController], providers: [News], exports: [News] })
export class NewsModule {}
