import { Module } from '@nestjs/common';
import { CourseModule } from '../course/index.js';
import { FilesModule } from '../files/index.js';
import { ShelfController } from './shelf.controller.js';
import { ShelfService } from './shelf.service.js';

@Module({
  imports: [CourseModule, FilesModule],
  controllers: [ShelfController],
  providers: [ShelfService],
})
export class ShelfModule {}
