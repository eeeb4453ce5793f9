import { type CanActivate, createParamDecorator, type ExecutionContext, Injectable, SetMetadata } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import type { Who } from '@radiant/contract';
import type { Request } from 'express';
import type {} from 'express-session';
import { ProblemException } from '../common/problem.filter.js';
import { PeopleService } from './people.service.js';

declare module 'express-session' {
  interface SessionData {
    personId?: string;
  }
}

/** The signed-in person with the practice they belong to. */
export interface SignedIn extends Who {
  readonly practiceId: string;
}

const PUBLIC = 'public-route';
/** Marks a route that needs no session. */
export const Public = () => SetMetadata(PUBLIC, true);

type WithPerson = Request & { person?: SignedIn };

/** Refuses every route without a session, unless it is marked public. */
@Injectable()
export class SessionGuard implements CanActivate {
  constructor(
    private readonly reflector: Reflector,
    private readonly people: PeopleService,
  ) {}

  async canActivate(context: ExecutionContext): Promise<boolean> {
    const request = context.switchToHttp().getRequest<WithPerson>();
    const person = request.session?.personId ? await this.people.byId(request.session.personId) : undefined;
    if (person) request.person = person;
    if (this.reflector.getAllAndOverride<boolean>(PUBLIC, [context.getHandler(), context.getClass()])) return true;
    if (!person) throw new ProblemException(401, 'Not signed in', 'Sign in first.');
    return true;
  }
}

/** The signed-in person, as a controller's parameter. */
export const Me = createParamDecorator((_: unknown, context: ExecutionContext) => context.switchToHttp().getRequest<WithPerson>().person);
