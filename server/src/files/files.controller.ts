import { Controller, Get, Param, Post, Query, Res, UploadedFile, UseInterceptors } from '@nestjs/common';
import { FileInterceptor } from '@nestjs/platform-express';
import { ApiConsumes, ApiTags } from '@nestjs/swagger';
import { type CaseFile, FILE_KINDS, type FileKind } from '@radiant/contract';
import type { Response } from 'express';
import { CasesService } from '../cases/cases.service.js';
import { ProblemException } from '../common/problem.filter.js';
import { Me, type SignedIn } from '../people/session.js';
import { describeFile, FilesService } from './files.service.js';

const MAX_FILE_BYTES = 50 * 1024 * 1024;

@ApiTags('files')
@Controller('cases/:caseId/files')
export class FilesController {
  constructor(
    private readonly cases: CasesService,
    private readonly files: FilesService,
  ) {}

  /** Takes one photograph or scan, multipart field `file`. */
  @Post()
  @ApiConsumes('multipart/form-data')
  @UseInterceptors(FileInterceptor('file', { limits: { fileSize: MAX_FILE_BYTES, files: 1 }, defParamCharset: 'utf8' }))
  async add(
    @Param('caseId') caseId: string,
    @Query('kind') kind: FileKind,
    @UploadedFile() file: Express.Multer.File | undefined,
    @Me() me: SignedIn,
  ): Promise<CaseFile> {
    const own = await this.cases.own(caseId, me);
    if (me.role === 'technician') throw new ProblemException(403, 'Not allowed', 'A technician reads and comments; the practice adds photographs and scans.');
    if (!FILE_KINDS.includes(kind)) throw new ProblemException(422, 'Not accepted', 'Say whether the file is a photo or a scan.');
    if (!file) throw new ProblemException(422, 'Not accepted', 'The upload holds no file.');
    return describeFile(await this.files.keep(own.id, { kind, name: file.originalname, bytes: file.buffer, origin: `uploaded by ${me.name}` }));
  }

  @Get(':fileId')
  async content(@Param('caseId') caseId: string, @Param('fileId') fileId: string, @Me() me: SignedIn, @Res() response: Response): Promise<void> {
    await this.cases.own(caseId, me);
    const file = await this.files.find(caseId, fileId);
    if (!file) throw new ProblemException(404, 'Not found', 'There is nothing here that you may see.');
    response
      .type(file.mime)
      .setHeader('Cache-Control', 'private, max-age=31536000, immutable')
      .setHeader('Content-Disposition', `inline; filename*=UTF-8''${encodeURIComponent(file.name)}`)
      .send(await this.files.read(file));
  }
}
