import { type CanActivate, createParamDecorator, type ExecutionContext, Injectable, SetMetadata } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import type { Who } from '@radiant/contract';
import type { Request } from 'express';
import type {} from 'express-session';
import { nothingHere, ProblemException } from '../common/problem.filter.js';
import { CaseRow } from '../database/database.js';
import { PeopleService } from './people.service.js';

declare module 'express-session' {
  interface SessionData {
    personId?: string;
    /** When the person signed in, ms since 1970. */
    since?: number;
  }
}

/** The signed-in person with the practice they belong to. */
export interface SignedIn extends Omit<Who, 'notation'> {
  readonly practiceId: string;
}

/** Nobody stays signed in longer, whatever the browser keeps. */
export const SESSION_MS = 12 * 60 * 60 * 1000;

/** The header in which a page says whose it is. */
const SPEAKER = 'x-radiant-person';

const PUBLIC = 'public-route';
/** Marks a route that needs no session. */
export const Public = () => SetMetadata(PUBLIC, true);

const CASE_PARAM = 'case-param';
/**
 * Says which parameter of a route or of all routes of a controller names a case; only the own practice's come through.
 */
export const InCase = (param: string) => SetMetadata(CASE_PARAM, param);

/** Why a person may not, in a sentence; undefined when they may. */
export type Rule = (me: SignedIn, params: Readonly<Record<string, string>>) => string | undefined;

const IN_BIN = 'inBin';
/** A route that is there for cases that were put away too; all others only read these. */
export const InBin = () => SetMetadata(IN_BIN, true);

const RULE = 'rule';
/** Says who may use a route. It is asked before a body is read. */
export const Allow = (rule: Rule) => SetMetadata(RULE, rule);

/** Only the practice's own people keep records; a technician reads and comments. */
export const keepers =
  (what: string): Rule =>
  (me) =>
    me.role === 'technician' ? `A technician reads and comments; the practice ${what}.` : undefined;

type Known = Request & { person?: SignedIn; ownCase?: CaseRow };

/**
 * The door to every route: first who it is, then whether the case is theirs, then whether they may. Nothing of a body
 * has been read by then.
 */
@Injectable()
export class SessionGuard implements CanActivate {
  constructor(
    private readonly reflector: Reflector,
    private readonly people: PeopleService,
  ) {}

  async canActivate(context: ExecutionContext): Promise<boolean> {
    const request = context.switchToHttp().getRequest<Known>();
    const said = <T>(key: string) =>
      this.reflector.getAllAndOverride<T | undefined>(key, [context.getHandler(), context.getClass()]);
    const person = await this.person(request);
    if (person) request.person = person;
    if (said<boolean>(PUBLIC)) return true;
    if (!person) throw new ProblemException(401, 'Not signed in', 'Sign in first.');
    // A page of somebody who was here before must not speak in the name of who is here now.
    const speaker = request.headers[SPEAKER];
    if (speaker !== undefined && speaker !== person.id)
      throw new ProblemException(
        401,
        'Not signed in',
        'Somebody else has signed in meanwhile; nothing was sent in their name.',
      );
    const params = request.params as Record<string, string>;
    const param = said<string>(CASE_PARAM);
    if (param) {
      const own = await CaseRow.findOne({ where: { id: params[param] ?? '', practiceId: person.practiceId } });
      if (!own) throw nothingHere();
      request.ownCase = own;
    }
    const refusal = said<Rule>(RULE)?.(person, params);
    if (refusal) throw new ProblemException(403, 'Not allowed', refusal);
    if (request.ownCase?.removedAt && request.method !== 'GET' && !said<boolean>(IN_BIN))
      throw new ProblemException(409, 'Put away', 'This case was put away; bring it back before it is changed.');
    return true;
  }

  private async person(request: Known): Promise<SignedIn | undefined> {
    const { personId, since = 0 } = request.session ?? {};
    if (!personId || since + SESSION_MS <= Date.now()) return undefined;
    return this.people.inSession(personId, since);
  }
}

/** The signed-in person, as a controller's parameter. */
export const Me = createParamDecorator(
  (_: unknown, context: ExecutionContext) => context.switchToHttp().getRequest<Known>().person,
);

/** The case that the route names, of the person's own practice. */
export const OwnCase = createParamDecorator(
  (_: unknown, context: ExecutionContext) => context.switchToHttp().getRequest<Known>().ownCase,
);
