import { randomUUID } from 'node:crypto';
import { unlink } from 'node:fs/promises';
import {
  type CallHandler,
  type ExecutionContext,
  Inject,
  mixin,
  type NestInterceptor,
  type Type,
} from '@nestjs/common';
import type { Request } from 'express';
import multer from 'multer';
import { finalize, from, mergeMap, type Observable } from 'rxjs';
import { CONFIG, type Config } from './config.js';

/** A file that lies among the drafts. */
export interface Uploaded {
  readonly path: string;
  readonly size: number;
  readonly originalname: string;
}

/**
 * Takes the multipart field `file` onto the disk, never into memory; what nobody has taken over by the end is removed.
 */
export function UploadToDisk(maxBytes: number): Type<NestInterceptor> {
  class ToDisk implements NestInterceptor {
    private readonly take: ReturnType<ReturnType<typeof multer>['single']>;

    constructor(@Inject(CONFIG) config: Config) {
      const storage = multer.diskStorage({
        destination: config.incomingDir,
        filename: (_request, _file, done) => done(null, randomUUID()),
      });
      this.take = multer({
        storage,
        defParamCharset: 'utf8',
        limits: { fileSize: maxBytes, files: 1, fields: 4, fieldSize: 4096, parts: 6 },
      }).single('file');
    }

    intercept(context: ExecutionContext, next: CallHandler): Observable<unknown> {
      const http = context.switchToHttp();
      const request = http.getRequest<Request>();
      const taken = new Promise<void>((done, failed) =>
        this.take(request, http.getResponse(), (error: unknown) => (error ? failed(error) : done())),
      );
      return from(taken).pipe(
        mergeMap(() => next.handle()),
        finalize(() => {
          if (request.file?.path) void unlink(request.file.path).catch(() => undefined);
        }),
      );
    }
  }
  return mixin(ToDisk);
}
