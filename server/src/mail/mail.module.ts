import { Module } from '@nestjs/common';
import { IdentityModule } from '../identity/index.js';
import { MailController } from './mail.controller.js';
import { MailService } from './mail.service.js';
import { MailCarrier } from './mailCarrier.js';
import { MailedLinks } from './mailedLinks.js';

@Module({
  imports: [IdentityModule],
  controllers: [MailController],
  providers: [MailService, MailCarrier, MailedLinks],
  exports: [MailService],
})
export class MailModule {}
