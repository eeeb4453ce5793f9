import { createReadStream } from 'node:fs';
import { stat, unlink } from 'node:fs/promises';
import { pipeline } from 'node:stream/promises';
import { Controller, Get, Inject, Param, Post, Query, Res, UploadedFile, UseInterceptors } from '@nestjs/common';
import { ApiConsumes, ApiTags } from '@nestjs/swagger';
import {
  type CaseDetail,
  type ContourVersion,
  JAWS,
  PHOTO_VIEWS,
  type PhotoView,
  plannedOn,
  scanFor,
} from '@radiant/contract';
import { dayOf, isoOf, type Jaw, jawOf, LATER_STATES, NOTATION_NAMES, type Notation } from '@radiant/core';
import type { Response } from 'express';
import { DateTime } from 'luxon';
import type { Sequelize } from 'sequelize';
import { bookingsOf } from '../cases/bookings.js';
import { CasesService } from '../cases/cases.service.js';
import { nothingHere, ProblemException } from '../common/problem.filter.js';
import { type Uploaded, UploadToDisk } from '../common/upload.js';
import type { CaseRow } from '../database/database.js';
import { DATABASE } from '../database/database.module.js';
import { Printer } from '../devices/printer.js';
import { FilesService } from '../files/files.service.js';
import { PracticeSettingsService } from '../people/practice-settings.service.js';
import { Allow, InCase, keepers, Me, OwnCase, type SignedIn } from '../people/session.js';
import { Pool } from '../pool/pool.js';
import type { Asking } from '../pool/threads.js';
import { FORMATS, type Format, MIME, SURFACES, type Surface } from '../work/contour-file.js';
import type { EstimateOrder } from '../work/estimate.js';
import { PAPER_FORMS, type PaperForm } from '../work/paper-forms.js';
import { CaseDocumentService } from './case-document.js';
import { JobsService } from './jobs.service.js';

/**
 * A case file carries all photographs and scans in base64; it is read from the disk, so that only the disk limits it.
 */
const MAX_DOCUMENT_BYTES = 16 * 1024 ** 3;

/** What the papers are called. */
const PAPER_NAMES: Readonly<Record<PaperForm, string>> = {
  plan: 'plan',
  cards: 'cards',
  six: 'cards',
  shades: 'colours',
  preparations: 'preparations',
  estimate: 'estimate',
  treatment: 'treatment',
};
/** Photographs that show a technician the colour, the most telling first; and how many go with the sheet. */
const SHADE_VIEWS: readonly PhotoView[] = ['retracted-front', 'close-smile', 'twelve-oclock', 'portrait-smile'];
const SHADE_PICTURES = 4;

/** A surface as it is asked for. */
interface AskedSurface {
  readonly what?: Surface | undefined;
  readonly version?: string | undefined;
  readonly jaw?: Jaw | undefined;
  readonly notation?: string | undefined;
}

/** Why a form can't be printed yet, where it is not for want of a plan. */
const NOT_READY: Readonly<Partial<Record<PaperForm, string>>> = {
  estimate: 'There is nothing to estimate yet: decide what is done to a tooth first.',
  preparations: 'There is no verdict to print yet: it needs a planned tooth, and a scan of the prepared teeth.',
  treatment: 'Nothing was done at the chair yet: begin a visit in treat first.',
};

@ApiTags('documents')
@Controller('cases')
export class DocumentsController {
  constructor(
    private readonly cases: CasesService,
    private readonly files: FilesService,
    private readonly documents: CaseDocumentService,
    private readonly pool: Pool,
    private readonly jobs: JobsService,
    private readonly printer: Printer,
    private readonly settings: PracticeSettingsService,
    @Inject(DATABASE) private readonly db: Sequelize,
  ) {}

  /** How far something is that is being made for whoever asks: `job` is the number that came with its request. */
  @Get('making/:job')
  making(@Param('job') job: string, @Me() me: SignedIn): { what: string; share: number } {
    const progress = this.jobs.progress(me.id, job);
    if (!progress) throw nothingHere();
    return progress;
  }

