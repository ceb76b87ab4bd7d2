import { Inject, Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource } from 'typeorm';
import type { AddCalendarAddress, CalendarAddresses, NewCalendarAddress } from '@jigsaw/contract/calendar';
import type { CalendarAddressId, PersonId } from '@jigsaw/core/ids';
import type { SignedIn } from '../identity/index.js';
import { hashToken, newToken } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import type { Config } from '../platform/config.js';
import { CONFIG } from '../platform/config.js';
import { newId } from '../platform/ids.js';
import { problems } from '../platform/problems.js';
import { CalendarAddressRow } from './calendar.rows.js';

const mostAddresses = 10;

/** The addresses under which someone's calendars read; each can be ended on its own. */
@Injectable()
export class AddressesService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly clock: Clock,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  list(person: SignedIn): Promise<CalendarAddresses> {
    return listOf(this.dataSource.manager, person.id);
  }

  /** @returns with the address, which is told this once. */
  async add(person: SignedIn, { label }: AddCalendarAddress): Promise<NewCalendarAddress> {
    const token = newToken();
    return this.dataSource.transaction(async (manager) => {
      await manager.query('SELECT pg_advisory_xact_lock(hashtextextended($1, 1))', [person.id]);
      if ((await manager.countBy(CalendarAddressRow, { personId: person.id })) >= mostAddresses)
        throw problems.conflict(
          `You have ${mostAddresses} calendar addresses already. Remove one that you no longer use.`,
        );
      await manager.insert(CalendarAddressRow, {
        id: newId<'calendar-address'>(),
        personId: person.id,
        tokenHash: hashToken(token),
        label,
        createdAt: this.clock.now(),
      });
      return {
        ...(await listOf(manager, person.id)),
        url: `${this.config.publicUrl}/api/calendars/${token}.ics`,
      };
    });
  }

  async remove(person: SignedIn, id: CalendarAddressId): Promise<CalendarAddresses> {
    await this.dataSource.manager.delete(CalendarAddressRow, { id, personId: person.id });
    return this.list(person);
  }

  /** Whose calendar an address reads; null: no one's. */
  async ownerOf(token: string): Promise<PersonId | null> {
    const row = await this.dataSource.manager.findOneBy(CalendarAddressRow, { tokenHash: hashToken(token) });
    return row?.personId ?? null;
  }
}

async function listOf(manager: EntityManager, personId: PersonId): Promise<CalendarAddresses> {
  const rows = await manager.find(CalendarAddressRow, { where: { personId }, order: { createdAt: 'ASC' } });
  return {
    addresses: rows.map(({ id, label, createdAt }) => ({ id, label, createdAt: createdAt.toISOString() })),
  };
}
