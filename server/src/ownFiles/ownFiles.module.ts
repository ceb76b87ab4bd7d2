import { Module } from '@nestjs/common';
import { In } from 'typeorm';
import { FilesModule } from '../files/index.js';
import { Kinds, ReleaseModule } from '../release/index.js';
import { OwnFilesController } from './ownFiles.controller.js';
import { OwnVersionRow } from './ownFiles.rows.js';
import { OwnFilesService } from './ownFiles.service.js';

@Module({
  imports: [ReleaseModule, FilesModule],
  controllers: [OwnFilesController],
  providers: [OwnFilesService],
  exports: [OwnFilesService],
})
export class OwnFilesModule {
  constructor(kinds: Kinds) {
    kinds.addTrace('work', (manager, copyIds) =>
      manager.existsBy(OwnVersionRow, { copyId: In([...copyIds]) }),
    );
  }
}
