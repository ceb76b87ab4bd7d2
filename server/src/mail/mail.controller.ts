import { Controller } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { Done } from '@jigsaw/contract/common';
import { MailLink } from '@jigsaw/contract/identity';
import { Public } from '../identity/index.js';
import { Endpoint, Takes } from '../platform/endpoint.js';
import { MailedLinks } from './mailedLinks.js';

@ApiTags('identity')
@Controller('session')
export class MailController {
  constructor(private readonly mailedLinks: MailedLinks) {}

  @Public()
  @Endpoint('POST /mailed-link', {
    id: 'mailLink',
    does: 'Ask for a sign-in link by mail; says the same whether or not anybody has the address',
    body: MailLink,
    largestKb: 8,
    answer: Done,
  })
  mailLink(@Takes(MailLink) { email }: MailLink): Done {
    this.mailedLinks.ask(email);
    return { done: true };
  }
}
