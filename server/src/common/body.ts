import { type CallHandler, type ExecutionContext, Injectable, type NestInterceptor, SetMetadata } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import { type Extent, isWithin } from '@radiant/contract';
import { json, type NextFunction, type Request, type Response, raw } from 'express';
import { from, mergeMap, type Observable } from 'rxjs';
import { ProblemException } from './problem.filter.js';

/** How large a body a route takes, before anything is made of it. */
export interface BodyLimit extends Extent {
  readonly bytes: number;
}

/** Before signing in nobody has much to say. */
export const BEFORE_SIGN_IN: BodyLimit = { bytes: 16 * 1024, values: 50, depth: 4 };
const USUAL: BodyLimit = { bytes: 64 * 1024, values: 5000, depth: 12 };
/**
 * A section with every tooth brushed two hundred times. What is longer than usual comes as bytes, to be read in a
 * thread.
 */
export const SECTION_BODY: BodyLimit = { bytes: 2 * 1024 * 1024, values: 600_000, depth: 16 };

const LIMIT = 'body-limit';
/** Says how large a body a route takes, where it is not the usual one. */
export const TakesBody = (limit: BodyLimit) => SetMetadata(LIMIT, limit);

type Reader = ReturnType<typeof json>;

const readers = new Map<number, Reader>();
const readerOf = (bytes: number): Reader => {
  const reader =
    readers.get(bytes) ??
    (bytes > USUAL.bytes ? raw({ limit: bytes, type: 'application/json' }) : json({ limit: bytes }));
  readers.set(bytes, reader);
  return reader;
};

/** A body that is longer than usual, as it came. */
export const isLarge = (body: unknown): body is Buffer => Buffer.isBuffer(body);

/** The JSON in a body. @throws ProblemException 400, 422 */
export function parsed(bytes: Buffer, limit: BodyLimit): unknown {
  let body: unknown;
  try {
    body = JSON.parse(bytes.toString('utf8'));
  } catch {
    throw new ProblemException(400, 'Not understood', 'The request was not understood.');
  }
  requireWithin(body, limit);
  return body;
}

function requireWithin(body: unknown, limit: BodyLimit): void {
  if (!isWithin(body, limit))
    throw new ProblemException(422, 'Not accepted', 'The request holds more than belongs here.');
}

/** Reads JSON bodies, after the door has let the request in. */
@Injectable()
export class BodyReader implements NestInterceptor {
  constructor(private readonly reflector: Reflector) {}

  intercept(context: ExecutionContext, next: CallHandler): Observable<unknown> {
    const limit =
      this.reflector.getAllAndOverride<BodyLimit | undefined>(LIMIT, [context.getHandler(), context.getClass()]) ??
      USUAL;
    const http = context.switchToHttp();
    return from(read(limit, http.getRequest<Request>(), http.getResponse<Response>())).pipe(
      mergeMap(() => next.handle()),
    );
  }
}

async function read(limit: BodyLimit, request: Request, response: Response): Promise<void> {
  await new Promise<void>((done, failed) => {
    const next: NextFunction = (error?: unknown) => (error ? failed(error) : done());
    readerOf(limit.bytes)(request, response, next);
  });
  if (isLarge(request.body) && request.body.length <= USUAL.bytes) request.body = parsed(request.body, limit);
  else if (!isLarge(request.body) && request.body !== undefined) requireWithin(request.body, limit);
}
