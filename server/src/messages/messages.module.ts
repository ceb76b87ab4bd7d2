import { Module } from '@nestjs/common';
import { CourseModule } from '../course/index.js';
import { MailModule } from '../mail/index.js';
import { MessageMail } from './messageMail.js';
import { MessagesController } from './messages.controller.js';
import { MessagesService } from './messages.service.js';
import { RecipientsService } from './recipients.service.js';
import { SendingService } from './sending.service.js';

@Module({
  imports: [CourseModule, MailModule],
  controllers: [MessagesController],
  providers: [MessagesService, SendingService, RecipientsService, MessageMail],
  exports: [MessagesService],
})
export class MessagesModule {}
