import { Controller, Get, Param, Post, Query, Res, UploadedFile, UseInterceptors } from '@nestjs/common';
import { FileInterceptor } from '@nestjs/platform-express';
import { ApiConsumes, ApiTags } from '@nestjs/swagger';
import type { CaseDetail, FileKind } from '@radiant/contract';
import type { Jaw } from '@radiant/core';
import type { Response } from 'express';
import { CasesService } from '../cases/cases.service.js';
import { ProblemException } from '../common/problem.filter.js';
import { FilesService } from '../files/files.service.js';
import { Me, type SignedIn } from '../people/session.js';
import { CaseDocumentService } from './case-document.js';
import { contourFile, FORMATS, type Format, MIME, SURFACES, type Surface } from './contour-file.js';
import { planPdf } from './plan-pdf.js';
import { planSheet } from './plan-sheet.js';

/** Case files carry their photographs and scans in base64. */
const MAX_DOCUMENT_BYTES = 300 * 1024 * 1024;

@ApiTags('documents')
@Controller('cases')
export class DocumentsController {
  constructor(
    private readonly cases: CasesService,
    private readonly files: FilesService,
    private readonly documents: CaseDocumentService,
  ) {}

  /** The plan on one page, PDF. */
  @Get(':id/plan.pdf')
  async pdf(@Param('id') id: string, @Me() me: SignedIn, @Res() response: Response): Promise<void> {
    const detail = await this.cases.detail(await this.cases.own(id, me));
    const scanId = detail.sections.shape.data.scanId ?? detail.files.filter((f) => f.kind === 'scan').at(-1)?.id;
    const file = scanId ? await this.files.find(id, scanId) : null;
    const sheet = planSheet(detail, me.practice, file ? await this.files.read(file) : undefined);
    if (!sheet) throw new ProblemException(422, 'Not ready', 'There is no plan to print yet: it needs a scan and a contour of all six teeth.');
    send(response, 'application/pdf', `${detail.name} plan.pdf`, await planPdf(sheet));
  }

  /** The planned crowns (`what=planned`, of a kept contour with `version`) the scanned arch (`what=existing`) or both joined into a model (`what=mock-up`) as binary STL, 3MF, OBJ or PLY, mm. */
  @Get(':id/contour.:format')
  async surface(
    @Param('id') id: string,
    @Param('format') format: Format,
    @Query('what') what: Surface | undefined,
    @Query('version') version: string | undefined,
    @Query('jaw') asked: Jaw | undefined,
    @Me() me: SignedIn,
    @Res() response: Response,
  ): Promise<void> {
    if (!FORMATS.includes(format)) throw new ProblemException(404, 'Not found', 'There is nothing here that you may see.');
    const detail = await this.cases.detail(await this.cases.own(id, me));
    const surface = what ?? 'planned';
    if (!SURFACES.includes(surface)) throw new ProblemException(422, 'Not accepted', 'Ask for the planned or the existing surface, or for the mock-up model.');
    const jaw = asked ?? 'upper';
    if (jaw !== 'upper' && jaw !== 'lower') throw new ProblemException(422, 'Not accepted', 'Ask for the upper or the lower jaw.');
    const own = version ? detail.contours.find((c) => c.id === version) : undefined;
    if (version && !own) throw new ProblemException(404, 'Not found', 'There is nothing here that you may see.');
    const newest = (kind: FileKind) => detail.files.filter((f) => f.kind === kind).at(-1)?.id;
    const scanId = jaw === 'lower' ? newest('lower-scan') : (own?.scanId ?? detail.sections.shape.data.scanId ?? newest('scan'));
    const file = scanId ? await this.files.find(id, scanId) : null;
    const bytes = await contourFile(detail, file ? await this.files.read(file) : undefined, jaw, surface, format, version);
    if (!bytes)
      throw new ProblemException(
        422,
        'Not ready',
        'There is no such surface yet: it needs a scan, and the plan a contour: of all six upper front teeth, or of a lower tooth.',
      );
    send(response, MIME[format], `${detail.name} ${jaw === 'lower' ? 'lower ' : ''}${surface}${own ? ` ${own.number}` : ''}.${format}`, Buffer.from(bytes));
  }

  /** The whole case as one JSON file. */
  @Get(':id/case.json')
  async json(@Param('id') id: string, @Me() me: SignedIn, @Res() response: Response): Promise<void> {
    const row = await this.cases.own(id, me);
    send(response, 'application/json', `${row.name}.radiant-arch.json`, Buffer.from(JSON.stringify(await this.documents.write(row))));
  }

  /** Reads a case file into a new case, multipart field `file`. */
  @Post('import')
  @ApiConsumes('multipart/form-data')
  @UseInterceptors(FileInterceptor('file', { limits: { fileSize: MAX_DOCUMENT_BYTES, files: 1 } }))
  async import(@UploadedFile() file: Express.Multer.File | undefined, @Me() me: SignedIn): Promise<CaseDetail> {
    if (me.role === 'technician') throw new ProblemException(403, 'Not allowed', 'A technician reads and comments; the practice opens cases.');
    if (!file) throw new ProblemException(422, 'Not accepted', 'The upload holds no file.');
    return this.cases.detail(await this.documents.read(parse(file.buffer), me));
  }
}

function parse(bytes: Buffer): unknown {
  try {
    return JSON.parse(bytes.toString('utf8'));
  } catch {
    throw new ProblemException(422, 'Not accepted', 'The case file is not valid JSON; it may be cut short.');
  }
}

function send(response: Response, mime: string, name: string, body: Buffer): void {
  response
    .type(mime)
    .setHeader('Content-Disposition', `attachment; filename*=UTF-8''${encodeURIComponent(name)}`)
    .setHeader('Cache-Control', 'no-store')
    .send(body);
}
