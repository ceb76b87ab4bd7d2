import { Controller } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { DataSource } from 'typeorm';
import { z } from 'zod';
import { Public } from '../identity/index.js';
import { Endpoint } from '../platform/endpoint.js';
import { problems } from '../platform/problems.js';

const Health = z.object({ status: z.literal('ready') });

@ApiTags('platform')
@Controller('health')
export class HealthController {
  constructor(private readonly dataSource: DataSource) {}

  /** Ready means that the database answers too. */
  @Public()
  @Endpoint('GET /', { id: 'readHealth', does: 'Whether this server can do its work', answer: Health })
  async health(): Promise<z.infer<typeof Health>> {
    await this.dataSource.query('SELECT 1').catch(() => {
      throw problems.databaseAway();
    });
    return { status: 'ready' };
  }
}
