import { writeFile } from 'node:fs/promises';
import {
  BadRequestException,
  HttpException,
  Logger,
  NotFoundException,
  PayloadTooLargeException,
  UnauthorizedException,
} from '@nestjs/common';
import { NewCase, type Problem } from '@radiant/contract';
import { Refusal } from '@radiant/core';
import { MulterError } from 'multer';
import { ConnectionRefusedError } from 'sequelize';
import { Checked } from '../src/common/checked.pipe.js';
import { invalid, isDatabaseAway, ProblemException, ProblemFilter } from '../src/common/problem.filter.js';

/** What leaves the server for an error: status, kind of content and body. */
function sent(error: unknown): { status: number; type: string; body: Problem } {
  const out = { status: 0, type: '', body: {} as Problem };
  const response = {
    headersSent: false,
    status: (n: number) => {
      out.status = n;
      return response;
    },
    type: (t: string) => {
      out.type = t;
      return response;
    },
    send: (text: string) => {
      out.body = JSON.parse(text) as Problem;
      return response;
    },
  };
  new ProblemFilter().catch(error, { switchToHttp: () => ({ getResponse: () => response }) } as never);
  return out;
}

const log = jest.spyOn(Logger.prototype, 'error').mockImplementation(() => undefined);
beforeEach(() => log.mockClear());

describe('a refusal leaves as problem details (RFC 9457)', () => {
  it.each<[string, unknown, number, string]>([
    [
      'our own',
      new ProblemException(403, 'Not allowed', 'The dentist decides this.'),
      403,
      'The dentist decides this.',
    ],
    [
      'core’s',
      new Refusal('calibration-zero', 'The length of the scale must be more than 0 mm.'),
      422,
      'The length of the scale must be more than 0 mm.',
    ],
    ['a form’s', invalid([{ field: 'name', message: 'The case needs a name.' }]), 422, 'The case needs a name.'],
    ['no session', new UnauthorizedException(), 401, 'Sign in first.'],
    [
      'an unknown route',
      new NotFoundException('Cannot GET /api/secret'),
      404,
      'There is nothing here that you may see.',
    ],
    ['broken JSON', new BadRequestException('Unexpected token'), 400, 'The request was not understood.'],
    [
      'a file over the limit',
      new MulterError('LIMIT_FILE_SIZE'),
      413,
      'The file is too large: photographs may have 50 MB, scans 180 MB.',
    ],
    [
      'two files at once',
      new MulterError('LIMIT_UNEXPECTED_FILE'),
      400,
      'The upload was not understood: send one file.',
    ],
    [
      'too large a body',
      new PayloadTooLargeException(),
      413,
      'The file is too large: photographs may have 50 MB, scans 180 MB.',
    ],
    ['another status', new HttpException('Wait.', 429), 429, 'Wait.'],
    ['the parser’s own', Object.assign(new Error('x'), { status: 400 }), 400, 'The request was not understood.'],
    [
      'an absent database',
      new ConnectionRefusedError(new Error('connect')),
      503,
      'The database does not answer; nothing was changed. Try again in a moment.',
    ],
    [
      'a mistake of ours',
      new TypeError('x is not a function'),
      500,
      'Something went wrong on the server; nothing was changed.',
    ],
  ])('%s', (_, error, status, detail) => {
    const r = sent(error);
    expect(r.status).toBe(status);
    expect(r.type).toBe('application/problem+json');
    expect(r.body).toMatchObject({ status, detail });
    expect(Object.keys(r.body)).toEqual(expect.arrayContaining(['type', 'title', 'status', 'detail']));
  });

  it('a full disk is named as what it is, ours or the database’s', async () => {
    // The kernel’s own answer on a device without room.
    const full = await writeFile('/dev/full', 'x').catch((e: unknown) => e);
    const ofDatabase = Object.assign(new Error('x'), { parent: { code: 'ER_RECORD_FILE_FULL' } });
    const ofDatabaseDisk = Object.assign(new Error('x'), {
      parent: { code: 'ER_ERROR_ON_WRITE', text: 'Error writing file (errno: 28 "No space left on device")' },
    });
    for (const error of [full, ofDatabase, ofDatabaseDisk])
      expect(sent(error)).toMatchObject({
        status: 507,
        body: {
          title: 'No room left',
          detail: 'The server’s disk is full; nothing was changed. Make room, then try again.',
        },
      });
  });

  it('core’s refusals carry their code, so that nobody parses a sentence', () => {
    expect(sent(new Refusal('mesh-empty', 'Nothing there.')).body.type).toBe('urn:radiant-arch:mesh-empty');
  });

  it('a mistake of ours tells no inner word to the browser and all to the log', () => {
    const r = sent(new Error('password of arch is hunter2'));
    expect(JSON.stringify(r.body)).not.toContain('hunter2');
    expect(String(log.mock.calls[0]?.[0])).toContain('hunter2');
  });

  it('what a person did is not logged as our mistake', () => {
    sent(new ProblemException(422, 'Not accepted', 'No.'));
    expect(log).not.toHaveBeenCalled();
  });

  it('a late change carries the section as it stands', () => {
    const current = { name: 'propose', version: 3 } as never;
    expect(
      sent(new ProblemException(409, 'Changed meanwhile', 'Another changed it.', { current })).body.current,
    ).toEqual(current);
  });
});

describe('whether the database is away', () => {
  it.each([
    [{ code: 'ECONNREFUSED' }, true],
    [{ parent: { code: 'ER_GET_CONNECTION_TIMEOUT' } }, true],
    [{ parent: { code: 'ER_DUP_ENTRY', fatal: true } }, true],
    [{ parent: { code: 'ER_DUP_ENTRY' } }, false],
    [new Error('no'), false],
    [undefined, false],
  ])('%p: %p', (error, away) => {
    expect(isDatabaseAway(error)).toBe(away);
  });
});

describe('a request’s body', () => {
  const pipe = new Checked(NewCase);
  it('comes through as an object of its class', () => {
    expect(pipe.transform({ name: 'Plover' })).toBeInstanceOf(NewCase);
  });
  it.each([[undefined], [null], ['text'], [[]], [{ name: 5 }], [{ name: 'x', admin: true }]])(
    '%p is refused with its fields',
    (body) => {
      expect(() => pipe.transform(body)).toThrow(ProblemException);
    },
  );
});
