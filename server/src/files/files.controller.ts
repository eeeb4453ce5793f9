import { Body, Controller, Delete, Get, Param, Patch, Post, Query, Res, UploadedFile, UseInterceptors } from '@nestjs/common';
import { FileInterceptor } from '@nestjs/platform-express';
import { ApiConsumes, ApiTags } from '@nestjs/swagger';
import { type CaseFile, check, type Delivered, FILE_KINDS, FileChange, type FileKind } from '@radiant/contract';
import type { Response } from 'express';
import { CasesService } from '../cases/cases.service.js';
import { Checked } from '../common/checked.pipe.js';
import { invalid, ProblemException } from '../common/problem.filter.js';
import type { FileRow } from '../database/database.js';
import { Me, type SignedIn } from '../people/session.js';
import { describeFile, FilesService } from './files.service.js';

/** Three million triangles in binary STL are 150 MB. */
const MAX_FILE_BYTES = 180 * 1024 * 1024;
const MAX_PHOTO_BYTES = 50 * 1024 * 1024;
/** A file never changes under its number. */
const FOR_EVER = 'private, max-age=31536000, immutable';

function requireKeeper(me: SignedIn): void {
  if (me.role === 'technician') throw new ProblemException(403, 'Not allowed', 'A technician reads and comments; the practice keeps photographs and scans.');
}

@ApiTags('files')
@Controller('cases/:caseId/files')
export class FilesController {
  constructor(
    private readonly cases: CasesService,
    private readonly files: FilesService,
  ) {}

  /**
   * Takes one photograph or scan, multipart field `file`. What is known of it may come in the query: view, state,
   * takenOn, takenBy. The same bytes a second time are recognised and kept once.
   */
  @Post()
  @ApiConsumes('multipart/form-data')
  @UseInterceptors(FileInterceptor('file', { limits: { fileSize: MAX_FILE_BYTES, files: 1 }, defParamCharset: 'utf8' }))
  async add(
    @Param('caseId') caseId: string,
    @Query() query: Record<string, string>,
    @UploadedFile() file: Express.Multer.File | undefined,
    @Me() me: SignedIn,
  ): Promise<Delivered> {
    const own = await this.cases.own(caseId, me);
    requireKeeper(me);
    const { kind, ...said } = query;
    if (!FILE_KINDS.includes(kind as FileKind)) throw new ProblemException(422, 'Not accepted', 'Say whether the file is a photo or a scan.');
    if (!file) throw new ProblemException(422, 'Not accepted', 'The upload holds no file.');
    if (kind === 'photo' && file.size > MAX_PHOTO_BYTES) throw new ProblemException(413, 'Too large', 'The file is larger than 50 MB.');
    const { errors } = check(FileChange, said);
    if (errors.length > 0) throw invalid(errors);
    const { row, already } = await this.files.deliver(own.id, {
      takenBy: me.name,
      ...said,
      kind: kind as FileKind,
      name: file.originalname,
      bytes: file.buffer,
      origin: `uploaded by ${me.name}`,
    });
    return { ...describeFile(row), already };
  }

  /** Says what a photograph shows, in which state it was taken, when and by whom. */
  @Patch(':fileId')
  async describe(
    @Param('caseId') caseId: string,
    @Param('fileId') fileId: string,
    @Body(new Checked(FileChange)) change: FileChange,
    @Me() me: SignedIn,
  ): Promise<CaseFile> {
    return describeFile(await this.files.describe(await this.ownToKeep(caseId, fileId, me), change));
  }

  /** Puts a file away; it can be brought back for 30 days. */
  @Delete(':fileId')
  async putAway(@Param('caseId') caseId: string, @Param('fileId') fileId: string, @Me() me: SignedIn): Promise<CaseFile> {
    return describeFile(await this.files.putAway(await this.ownToKeep(caseId, fileId, me)));
  }

  @Post(':fileId/bring-back')
  async bringBack(@Param('caseId') caseId: string, @Param('fileId') fileId: string, @Me() me: SignedIn): Promise<CaseFile> {
    return describeFile(await this.files.bringBack(await this.ownToKeep(caseId, fileId, me)));
  }

  /** A small upright JPEG of a photograph, for the wall. */
  @Get(':fileId/thumbnail')
  thumbnail(@Param('caseId') caseId: string, @Param('fileId') fileId: string, @Me() me: SignedIn, @Res() response: Response): Promise<void> {
    return this.smaller(caseId, fileId, 'thumbnail', me, response);
  }

  /** An upright JPEG of a photograph that fills a screen. */
  @Get(':fileId/preview')
  preview(@Param('caseId') caseId: string, @Param('fileId') fileId: string, @Me() me: SignedIn, @Res() response: Response): Promise<void> {
    return this.smaller(caseId, fileId, 'preview', me, response);
  }

  private async smaller(caseId: string, fileId: string, size: 'thumbnail' | 'preview', me: SignedIn, response: Response): Promise<void> {
    const file = await this.own(caseId, fileId, me);
    if (file.kind !== 'photo') throw new ProblemException(404, 'Not found', 'There is nothing here that you may see.');
    response
      .type('image/jpeg')
      .setHeader('Cache-Control', FOR_EVER)
      .send(await this.files.smaller(file, size));
  }

  private async ownToKeep(caseId: string, fileId: string, me: SignedIn): Promise<FileRow> {
    const file = await this.own(caseId, fileId, me);
    requireKeeper(me);
    return file;
  }

  private async own(caseId: string, fileId: string, me: SignedIn): Promise<FileRow> {
    await this.cases.own(caseId, me);
    const file = await this.files.find(caseId, fileId);
    if (!file) throw new ProblemException(404, 'Not found', 'There is nothing here that you may see.');
    return file;
  }

  @Get(':fileId')
  async content(@Param('caseId') caseId: string, @Param('fileId') fileId: string, @Me() me: SignedIn, @Res() response: Response): Promise<void> {
    const file = await this.own(caseId, fileId, me);
    response
      .type(file.mime)
      .setHeader('Cache-Control', FOR_EVER)
      .setHeader('Content-Disposition', `inline; filename*=UTF-8''${encodeURIComponent(file.name)}`)
      .send(await this.files.read(file));
  }
}
