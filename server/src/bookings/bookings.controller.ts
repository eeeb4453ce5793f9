import { Controller, Get, Inject, Post, Query, Res, UploadedFile, UseInterceptors } from '@nestjs/common';
import { ApiConsumes, ApiTags } from '@nestjs/swagger';
import { type Booking, type BookSection, completed, type DaySheet, isDay } from '@radiant/contract';
import { dayOf, isoOf, type Taken } from '@radiant/core';
import type { Response } from 'express';
import type { Sequelize } from 'sequelize';
import { bookingsOf } from '../cases/bookings.js';
import { CasesService } from '../cases/cases.service.js';
import { takenIn } from '../cases/taken.js';
import { ProblemException } from '../common/problem.filter.js';
import { type Uploaded, UploadToDisk } from '../common/upload.js';
import { CaseRow, RevisionRow, SectionRow } from '../database/database.js';
import { DATABASE } from '../database/database.module.js';
import { PracticeSettingsService } from '../people/practice-settings.service.js';
import { Allow, InCase, keepers, Me, OwnCase, type SignedIn } from '../people/session.js';
import { Pool } from '../pool/pool.js';
import type { HolidayDays } from '../work/holidays.js';
import { type Cancelled, calendarOf } from './calendar-file.js';
import { sheetOf } from './day-sheet.js';

/** A calendar of holidays is small. */
const MOST_BYTES = 2 * 1024 ** 2;

/** What has to be there for a visit has to be ordered so many days before at most. */
const REMIND_DAYS = 14;

/** What is booked in the practice, and what comes in and goes out of it as iCalendar. */
@ApiTags('bookings')
@Controller()
export class BookingsController {
  constructor(
    @Inject(DATABASE) private readonly db: Sequelize,
    private readonly settings: PracticeSettingsService,
    private readonly cases: CasesService,
    private readonly pool: Pool,
  ) {}

  /** The visits of all cases between two days, both within. */
  @Get('bookings')
  bookings(@Query('from') from: string, @Query('to') to: string, @Me() me: SignedIn): Promise<Booking[]> {
    if (!isDay(from) || !isDay(to) || to < from)
      throw new ProblemException(422, 'Not accepted', 'Ask for visits from a day to the same or a later one.');
    return bookingsOf(this.db, me.practiceId, { from, to });
  }

  /** What is booked on a day, with what is laid out for each visit. */
  @Get('bookings/day')
  async day(@Query('day') day: string, @Me() me: SignedIn): Promise<DaySheet> {
    if (!isDay(day)) throw new ProblemException(422, 'Not accepted', 'Say which day.');
    const soon = await bookingsOf(this.db, me.practiceId, { from: day, to: isoOf(dayOf(day) + REMIND_DAYS) });
    const settings = await this.settings.of(me.practiceId);
    const sheets = await Promise.all(
      [...new Set(soon.map((b) => b.caseId))].map(async (id): Promise<Pick<DaySheet, 'visits' | 'reminders'>> => {
        const row = await CaseRow.findOne({ where: { id, practiceId: me.practiceId } });
        return row ? sheetOf(await this.cases.detail(row), settings, soon, day) : { visits: [], reminders: [] };
      }),
    );
    return {
      day,
      visits: sheets.flatMap((s) => s.visits).sort((a, b) => a.from - b.from || (a.chair < b.chair ? -1 : 1)),
      reminders: sheets.flatMap((s) => s.reminders),
    };
  }

  /** How long the practice's visits truly took, of all its cases. */
  @Get('bookings/taken')
  taken(@Me() me: SignedIn): Promise<Taken[]> {
    return takenIn(this.db, me.practiceId);
  }

  /** The visits of a case as iCalendar; those that were booked once and are no more are told as cancelled. */
  @Get('cases/:id/visits.ics')
  @InCase('id')
  async ofCase(@OwnCase() own: CaseRow, @Me() me: SignedIn, @Res() response: Response): Promise<void> {
    const { clinic } = await this.settings.of(me.practiceId);
    const row = await SectionRow.findOne({ where: { caseId: own.id, name: 'book' } });
    const { visits } = completed('book', row?.data ?? {}) as BookSection;
    const booked = visits.map((v): Booking => ({ ...v, caseId: own.id, caseName: own.name }));
    const cancelled = await this.cancelled(own, new Set(visits.map((v) => v.kind)));
    const text = calendarOf(own.name, booked, cancelled, clinic, row?.version ?? 0, row?.at ?? new Date(0));
    response
      .type('text/calendar')
      .setHeader('Content-Disposition', `attachment; filename*=UTF-8''${encodeURIComponent(`${own.name} visits.ics`)}`);
    response.send(text);
  }

  private async cancelled(own: CaseRow, booked: ReadonlySet<string>): Promise<Cancelled[]> {
    const states = await RevisionRow.findAll({
      where: { caseId: own.id, section: 'book' },
      order: [['version', 'ASC']],
    });
    const last = new Map<string, Cancelled>();
    for (const { data } of states)
      for (const { kind, day, from, minutes } of (completed('book', data) as BookSection).visits)
        if (!booked.has(kind)) last.set(kind, { caseId: own.id, caseName: own.name, kind, day, from, minutes });
    return [...last.values()];
  }

  /** The days of a calendar of holidays from today on. Nothing is kept: whoever asks puts them into the settings. */
  @Post('bookings/holidays')
  @Allow(keepers('reads calendars in'))
  @ApiConsumes('multipart/form-data')
  @UseInterceptors(UploadToDisk(MOST_BYTES))
  async holidays(@UploadedFile() file: Uploaded | undefined, @Query('from') from: string): Promise<HolidayDays[]> {
    if (!file) throw new ProblemException(422, 'Not accepted', 'Choose an iCalendar file.');
    if (!isDay(from)) throw new ProblemException(422, 'Not accepted', 'Say from which day on.');
    return this.pool.read('holidays', { path: file.path, from: dayOf(from) });
  }
}
