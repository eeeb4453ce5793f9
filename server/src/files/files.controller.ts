import {
  Body,
  Controller,
  Delete,
  Get,
  Param,
  Patch,
  Post,
  Query,
  Res,
  UploadedFile,
  UseInterceptors,
} from '@nestjs/common';
import { ApiConsumes, ApiTags } from '@nestjs/swagger';
import {
  type CaseFile,
  check,
  type Delivered,
  FILE_KINDS,
  FileChange,
  type FileKind,
  FileOrigin,
  PHOTO_MOST_BYTES,
  PHOTO_TOO_LARGE,
  PICTURE_KINDS,
  type PictureKind,
  SCAN_MOST_BYTES,
} from '@radiant/contract';
import type { Response } from 'express';
import { Checked } from '../common/checked.pipe.js';
import { invalid, nothingHere, ProblemException } from '../common/problem.filter.js';
import { type Uploaded, UploadToDisk } from '../common/upload.js';
import type { CaseRow, FileRow } from '../database/database.js';
import { Allow, InCase, keepers, Me, OwnCase, type SignedIn } from '../people/session.js';
import { describeFile, FilesService } from './files.service.js';

const KEEPERS = keepers('keeps photographs and scans');

@ApiTags('files')
@Controller('cases/:caseId/files')
@InCase('caseId')
export class FilesController {
  constructor(private readonly files: FilesService) {}

  /**
   * Takes one photograph, scan or table of readings, multipart field `file`. What is known of it may come in the query: view, state, jaw,
   * takenOn, takenBy; of a working copy `parentId`, the scan that it was made of, and `frame`, 16 numbers with commas
   * between them. The same bytes a second time are recognised and kept once.
   */
  @Post()
  @ApiConsumes('multipart/form-data')
  @UseInterceptors(UploadToDisk(SCAN_MOST_BYTES))
  async add(
    @OwnCase() own: CaseRow,
    @Query() query: Record<string, string>,
    @UploadedFile() file: Uploaded | undefined,
    @Me() me: SignedIn,
  ): Promise<Delivered> {
    const { kind, parentId, frame, ...said } = query;
    if (!FILE_KINDS.includes(kind as FileKind))
      throw new ProblemException(422, 'Not accepted', 'Say whether the file is a photo, a scan or readings of colour.');
    if (!file) throw new ProblemException(422, 'Not accepted', 'The upload holds no file.');
    if (me.role === 'technician') await this.requireWaxUp(own, kind as FileKind, said, parentId);
    if (kind === 'photo' && file.size > PHOTO_MOST_BYTES) throw new ProblemException(413, 'Too large', PHOTO_TOO_LARGE);
    const made = { ...(parentId && { parentId }), ...(frame && { frame: frame.split(',').map(Number) }) };
    const errors = [...check(FileChange, said).errors, ...check(FileOrigin, made).errors];
    if (errors.length > 0) throw invalid(errors);
    const { row, already } = await this.files.deliver(own.id, {
      takenBy: me.name,
      ...said,
      ...made,
      kind: kind as FileKind,
      name: file.originalname,
      path: file.path,
      origin: parentId ? `made by ${me.name}` : `uploaded by ${me.name}`,
    });
    return { ...describeFile(row), already };
  }

  /**
   * A technician hands wax-ups over: scans of what is to be, or was made, and never of the mouth as it was.
   * @param said gets its state, where none was said
   * @throws ProblemException 403
   */
  private async requireWaxUp(
    own: CaseRow,
    kind: FileKind,
    said: Record<string, string>,
    parentId: string | undefined,
  ): Promise<void> {
    const refuse = (sentence: string) => new ProblemException(403, 'Not allowed', sentence);
    if (kind !== 'scan') throw refuse('A technician hands wax-ups over as scans; the practice keeps photographs.');
    const parent = parentId ? await this.files.find(own.id, parentId) : null;
    said.state ??= parent?.state ?? (parent ? 'before' : 'mock-up');
    if (said.state === 'before' || (parent?.state ?? 'mock-up') === 'before')
      throw refuse('A technician hands wax-ups over; scans of the mouth as it was are the practice’s.');
  }

  /** Says what a photograph shows, in which state it was taken, when and by whom. */
  @Patch(':fileId')
  @Allow(KEEPERS)
  async describe(
    @OwnCase() own: CaseRow,
    @Param('fileId') fileId: string,
    @Body(new Checked(FileChange)) change: FileChange,
  ): Promise<CaseFile> {
    return describeFile(await this.files.describe(await this.own(own, fileId), change));
  }

  /** Puts a file away; it can be brought back for 30 days. */
  @Delete(':fileId')
  @Allow(KEEPERS)
  async putAway(@OwnCase() own: CaseRow, @Param('fileId') fileId: string): Promise<CaseFile> {
    return describeFile(await this.files.putAway(await this.own(own, fileId)));
  }

  @Post(':fileId/bring-back')
  @Allow(KEEPERS)
  async bringBack(@OwnCase() own: CaseRow, @Param('fileId') fileId: string): Promise<CaseFile> {
    return describeFile(await this.files.bringBack(await this.own(own, fileId)));
  }

  /** A small upright JPEG of a photograph, for the wall. */
  @Get(':fileId/thumbnail')
  thumbnail(@OwnCase() own: CaseRow, @Param('fileId') fileId: string, @Res() response: Response): Promise<void> {
    return this.smaller(own, fileId, 'thumbnail', response);
  }

  /** An upright JPEG of a photograph that fills a screen. */
  @Get(':fileId/preview')
  preview(@OwnCase() own: CaseRow, @Param('fileId') fileId: string, @Res() response: Response): Promise<void> {
    return this.smaller(own, fileId, 'preview', response);
  }

  private async smaller(
    own: CaseRow,
    fileId: string,
    size: 'thumbnail' | 'preview',
    response: Response,
  ): Promise<void> {
    const file = await this.own(own, fileId);
    if (file.kind !== 'photo') throw nothingHere();
    response.type('image/jpeg').send(await this.files.smaller(file, size));
  }

  private async own(own: CaseRow, fileId: string): Promise<FileRow> {
    const file = await this.files.find(own.id, fileId);
    if (!file) throw nothingHere();
    return file;
  }

  /** A photograph without the notes of where and by whom it was taken; a scan as it came. */
  @Get(':fileId')
  async content(@OwnCase() own: CaseRow, @Param('fileId') fileId: string, @Res() response: Response): Promise<void> {
    const file = await this.own(own, fileId);
    const { bytes, mime } = await this.files.read(file);
    send(response, file, mime, bytes);
  }

  /** The very bytes that came, with all that a camera has written into them. */
  @Get(':fileId/original')
  @Allow(KEEPERS)
  async original(@OwnCase() own: CaseRow, @Param('fileId') fileId: string, @Res() response: Response): Promise<void> {
    const file = await this.own(own, fileId);
    send(response, file, file.mime, await this.files.original(file));
  }
}

function send(response: Response, file: FileRow, mime: string, bytes: Buffer): void {
  response
    .type(mime)
    .setHeader('Content-Disposition', `inline; filename*=UTF-8''${encodeURIComponent(nameFor(file.name, mime))}`)
    .send(bytes);
}

/** A file's name with the end that fits what is sent. */
function nameFor(name: string, mime: string): string {
  const ends: readonly string[] = PICTURE_KINDS[mime as PictureKind]?.ends ?? [];
  if (ends.length === 0 || ends.some((e) => name.toLowerCase().endsWith(e))) return name;
  return `${name.replace(/\.[A-Za-z0-9]{1,5}$/, '')}${ends[0]}`;
}