  /**
   * The plan on paper, PDF: a page for six teeth of a jaw, or with `form=cards` a card in A5 for each tooth, or with
   * `form=six` six short ones on A4, with `form=shades` the laboratory's sheet of
   * colours, with `form=preparations` the verdict on the prepared teeth,
   * with `form=estimate` an estimate for the patient, or with `form=treatment` the record of what was done. Teeth are
   * named in `notation`, FDI where nothing is said; the page says which it is.
   */
  @Get(':id/plan.pdf')
  @InCase('id')
  async pdf(
    @OwnCase() own: CaseRow,
    @Query('notation') asked: string | undefined,
    @Query('form') askedForm: PaperForm | undefined,
    @Query('job') job: string | undefined,
    @Me() me: SignedIn,
    @Res() response: Response,
  ): Promise<void> {
    const asking = this.jobs.asking(me.id, job, response);
    const notation = requireNotation(asked);
    const form = askedForm ?? 'plan';
    if (!PAPER_FORMS.includes(form))
      throw new ProblemException(422, 'Not accepted', `The plan is put on paper as ${PAPER_FORMS.join(', ')}.`);
    const detail = await this.cases.detail(own);
    const { teeth } = detail.sections.shape.data;
    const jaws = JAWS.filter((jaw) => teeth.some((t) => jawOf(t.tooth) === jaw));
    const paths = await Promise.all(jaws.map((jaw) => this.scanPath(own, plannedOn(detail, jaw)?.id)));
    const scanPaths = paths.filter((p) => p !== undefined);
    const more = await this.moreFor(form, own, detail, me);
    const made = await this.pool.make(
      'plan',
      { detail, practice: me.practice, notation, scanPaths, form, ...more },
      asking,
    );
    if (made.length === 0)
      throw new ProblemException(
        422,
        'Not ready',
        NOT_READY[form] ?? 'There is no plan to print yet: it needs a scan, and a planned tooth that stands in it.',
      );
    send(
      response,
      'application/pdf',
      `${detail.name} ${PAPER_NAMES[form]}, ${NOTATION_NAMES[notation].short} numbers.pdf`,
      made,
    );
  }

  /** What a form needs beside the case. */
  private async moreFor(form: PaperForm, own: CaseRow, detail: CaseDetail, me: SignedIn) {
    if (form === 'shades') return this.forLaboratory(own, detail, me);
    if (form === 'preparations') return { later: await this.laterOf(own, detail) };
    if (form === 'estimate') return { estimate: await this.estimateOf(me) };
    if (form === 'treatment') return { zone: (await this.settings.of(me.practiceId)).clinic.timeZone };
    return {};
  }

  /** By what an estimate is made. */
  private async estimateOf(me: SignedIn): Promise<EstimateOrder> {
    const settings = await this.settings.of(me.practiceId);
    const today = DateTime.now().setZone(settings.clinic.timeZone).toISODate() ?? isoOf(0);
    const to = isoOf(dayOf(today) + 400);
    return { settings, today, bookings: await bookingsOf(this.db, me.practiceId, { from: today, to }) };
  }

  /** The scans that preparations are judged by. */
  private async laterOf(own: CaseRow, detail: CaseDetail) {
    const { scanId } = detail.sections.verify.data;
    const all = JAWS.flatMap((jaw) =>
      LATER_STATES.flatMap((state) => {
        const file = scanFor(detail.files, jaw, state, state === 'prepared' ? scanId : undefined);
        return file ? [{ jaw, state, name: file.name, at: file.at, id: file.id }] : [];
      }),
    );
    const found = await Promise.all(all.map(async ({ id, ...l }) => ({ ...l, path: await this.scanPath(own, id) })));
    return found.flatMap(({ path, ...l }) => (path ? [{ ...l, path }] : []));
  }

