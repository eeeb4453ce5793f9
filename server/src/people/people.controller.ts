import { Body, Controller, Delete, Get, HttpCode, Param, Post, Put, Req } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import {
  FirstAccount,
  FirstPassword,
  NewPerson,
  PasswordChange,
  PracticeSettingsChange,
  type PracticeSettingsState,
  Recovery,
  type Session,
  SignIn,
  type Who,
} from '@radiant/contract';
import type { Request } from 'express';
import { BEFORE_SIGN_IN, TakesBody } from '../common/body.js';
import { Checked } from '../common/checked.pipe.js';
import { PeopleService } from './people.service.js';
import { PracticeSettingsService } from './practice-settings.service.js';
import { Allow, Me, Public, type Rule, type SignedIn } from './session.js';

const dentists: Rule = (me) =>
  me.role === 'dentist' ? undefined : 'Only a dentist adds and ends people, and sets what holds for the practice.';

@ApiTags('people')
@Controller()
export class PeopleController {
  constructor(
    private readonly people: PeopleService,
    private readonly settings: PracticeSettingsService,
  ) {}

  /** The signed-in person, or null; and whether the house still waits for its first account. */
  @Public()
  @Get('session')
  async session(@Me() me: SignedIn | undefined): Promise<Session> {
    if (!me) return { who: null, firstAccountNeeded: await this.people.isEmpty(), draftKey: null, drafts: 'sealed' };
    return {
      who: await this.who(me),
      firstAccountNeeded: false,
      draftKey: this.people.draftKey(me),
      drafts: (await this.settings.of(me.practiceId)).drafts,
    };
  }

  private async who({ id, name, role, practice, practiceId }: SignedIn): Promise<Who> {
    return { id, name, role, practice, notation: (await this.settings.of(practiceId)).notation };
  }

  /** What the practice has set. */
  @Get('practice/settings')
  practiceSettings(@Me() me: SignedIn): Promise<PracticeSettingsState> {
    return this.settings.state(me.practiceId);
  }

  @Put('practice/settings')
  @Allow(dentists)
  async setPractice(
    @Body(new Checked(PracticeSettingsChange)) change: PracticeSettingsChange,
    @Me() me: SignedIn,
  ): Promise<PracticeSettingsState> {
    return this.settings.set(change, me);
  }

  @Public()
  @Post('session')
  @HttpCode(200)
  @TakesBody(BEFORE_SIGN_IN)
  async signIn(@Body(new Checked(SignIn)) input: SignIn, @Req() request: Request): Promise<Who> {
    const person = await this.people.signIn(input, request.ip ?? '');
    await startSession(request, person.id);
    return this.who(person);
  }

  @Public()
  @Delete('session')
  @HttpCode(204)
  async signOut(@Req() request: Request): Promise<void> {
    await new Promise<void>((done, fail) => request.session.destroy((e) => (e ? fail(e) : done())));
    request.res?.clearCookie('radiant.sid');
  }

  @Public()
  @Post('first-account')
  @TakesBody(BEFORE_SIGN_IN)
  async first(@Body(new Checked(FirstAccount)) input: FirstAccount, @Req() request: Request): Promise<Who> {
    const person = await this.people.first(input);
    await startSession(request, person.id);
    return this.who(person);
  }

  /** Back in with a code that `bin/owner` has printed, and a new password. */
  @Public()
  @Post('recovery')
  @HttpCode(200)
  @TakesBody(BEFORE_SIGN_IN)
  async recover(@Body(new Checked(Recovery)) input: Recovery, @Req() request: Request): Promise<Who> {
    const person = await this.people.recover(input, request.ip ?? '');
    await startSession(request, person.id);
    return this.who(person);
  }

  /** A new password of one's own; all other sessions end, this one goes on. */
  @Post('people/me/password')
  @HttpCode(204)
  async changePassword(
    @Body(new Checked(PasswordChange)) input: PasswordChange,
    @Me() me: SignedIn,
    @Req() request: Request,
  ): Promise<void> {
    await this.people.changePassword(me, input, request.ip ?? '');
    await startSession(request, me.id);
  }

  @Get('people')
  list(@Me() me: SignedIn) {
    return this.people.colleagues(me.practiceId);
  }

  @Post('people')
  @Allow(dentists)
  async add(@Body(new Checked(NewPerson)) input: NewPerson, @Me() me: SignedIn): Promise<Who> {
    return this.who(await this.people.add(input, me.practiceId));
  }

  /** A first password for somebody who has lost theirs. */
  @Post('people/:id/password')
  @Allow(dentists)
  @HttpCode(204)
  givePassword(
    @Param('id') id: string,
    @Body(new Checked(FirstPassword)) input: FirstPassword,
    @Me() me: SignedIn,
  ): Promise<void> {
    return this.people.givePassword(id, input.password, me);
  }

  /** Ends somebody's sessions everywhere. */
  @Post('people/:id/sign-out')
  @Allow(dentists)
  @HttpCode(204)
  endSessions(@Param('id') id: string, @Me() me: SignedIn): Promise<void> {
    return this.people.endSessions(id, me);
  }

  /** Somebody leaves the practice. */
  @Post('people/:id/end')
  @Allow(dentists)
  @HttpCode(204)
  end(@Param('id') id: string, @Me() me: SignedIn): Promise<void> {
    return this.people.end(id, me);
  }

  @Post('people/:id/bring-back')
  @Allow(dentists)
  @HttpCode(204)
  bringBack(@Param('id') id: string, @Me() me: SignedIn): Promise<void> {
    return this.people.bringBack(id, me);
  }
}

/** A new session number for every sign-in, so that one planted before is worth nothing. */
async function startSession(request: Request, personId: string): Promise<void> {
  await new Promise<void>((done, fail) => request.session.regenerate((e) => (e ? fail(e) : done())));
  request.session.personId = personId;
  request.session.since = Date.now();
  await new Promise<void>((done, fail) => request.session.save((e) => (e ? fail(e) : done())));
}
