import { Controller, Inject, Req, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { Done } from '@jigsaw/contract/common';
import { DemoSignIn, LinkView, LookAtLink, OpenLink, SessionView, SignIn } from '@jigsaw/contract/identity';
import type { Config } from '../platform/config.js';
import { CONFIG } from '../platform/config.js';
import { Endpoint, Takes } from '../platform/endpoint.js';
import { PeopleService } from './people.service.js';
import { cookieName } from './session.guard.js';
import { sessionDays, SessionService } from './session.service.js';
import type { SignedIn } from './signedIn.js';
import { CurrentPerson, Public } from './signedIn.js';

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
    answer: SessionView,
  })
  async signIn(
    @Takes(SignIn) { email, password }: SignIn,
    @Res({ passthrough: true }) response: Response,
  ): Promise<SessionView> {
    return this.enter(response, await this.sessions.signIn(email, password));
  }

  @Public()
  @Endpoint('POST /demo', {
    id: 'signInAsDemoPerson',
    does: 'Come in as one of the made-up people (demo mode)',
    body: DemoSignIn,
    answer: SessionView,
  })
  async signInAsDemoPerson(
    @Takes(DemoSignIn) { personId }: DemoSignIn,
    @Res({ passthrough: true }) response: Response,
  ): Promise<SessionView> {
    return this.enter(response, await this.sessions.signInAsDemoPerson(personId));
  }

  /** Asked with the token in the body, so that it stands in no address and no log. */
  @Public()
  @Endpoint('POST /link', {
    id: 'lookAtLink',
    does: 'Whom a sign-in link is for and what it asks for; changes nothing',
    body: LookAtLink,
    answer: LinkView,
  })
  lookAtLink(@Takes(LookAtLink) { token }: LookAtLink): Promise<LinkView> {
    return this.people.lookAtLink(token);
  }

  @Public()
  @Endpoint('POST /password', {
    id: 'openLink',
    does: 'Come in with a link, and the password or a new one',
    body: OpenLink,
    answer: SessionView,
  })
  async openLink(
    @Takes(OpenLink) { token, password }: OpenLink,
    @Res({ passthrough: true }) response: Response,
  ): Promise<SessionView> {
    return this.enter(response, await this.people.openLink(token, password));
  }

  @Endpoint('GET /', { id: 'readSession', does: 'Who is signed in', answer: SessionView })
  session(@CurrentPerson() person: SignedIn): SessionView {
    return viewOf(person);
  }

  @Endpoint('DELETE /', { id: 'signOut', does: 'Sign out', answer: Done })
  async signOut(@Req() request: Request, @Res({ passthrough: true }) response: Response): Promise<Done> {
    const token = (request.cookies as Record<string, string>)[cookieName];
    if (token !== undefined) await this.sessions.end(token);
    response.clearCookie(cookieName, { path: '/' });
    return { done: true };
  }

  private enter(response: Response, { token, person }: { token: string; person: SignedIn }): SessionView {
    response.cookie(cookieName, token, {
      httpOnly: true,
      sameSite: 'lax',
      secure: this.config.isSecure,
      path: '/',
      maxAge: sessionDays * 86_400_000,
    });
    return viewOf(person);
  }
}

const viewOf = ({ id, name, reading, email, mayCreateCourses, isProven }: SignedIn): SessionView => ({
  person: { id, name, reading, email },
  mayCreateCourses,
  isProven,
});
