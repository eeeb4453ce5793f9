import { readFile } from 'node:fs/promises';
import type { MessagePort } from 'node:worker_threads';
import {
  type CaseDetail,
  check,
  checkSection,
  type FieldError,
  type FileKind,
  type PlateInput,
  SectionChange,
  type SectionName,
} from '@radiant/contract';
import { treatRecord } from '@radiant/contract/treat-record';
import { type Day, type Jaw, type Notation, Refusal, type RefusalCode } from '@radiant/core';
import { parsed, SECTION_BODY } from '../common/body.js';
import { DISK_FULL, invalid, isDiskFull, ProblemException } from '../common/problem.filter.js';
import { type CaseInput, readCaseFile } from './case-reader.js';
import { type CaseOutput, writeCaseFile } from './case-writer.js';
import { contourFile, type Format, type Surface } from './contour-file.js';
import { cardsPdf } from './cut-cards.js';
import { engineOn } from './engines.js';
import { type EstimateOrder, estimatePdf, estimatesOf } from './estimate.js';
import { decodedHeic } from './heic.js';
import { holidaysOf } from './holidays.js';
import { type Inspected, inspectFile, nameOf } from './inspect.js';
import type { PaperForm } from './paper-forms.js';
import { planPdf } from './plan-pdf.js';
import { planSheet } from './plan-sheet.js';
import { prepPdf } from './prep-pdf.js';
import { type LaterTold, prepSheet } from './prep-sheet.js';
import { removedIn } from './removed.js';
import { type SheetPicture, shadesPdf } from './shade-pdf.js';
import { shadeSheet } from './shade-sheet.js';
import { tellOn } from './tell.js';
import { treatmentPdf } from './treatment-pdf.js';

// What runs in a thread of the pool: each export is one kind of work. A refusal goes back as data, since the classes of
// errors do not cross threads.

/** Why something was refused, as it crosses threads. */
export interface Fault {
  readonly sentence: string;
  readonly code?: RefusalCode;
  readonly status?: number;
  readonly title?: string;
  readonly errors?: readonly FieldError[];
}

async function told<T>(work: () => Promise<T>): Promise<T | { fault: Fault }> {
  try {
    return await work();
  } catch (error) {
    if (error instanceof Refusal) return { fault: { sentence: error.message, code: error.code } };
    if (error instanceof ProblemException)
      return {
        fault: {
          sentence: error.detail,
          status: error.getStatus(),
          title: error.problemTitle,
          ...(error.extra.errors && { errors: error.extra.errors }),
        },
      };
    // Codes of errors do not cross threads.
    if (isDiskFull(error)) return { fault: { sentence: DISK_FULL, status: 507, title: 'No room left' } };
    throw error;
  }
}

/** What a file turned out to be, and the name of its bytes. */
export const inspect = ({ kind, path }: { kind: FileKind; path: string }) =>
  told(async (): Promise<Inspected & { sha256: string; bytes: number }> => {
    const bytes = await readFile(path);
    return { ...(await inspectFile(kind, bytes)), sha256: nameOf(bytes), bytes: bytes.length };
  });

/** An HEIC picture as a JPEG. */
export const decode = ({ path }: { path: string }) =>
  told(async () => new Uint8Array(await decodedHeic(await readFile(path))));

/** A large change of a section: what it is made on, and its content checked, as text. */
export const readChange = ({ name, bytes }: { name: SectionName; bytes: Uint8Array }) =>
  told(async () => {
    const { value: change, errors } = check(
      SectionChange,
      parsed(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength), SECTION_BODY),
    );
    if (errors.length > 0) throw invalid(errors);
    const { value, errors: more } = checkSection(name, change.data);
    if (more.length > 0) throw invalid(more);
    return { version: change.version, text: JSON.stringify(value) };
  });

/** The days of a calendar of holidays, from a day on. */
export const holidays = ({ path, from }: { path: string; from: Day }) =>
  told(async () => holidaysOf(await readFile(path, 'utf8'), from));

