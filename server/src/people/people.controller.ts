import { Body, Controller, Delete, Get, HttpCode, Post, Req } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { FirstAccount, NewPerson, SignIn, type Who } from '@radiant/contract';
import type { Request } from 'express';
import { Checked } from '../common/checked.pipe.js';
import { ProblemException } from '../common/problem.filter.js';
import { PeopleService } from './people.service.js';
import { Me, Public, type SignedIn } from './session.js';

const who = ({ id, name, role, practice }: SignedIn): Who => ({ id, name, role, practice });

@ApiTags('people')
@Controller()
export class PeopleController {
  constructor(private readonly people: PeopleService) {}

  /** The signed-in person, or null; and whether the house still waits for its first account. */
  @Public()
  @Get('session')
  async session(@Me() me: SignedIn | undefined): Promise<{ who: Who | null; firstAccountNeeded: boolean }> {
    return { who: me ? who(me) : null, firstAccountNeeded: me ? false : await this.people.isEmpty() };
  }

  @Public()
  @Post('session')
  @HttpCode(200)
  async signIn(@Body(new Checked(SignIn)) input: SignIn, @Req() request: Request): Promise<Who> {
    const person = await this.people.signIn(input, request.ip ?? '');
    await startSession(request, person.id);
    return who(person);
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
  async first(@Body(new Checked(FirstAccount)) input: FirstAccount, @Req() request: Request): Promise<Who> {
    const person = await this.people.first(input);
    await startSession(request, person.id);
    return who(person);
  }

  @Get('people')
  list(@Me() me: SignedIn) {
    return this.people.colleagues(me.practiceId);
  }

  @Post('people')
  async add(@Body(new Checked(NewPerson)) input: NewPerson, @Me() me: SignedIn): Promise<Who> {
    if (me.role !== 'dentist') throw new ProblemException(403, 'Not allowed', 'Only a dentist adds people to the practice.');
    return who(await this.people.add(input, me.practiceId));
  }
}

/** A new session number for every sign-in, so that one planted before is worth nothing. */
async function startSession(request: Request, personId: string): Promise<void> {
  await new Promise<void>((done, fail) => request.session.regenerate((e) => (e ? fail(e) : done())));
  request.session.personId = personId;
  await new Promise<void>((done, fail) => request.session.save((e) => (e ? fail(e) : done())));
}
