import { type ArgumentsHost, Catch, type ExceptionFilter, HttpException, Logger } from '@nestjs/common';
import { FILE_TOO_LARGE, type FieldError, type Problem } from '@radiant/contract';
import { Refusal } from '@radiant/core';
import type { Response } from 'express';
import { MulterError } from 'multer';
import { ConnectionError, TimeoutError } from 'sequelize';
import { CalledOff } from './called-off.js';

/** A refusal with its HTTP status and, where a form was refused, its fields. */
export class ProblemException extends HttpException {
  constructor(
    status: number,
    readonly problemTitle: string,
    readonly detail: string,
    readonly extra: Partial<Problem> = {},
  ) {
    super(detail, status);
  }
}

/** The one answer for what is not there and for what belongs to another practice. */
export const nothingHere = (): ProblemException =>
  new ProblemException(404, 'Not found', 'There is nothing here that you may see.');

/** The refusal of a form: the first sentence is the detail. */
export function invalid(errors: readonly FieldError[]): ProblemException {
  return new ProblemException(422, 'Not accepted', errors[0]?.message ?? 'The input was not accepted.', { errors });
}

const notFound = () => problem(404, 'Not found', 'There is nothing here that you may see.');

const TITLES: Record<number, string> = {
  400: 'Not understood',
  401: 'Not signed in',
  403: 'Not allowed',
  404: 'Not found',
  413: 'Too large',
  429: 'Too many tries',
};

/** Every refusal leaves as problem details (RFC 9457), whatever threw it. */
@Catch()
export class ProblemFilter implements ExceptionFilter {
  private readonly log = new Logger('problem');

  catch(error: unknown, host: ArgumentsHost): void {
    const response = host.switchToHttp().getResponse<Response>();
    // Whoever asked has hung up.
    if (error instanceof CalledOff) return void response.destroy();
    const body = this.describe(error);
    if (body.status >= 500) this.log.error(error instanceof Error ? (error.stack ?? error.message) : String(error));
    if (response.headersSent) return;
    response.status(body.status).type('application/problem+json').send(JSON.stringify(body));
  }

  private describe(error: unknown): Problem {
    if (error instanceof ProblemException)
      return { ...problem(error.getStatus(), error.problemTitle, error.detail), ...error.extra };
    if (error instanceof Refusal)
      return { ...problem(422, 'Not accepted', error.message), type: `urn:radiant-arch:${error.code}` };
    if (error instanceof MulterError) {
      return error.code === 'LIMIT_FILE_SIZE'
        ? problem(413, 'Too large', FILE_TOO_LARGE)
        : problem(400, 'Not understood', 'The upload was not understood: send one file.');
    }
    if (isDiskFull(error)) return problem(507, 'No room left', DISK_FULL);
    if (isDatabaseAway(error))
      return problem(503, 'Database away', 'The database does not answer; nothing was changed. Try again in a moment.');
    if (error instanceof HttpException) return this.ofHttp(error);
    if (hasStatus(error))
      return problem(
        error.status,
        TITLES[error.status] ?? 'Refused',
        tooLarge(error.status) ? 'The request is too large.' : 'The request was not understood.',
      );
    return problem(500, 'Our fault', 'Something went wrong on the server; nothing was changed.');
  }

  private ofHttp(error: HttpException): Problem {
    const status = error.getStatus();
    if (status === 404) return notFound();
    const detail =
      status === 401
        ? 'Sign in first.'
        : status === 413
          ? FILE_TOO_LARGE
          : status === 400
            ? 'The request was not understood.'
            : error.message;
    return problem(status, TITLES[status] ?? 'Refused', detail);
  }
}

const tooLarge = (status: number) => status === 413;

function problem(status: number, title: string, detail: string): Problem {
  return { type: 'about:blank', title, status, detail };
}

/** Whether an error says that the database can't be reached. */
export function isDatabaseAway(error: unknown): boolean {
  if (error instanceof ConnectionError || error instanceof TimeoutError) return true;
  const e = error as { code?: string; parent?: { code?: string; fatal?: boolean }; name?: string } | undefined;
  const code = e?.parent?.code ?? e?.code ?? '';
  return (
    /^(ECONNREFUSED|ECONNRESET|EPIPE|ER_SOCKET|ER_CONNECTION|ER_GET_CONNECTION_TIMEOUT|ER_CMD_CONNECTION_CLOSED|ER_SERVER_SHUTDOWN|ER_POOL|ER_STATEMENT_TIMEOUT|ER_LOCK_WAIT_TIMEOUT)/.test(
      code,
    ) || e?.parent?.fatal === true
  );
}

export const DISK_FULL = 'The server’s disk is full; nothing was changed. Make room, then try again.';

/** Our own disk is full, or the database says that its is. */
export function isDiskFull(error: unknown): boolean {
  const e = error as { code?: string; parent?: { code?: string; text?: string } } | undefined;
  return (
    /^(ENOSPC|EDQUOT|ER_DISK_FULL|ER_RECORD_FILE_FULL)$/.test(e?.parent?.code ?? e?.code ?? '') ||
    /errno: 28\b/.test(e?.parent?.text ?? '')
  );
}

function hasStatus(error: unknown): error is { status: number } {
  const s = (error as { status?: unknown } | undefined)?.status;
  return typeof s === 'number' && s >= 400 && s < 500;
}