/** Set by the threads where somebody listens. */
interface Line {
  readonly line?: MessagePort;
}

export interface PlanOrder {
  readonly detail: CaseDetail;
  readonly practice: string;
  readonly notation: Notation;
  readonly scanPaths: readonly string[];
  readonly form: PaperForm;
  /** Ceramics of the house's own, and photographs: of the laboratory's sheet only. */
  readonly plates?: readonly PlateInput[];
  readonly pictures?: readonly SheetPicture[];
  /** Later scans: of the verdict on the preparations only. */
  readonly later?: readonly (LaterTold & { readonly path: string })[];
  /** Fees, calendar and today: of the estimate only. */
  readonly estimate?: EstimateOrder;
  /** Where the house's clock hangs: of the record of treatment only. */
  readonly zone?: string;
}

/** The plan on paper. Empty while there is none. @param line on which it is told how far it is */
export const plan = ({
  detail,
  practice,
  notation,
  scanPaths,
  form,
  plates = [],
  pictures = [],
  later = [],
  estimate,
  zone = 'UTC',
  line,
}: PlanOrder & Line) =>
  told(async () => {
    const tell = tellOn(line);
    if (form === 'estimate') {
      if (!estimate) return new Uint8Array();
      tell('Reading the scans', 0.05);
      const removed = removedIn(detail, await engineOn(scanPaths));
      const plans = estimatesOf(detail, notation, estimate, removed);
      return plans.length > 0 ? new Uint8Array(await estimatePdf(detail, practice, plans, estimate)) : new Uint8Array();
    }
    if (form === 'treatment') {
      const visits = treatRecord(detail.sections.treat.data);
      return visits.length > 0
        ? new Uint8Array(await treatmentPdf(detail.name, practice, notation, visits, zone))
        : new Uint8Array();
    }
    tell('Reading the scans', 0.05);
    if (form === 'shades') {
      const colours = shadeSheet(detail, practice, notation, await engineOn(scanPaths), plates, tell);
      tell('Drawing the pages', 0.9);
      return colours ? new Uint8Array(await shadesPdf(colours, pictures)) : new Uint8Array();
    }
    if (form === 'preparations') {
      const judged = await prepSheet(detail, practice, notation, await engineOn(scanPaths, later), later, tell);
      tell('Drawing the pages', 0.95);
      return judged ? new Uint8Array(await prepPdf(judged)) : new Uint8Array();
    }
    const sheet = planSheet(detail, practice, notation, await engineOn(scanPaths), tell);
    tell('Drawing the pages', 0.9);
    if (!sheet) return new Uint8Array();
    return new Uint8Array(await (form === 'plan' ? planPdf(sheet) : cardsPdf(sheet, form)));
  });

export interface SurfaceOrder {
  readonly detail: CaseDetail;
  readonly scanPath: string | undefined;
  readonly jaw: Jaw;
  readonly what: Surface;
  readonly format: Format;
  readonly notation: Notation;
  readonly version: string | undefined;
}

/** A surface as a file. Empty while there is none. @param line on which it is told how far it is */
export const surface = ({ detail, scanPath, jaw, what, format, notation, version, line }: SurfaceOrder & Line) =>
  told(async () => {
    const tell = tellOn(line);
    tell('Reading the scan', 0.05);
    const bytes = await contourFile(
      detail,
      scanPath ? await engineOn([scanPath]) : undefined,
      jaw,
      what,
      format,
      notation,
      version,
      tell,
    );
    return bytes ? new Uint8Array(bytes) : new Uint8Array();
  });

export const readCase = (input: CaseInput) => told(() => readCaseFile(input));

export const writeCase = (output: CaseOutput) => told(() => writeCaseFile(output));

export interface Tasks {
  inspect: typeof inspect;
  decode: typeof decode;
  readChange: typeof readChange;
  holidays: typeof holidays;
  plan: typeof plan;
  surface: typeof surface;
  readCase: typeof readCase;
  writeCase: typeof writeCase;
}
