import { Controller, Req } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Request } from 'express';
import { Done } from '@jigsaw/contract/common';
import { MailLink } from '@jigsaw/contract/identity';
import { clientOf, Public, Tries } from '../identity/index.js';
import { Endpoint, Takes } from '../platform/endpoint.js';
import { MailedLinks } from './mailedLinks.js';

@ApiTags('identity')
@Controller('session')
export class MailController {
  constructor(
    private readonly mailedLinks: MailedLinks,
    private readonly tries: Tries,
  ) {}

  @Public()
  @Endpoint('POST /mailed-link', {
    id: 'mailLink',
    does: 'Ask for a sign-in link by mail; says the same whether or not anybody has the address',
    body: MailLink,
    largestKb: 8,
    answer: Done,
  })
  async mailLink(@Takes(MailLink) { email }: MailLink, @Req() request: Request): Promise<Done> {
    await this.tries.countMailed(clientOf(request));
    this.mailedLinks.ask(email);
    return { done: true };
  }
}
