import { Controller, Inject, Req, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { Done, SessionId } from '@jigsaw/contract/common';
import {
  DemoSignIn,
  LinkView,
  LookAtLink,
  OpenLink,
  OpenSessions,
  SessionView,
  SignIn,
} from '@jigsaw/contract/identity';
import type * as ids from '@jigsaw/core/ids';
import type { Config } from '../platform/config.js';
import { CONFIG } from '../platform/config.js';
import { Endpoint, IdParam, Takes } from '../platform/endpoint.js';
import { PeopleService } from './people.service.js';
import { cameFrom, clientOf } from './cameFrom.js';
import type { Entered, From } from './session.service.js';
import { deviceDays, sessionDays, SessionService } from './session.service.js';
import type { SignedIn } from './signedIn.js';
import { CurrentPerson, CurrentSession, Public } from './signedIn.js';
import { WhileSittingIn } from './sittingIn.js';

const dayMs = 86_400_000;

@ApiTags('identity')
@Controller('session')
export class IdentityController {
  constructor(
    private readonly sessions: SessionService,
    private readonly people: PeopleService,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  @Public()
  @Endpoint('POST /', {
    id: 'signIn',
    does: 'Sign in with address and password',
    body: SignIn,
    largestKb: 8,
    answer: SessionView,
  })
  async signIn(
    @Takes(SignIn) { email, password }: SignIn,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<SessionView> {
    return this.enter(response, await this.sessions.signIn(email, password, this.from(request)));
  }

  @Public()
  @Endpoint('POST /demo', {
    id: 'signInAsDemoPerson',
    does: 'Sign in as one of the demo people (demo mode)',
    body: DemoSignIn,
    largestKb: 8,
    answer: SessionView,
  })
  async signInAsDemoPerson(
    @Takes(DemoSignIn) { personId }: DemoSignIn,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<SessionView> {
    return this.enter(response, await this.sessions.signInAsDemoPerson(personId, this.from(request)));
  }

  /** Asked with the token in the body, so that it stands in no address and no log. */
  @Public()
  @Endpoint('POST /link', {
    id: 'lookAtLink',
    does: 'Who a sign-in link is for and what it asks for; changes nothing',
    body: LookAtLink,
    largestKb: 8,
    answer: LinkView,
  })
  lookAtLink(@Takes(LookAtLink) { token }: LookAtLink): Promise<LinkView> {
    return this.people.lookAtLink(token);
  }

  @Public()
  @Endpoint('POST /password', {
    id: 'openLink',
    does: 'Sign in with a link, and the password or a new one',
    body: OpenLink,
    largestKb: 8,
    answer: SessionView,
  })
  async openLink(
    @Takes(OpenLink) { token, password }: OpenLink,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<SessionView> {
    return this.enter(response, await this.people.openLink(token, password, this.from(request)));
  }

  @WhileSittingIn()
  @Endpoint('GET /', { id: 'readSession', does: 'Who is signed in', answer: SessionView })
  session(@CurrentPerson() person: SignedIn): SessionView {
    return viewOf(person);
  }

  @Endpoint('DELETE /', { id: 'signOut', does: 'Sign out', answer: Done })
  async signOut(@Req() request: Request, @Res({ passthrough: true }) response: Response): Promise<Done> {
    const token = (request.cookies as Record<string, string>)[this.config.cookieName];
    if (token !== undefined) await this.sessions.end(token);
    response.clearCookie(this.config.cookieName, { path: '/', secure: this.config.isSecure });
    return { done: true };
  }

  @Endpoint('GET /open', {
    id: 'readOpenSessions',
    does: 'Where this account is signed in',
    answer: OpenSessions,
  })
  async open(
    @CurrentPerson() person: SignedIn,
    @CurrentSession() current: ids.SessionId,
  ): Promise<OpenSessions> {
    const sessions = await this.sessions.ofPerson(person.id);
    return {
      sessions: sessions
        .map(({ id, cameFrom, createdAt, seenAt }) => ({
          id,
          cameFrom,
          since: createdAt.toISOString(),
          seenAt: seenAt.toISOString(),
          isThis: id === current,
        }))
        .sort((a, b) => Number(b.isThis) - Number(a.isThis)),
    };
  }

  @Endpoint('DELETE /open/:sessionId', {
    id: 'endSession',
    does: 'Sign this account out in one other place',
    answer: Done,
  })
  async endOne(
    @CurrentPerson() person: SignedIn,
    @IdParam('sessionId', SessionId) sessionId: ids.SessionId,
  ): Promise<Done> {
    await this.sessions.endOwn(person.id, sessionId);
    return { done: true };
  }

  @Endpoint('DELETE /open', {
    id: 'endOtherSessions',
    does: 'Sign this account out everywhere else',
    answer: Done,
  })
  async endOthers(
    @CurrentPerson() person: SignedIn,
    @CurrentSession() current: ids.SessionId,
  ): Promise<Done> {
    await this.sessions.endOthers(person.id, current);
    return { done: true };
  }

  private from(request: Request): From {
    const known = (request.cookies as Record<string, unknown>)[this.deviceCookie];
    return {
      program: cameFrom(request),
      client: clientOf(request),
      deviceToken: typeof known === 'string' ? known : null,
    };
  }

  private get deviceCookie(): string {
    return `${this.config.cookieName}_known`;
  }

  private enter(response: Response, { token, deviceToken, person }: Entered): SessionView {
    const always = { httpOnly: true, sameSite: 'lax', secure: this.config.isSecure, path: '/' } as const;
    response.cookie(this.config.cookieName, token, { ...always, maxAge: sessionDays * dayMs });
    response.cookie(this.deviceCookie, deviceToken, { ...always, maxAge: deviceDays * dayMs });
    return viewOf(person);
  }
}

const viewOf = ({ id, name, reading, email, mayCreateCourses, isProven, sitsIn }: SignedIn): SessionView => ({
  person: { id, name, reading, email },
  mayCreateCourses,
  isProven,
  sitsIn: sitsIn && {
    courseId: sitsIn.courseId,
    enrolmentId: sitsIn.enrolmentId,
    practisesIn: sitsIn.practises && { groupId: sitsIn.practises.groupId, name: sitsIn.practises.groupName },
  },
});