  /** What the laboratory's sheet needs beside the case: the house's ceramics, and the photographs that show colour. */
  private async forLaboratory(own: CaseRow, detail: CaseDetail, me: SignedIn) {
    const { plates } = await this.settings.of(me.practiceId);
    const wanted = detail.files
      .filter((f) => f.kind === 'photo' && f.state !== 'final' && SHADE_VIEWS.includes(f.view as PhotoView))
      .sort((a, b) => SHADE_VIEWS.indexOf(a.view as PhotoView) - SHADE_VIEWS.indexOf(b.view as PhotoView))
      .slice(0, SHADE_PICTURES);
    const pictures = await Promise.all(
      wanted.map(async (f) => {
        const file = await this.files.find(own.id, f.id);
        return file
          ? [
              {
                words: `${PHOTO_VIEWS[f.view as PhotoView]}, ${f.name}`,
                bytes: await this.files.smaller(file, 'preview'),
              },
            ]
          : [];
      }),
    );
    return { plates, pictures: pictures.flat() };
  }

  /**
   * The planned crowns (`what=planned`, of a kept contour with `version`) the scanned arch (`what=existing`) or both
   * joined into a model (`what=mock-up`) as binary STL, 3MF, OBJ or PLY, mm.
   */
  @Get(':id/contour.:format')
  @InCase('id')
  async surface(
    @OwnCase() own: CaseRow,
    @Param('format') format: Format,
    @Query('what') what: Surface | undefined,
    @Query('version') version: string | undefined,
    @Query('jaw') askedJaw: Jaw | undefined,
    @Query('notation') asked: string | undefined,
    @Query('job') job: string | undefined,
    @Me() me: SignedIn,
    @Res() response: Response,
  ): Promise<void> {
    const asking = this.jobs.asking(me.id, job, response);
    if (!FORMATS.includes(format)) throw nothingHere();
    const order = await this.orderOf(own, format, { what, version, jaw: askedJaw, notation: asked });
    const { detail, what: surface, jaw, notation, kept } = order;
    const made = await this.made(order, asking);
    const words = [
      detail.name,
      jaw === 'lower' ? 'lower' : '',
      surface,
      kept ? String(kept.number) : '',
      format === '3mf' ? `${NOTATION_NAMES[notation].short} numbers` : '',
    ];
    send(response, MIME[format], `${words.filter(Boolean).join(' ')}.${format}`, made);
  }

  /**
   * Sends a surface to the simulated printer as the file that would be saved, STL or with `format=3mf` that, and says
   * what it says. Nothing is printed, and nothing is changed.
   */
  @Get(':id/print')
  @InCase('id')
  async print(
    @OwnCase() own: CaseRow,
    @Query('what') what: Surface | undefined,
    @Query('jaw') jaw: Jaw | undefined,
    @Query('format') format: Format | undefined,
    @Me() me: SignedIn,
    @Res() response: Response,
  ): Promise<void> {
    const asking = this.jobs.asking(me.id, undefined, response);
    if (format && format !== 'stl' && format !== '3mf')
      throw new ProblemException(422, 'Not accepted', 'The printer takes STL or 3MF.');
    const order = await this.orderOf(own, format ?? 'stl', { what, jaw });
    response.json(await this.printer.send(await this.made(order, asking), asking.signal));
  }

  /** What of a case is to be made into a file. @throws ProblemException 404, 422 */
  private async orderOf(own: CaseRow, format: Format, asked: AskedSurface) {
    const notation = requireNotation(asked.notation);
    const what = asked.what ?? 'planned';
    if (!SURFACES.includes(what))
      throw new ProblemException(
        422,
        'Not accepted',
        'Ask for the planned or the existing surface, for the mock-up model, for the target preparations, or for a guide.',
      );
    const jaw = asked.jaw ?? 'upper';
    if (jaw !== 'upper' && jaw !== 'lower')
      throw new ProblemException(422, 'Not accepted', 'Ask for the upper or the lower jaw.');
    const { version } = asked;
    const detail = await this.cases.detail(own);
    const kept = version ? detail.contours.find((c) => c.id === version) : undefined;
    if (version && !kept) throw nothingHere();
    const scanPath = await this.groundOf(own, detail, jaw, kept);
    return { detail, scanPath, jaw, what, format, notation, version, kept };
  }

