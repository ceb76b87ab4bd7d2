import { Module } from '@nestjs/common';
import { CourseModule } from '../course/index.js';
import { AuditController } from './audit.controller.js';
import { AuditService } from './audit.service.js';

@Module({
  imports: [CourseModule],
  controllers: [AuditController],
  providers: [AuditService],
})
export class AuditModule {}
