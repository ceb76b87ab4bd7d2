import type { DynamicModule } from '@nestjs/common';
import { Global, Module } from '@nestjs/common';
import { APP_FILTER, APP_GUARD, APP_INTERCEPTOR } from '@nestjs/core';
import { TypeOrmModule } from '@nestjs/typeorm';
import { LoggerModule } from 'nestjs-pino';
import { CourseModule } from '../course/index.js';
import { DealingModule } from '../dealing/index.js';
import { DiscussionModule } from '../discussion/index.js';
import { HandInModule } from '../handin/index.js';
import { IdentityModule, SessionGuard, TurnsInterceptor } from '../identity/index.js';
import { LiveModule } from '../live/index.js';
import { MarksModule } from '../marks/index.js';
import { Clock } from '../platform/clock.js';
import type { Config } from '../platform/config.js';
import { CONFIG } from '../platform/config.js';
import { dataSourceOptions } from './dataSource.js';
import { FrontDoorController } from './frontDoor.controller.js';
import { BodyInterceptor } from '../platform/body.js';
import { AnswerInterceptor } from '../platform/endpoint.js';
import { loggedError, loggedPath } from '../platform/logged.js';
import { Happenings } from '../platform/happenings.js';
import { HealthController } from './health.controller.js';
import { ProblemFilter } from '../platform/problem.filter.js';
import { Texts } from '../platform/texts.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import { PlacingModule } from '../placing/index.js';
import { ReleaseModule } from '../release/index.js';
import { OutlineModule } from '../outline/index.js';
import { NotesModule } from '../notes/index.js';
import { MessagesModule } from '../messages/index.js';
import { ShelfModule } from '../shelf/index.js';
import { OwnFilesModule } from '../ownFiles/index.js';
import { RoomsModule } from '../rooms/index.js';
import { RosterModule } from '../roster/index.js';
import { SetsModule } from '../sets/index.js';
import { ForeseenModule } from '../foreseen/index.js';
import { PracticeModule } from '../practice/index.js';
import { ChecksModule } from '../checks/index.js';
import { SightlinesModule } from '../sightlines/index.js';
import { AuditModule } from '../audit/index.js';
import { TrackModule } from '../track/index.js';
import { CalendarModule } from '../calendar/index.js';
import { CallModule } from '../call/index.js';
import { QuestionnaireModule } from '../questionnaire/index.js';
import { ResourceModule } from '../resource/index.js';
import { NoticeModule } from '../notice/index.js';
import { WikiModule } from '../wiki/index.js';

@Global()
@Module({})
export class AppModule {
  static with(config: Config, clock: Clock): DynamicModule {
    const shared = [
      { provide: CONFIG, useValue: config },
      { provide: Clock, useValue: clock },
      Happenings,
      UnitOfWork,
      Texts,
    ];
    return {
      module: AppModule,
      global: true,
      imports: [
        LoggerModule.forRoot({
          forRoutes: ['{*splat}'],
          pinoHttp: {
            level: config.logLevel,
            // Ids and codes only: no names, no texts, no addresses, no cookies.
            serializers: {
              err: loggedError,
              req: (request: { id: unknown; method: string; url: string }) => ({
                id: request.id,
                method: request.method,
                path: loggedPath(request.url),
              }),
              res: (response: { statusCode: number }) => ({ status: response.statusCode }),
            },
            autoLogging: { ignore: (request) => !request.url?.startsWith('/api/') },
          },
        }),
        TypeOrmModule.forRoot({ ...dataSourceOptions(config.databaseUrl), retryAttempts: 0 }),
        IdentityModule,
        CourseModule,
        SetsModule,
        PlacingModule,
        DealingModule,
        RosterModule,
        ReleaseModule,
        OutlineModule,
        OwnFilesModule,
        NotesModule,
        ShelfModule,
        MessagesModule,
        SightlinesModule,
        ForeseenModule,
        ChecksModule,
        PracticeModule,
        RoomsModule,
        HandInModule,
        DiscussionModule,
        WikiModule,
        NoticeModule,
        ResourceModule,
        CallModule,
        QuestionnaireModule,
        CalendarModule,
        MarksModule,
        AuditModule,
        TrackModule,
        LiveModule,
      ],
      controllers: [HealthController, FrontDoorController],
      providers: [
        ...shared,
        { provide: APP_GUARD, useExisting: SessionGuard },
        { provide: APP_FILTER, useClass: ProblemFilter },
        { provide: APP_INTERCEPTOR, useClass: TurnsInterceptor },
        { provide: APP_INTERCEPTOR, useClass: BodyInterceptor },
        { provide: APP_INTERCEPTOR, useClass: AnswerInterceptor },
      ],
      exports: [CONFIG, Clock, Happenings, UnitOfWork, Texts],
    };
  }
}