  /** @throws ProblemException 422 while there is no such surface */
  private async made({ kept: _, ...order }: Awaited<ReturnType<DocumentsController['orderOf']>>, asking: Asking) {
    const made = await this.pool.make('surface', order, asking);
    if (made.length === 0)
      throw new ProblemException(
        422,
        'Not ready',
        'There is no such surface yet: it needs a scan, and the plan a planned tooth that stands in it.',
      );
    return made;
  }

  /**
   * Where the scan lies that a contour stands on: of one that was kept, the very bytes that it was made from.
   * @throws ProblemException 409 where these are not there any more
   */
  private async groundOf(
    own: CaseRow,
    detail: CaseDetail,
    jaw: Jaw,
    kept: ContourVersion | undefined,
  ): Promise<string | undefined> {
    const source = kept?.madeFrom.files.find((f) => f.jaw === jaw);
    if (!source) return this.scanPath(own, plannedOn(detail, jaw)?.id);
    const file = await this.files.find(own.id, source.fileId);
    if (file?.sha256 === source.sha256) return this.files.pathOf(file);
    throw new ProblemException(
      409,
      'Not the same any more',
      `The scan that “${kept?.name}” was made from is not in this case any more, so it can’t be worked out.`,
    );
  }

  private async scanPath(own: CaseRow, scanId: string | null | undefined): Promise<string | undefined> {
    const file = scanId ? await this.files.find(own.id, scanId) : null;
    return file ? this.files.pathOf(file) : undefined;
  }

  /** The whole case as one JSON file. */
  @Get(':id/case.json')
  @InCase('id')
  async json(@OwnCase() own: CaseRow, @Res() response: Response): Promise<void> {
    const path = await this.documents.write(own);
    try {
      head(response, 'application/json', `${own.name}.radiant-arch.json`);
      response.setHeader('content-length', (await stat(path)).size);
      // Broken off on the way, the connection ends without its proper end, and the browser tells a failed download.
      await pipeline(createReadStream(path), response).catch(() => response.destroy());
    } finally {
      await unlink(path).catch(() => undefined);
    }
  }

  /** Reads a case file into a new case, multipart field `file`. */
  @Post('import')
  @Allow(keepers('opens cases'))
  @ApiConsumes('multipart/form-data')
  @UseInterceptors(UploadToDisk(MAX_DOCUMENT_BYTES))
  async import(@UploadedFile() file: Uploaded | undefined, @Me() me: SignedIn): Promise<CaseDetail> {
    if (!file) throw new ProblemException(422, 'Not accepted', 'The upload holds no file.');
    return this.cases.detail(await this.documents.read(file.path, me));
  }
}

function requireNotation(asked: string | undefined): Notation {
  const notation = asked ?? 'fdi';
  if (notation !== 'fdi' && notation !== 'universal')
    throw new ProblemException(422, 'Not accepted', 'Teeth are named in FDI or in Universal numbers.');
  return notation;
}

function head(response: Response, mime: string, name: string): void {
  // Half a character in an old name is no name of a file.
  const whole = name.replace(/\p{Surrogate}/gu, '\ufffd');
  response.type(mime).setHeader('Content-Disposition', `attachment; filename*=UTF-8''${encodeURIComponent(whole)}`);
}

function send(response: Response, mime: string, name: string, body: Uint8Array): void {
  head(response, mime, name);
  response.send(Buffer.from(body.buffer, body.byteOffset, body.byteLength));
}
