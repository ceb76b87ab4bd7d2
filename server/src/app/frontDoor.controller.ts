import { Controller, Inject } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { DataSource } from 'typeorm';
import { FrontDoor } from '@jigsaw/contract/identity';
import { sameAddress } from '@jigsaw/core/course';
import { keyedBy } from '@jigsaw/core/lists';
import { Public } from '../identity/index.js';
import type { Config } from '../platform/config.js';
import { CONFIG } from '../platform/config.js';
import { Endpoint } from '../platform/endpoint.js';

type DemoPerson = Omit<FrontDoor['demoPeople'][number], 'note'> & { readonly addressKey: string };

/** What the sign-in page offers before anybody is signed in. It looks into courses and groups, so it stands at the top. */
@ApiTags('identity')
@Controller('session')
export class FrontDoorController {
  constructor(
    private readonly dataSource: DataSource,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  @Public()
  @Endpoint('GET /front-door', {
    id: 'readFrontDoor',
    does: 'What the sign-in page offers',
    answer: FrontDoor,
  })
  async read(): Promise<FrontDoor> {
    const offered = this.config.demoPeople;
    if (offered.length === 0) return { demoPeople: [] };
    const people = keyedBy(
      await this.people(offered.map(({ email }) => sameAddress(email))),
      (person) => person.addressKey,
    );
    return {
      demoPeople: offered.flatMap(({ email, note }) => {
        const person = people.get(sameAddress(email));
        return person ? [{ ...person, note }] : [];
      }),
    };
  }

  /** Each with the course that they joined first, and the number of their group in its largest set. */
  private people(addressKeys: readonly string[]): Promise<DemoPerson[]> {
    return this.dataSource.query<DemoPerson[]>(
      `SELECT DISTINCT ON (p."personId") p."personId", p."addressKey", p."name", p."reading", p."role", p."courseId",
              (SELECT g."number" FROM "seat" s JOIN "set_group" g ON g."groupId" = s."groupId"
                WHERE s."enrolmentId" = p."enrolmentId" AND s."setId" =
                  (SELECT each."setId" FROM "set_group" each WHERE each."courseId" = p."courseId"
                    GROUP BY 1 ORDER BY count(*) DESC, min(each."setPosition") LIMIT 1)) AS "groupNumber"
         FROM "course_person" p WHERE p."addressKey" = ANY($1) AND p."leftAt" IS NULL ORDER BY p."personId", p."joinedAt"`,
      [addressKeys],
    );
  }
}
