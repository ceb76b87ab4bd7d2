import { Controller, Param, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import { AddCalendarAddress, CalendarAddresses, NewCalendarAddress } from '@jigsaw/contract/calendar';
import { CalendarAddressId, CopyId } from '@jigsaw/contract/common';
import type * as ids from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import { CurrentPerson, Public } from '../identity/index.js';
import { Endpoint, IdParam, Takes } from '../platform/endpoint.js';
import { AddressesService } from './addresses.service.js';
import { CalendarService } from './calendar.service.js';

@ApiTags('calendar')
@Controller()
export class CalendarController {
  constructor(
    private readonly calendars: CalendarService,
    private readonly addresses: AddressesService,
  ) {}

  @Endpoint('GET /calendar-addresses', {
    id: 'listCalendarAddresses',
    does: "One's own calendar addresses",
    answer: CalendarAddresses,
  })
  list(@CurrentPerson() person: SignedIn): Promise<CalendarAddresses> {
    return this.addresses.list(person);
  }

  @Endpoint('POST /calendar-addresses', {
    id: 'addCalendarAddress',
    does: 'Make an address for a calendar; it is told this once',
    body: AddCalendarAddress,
    answer: NewCalendarAddress,
  })
  add(
    @CurrentPerson() person: SignedIn,
    @Takes(AddCalendarAddress) request: AddCalendarAddress,
  ): Promise<NewCalendarAddress> {
    return this.addresses.add(person, request);
  }

  @Endpoint('DELETE /calendar-addresses/:addressId', {
    id: 'removeCalendarAddress',
    does: 'End a calendar address',
    answer: CalendarAddresses,
  })
  remove(
    @CurrentPerson() person: SignedIn,
    @IdParam('addressId', CalendarAddressId) addressId: ids.CalendarAddressId,
  ): Promise<CalendarAddresses> {
    return this.addresses.remove(person, addressId);
  }

  /** Calendars have no session: the address is the key. */
  @Public()
  @Endpoint('GET /calendars/:file', {
    id: 'readCalendar',
    does: 'Events and due times of one person, as iCalendar',
    lasts: true,
  })
  async feed(@Param('file') file: string, @Res() response: Response): Promise<void> {
    const token = file.endsWith('.ics') ? file.slice(0, -'.ics'.length) : '';
    send(response, await this.calendars.feed(token));
  }

  @Endpoint('GET /copies/:copyId/event.ics', {
    id: 'readEventFile',
    does: 'One event as iCalendar',
    lasts: true,
  })
  async event(
    @CurrentPerson() person: SignedIn,
    @IdParam('copyId', CopyId) copyId: ids.CopyId,
    @Res() response: Response,
  ): Promise<void> {
    response.setHeader('Content-Disposition', 'attachment; filename="event.ics"');
    send(response, await this.calendars.event(person, copyId));
  }
}

function send(response: Response, file: string): void {
  response.setHeader('Content-Type', 'text/calendar; charset=utf-8');
  response.setHeader('Cache-Control', 'private, no-cache');
  response.send(file);
}
