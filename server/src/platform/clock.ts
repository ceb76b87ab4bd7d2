import { Injectable } from '@nestjs/common';

/** The only source of the time on the server. The demo and the tests set it. */
@Injectable()
export class Clock {
  now(): Date {
    return new Date();
  }
}
