import { Body, Controller, Delete, Get, HttpCode, Param, Patch, Post, Query, Req } from '@nestjs/common';
import { ApiBody, ApiTags } from '@nestjs/swagger';
import {
  type CaseComment,
  CaseCopy,
  type CaseDetail,
  CaseOpened,
  type CasePage,
  CaseQuery,
  check,
  NewCase,
  NewComment,
  SectionChange,
  type SectionHistory,
  type SectionName,
  type SectionState,
} from '@radiant/contract';
import type { Request } from 'express';
import { SECTION_BODY, TakesBody } from '../common/body.js';
import { Checked } from '../common/checked.pipe.js';
import { invalid } from '../common/problem.filter.js';
import type { CaseRow } from '../database/database.js';
import { Allow, InBin, InCase, keepers, Me, OwnCase, type Rule, type SignedIn } from '../people/session.js';
import { CasesService } from './cases.service.js';
import { DuplicateService } from './duplicate.service.js';
import { SectionsService, writers } from './sections.service.js';

/** Records of treatment are a dentist’s to put away. */
const binners: Rule = (me) =>
  me.role === 'dentist' ? undefined : 'Only a dentist puts cases away and brings them back.';

@ApiTags('cases')
@Controller('cases')
export class CasesController {
  constructor(
    private readonly cases: CasesService,
    private readonly sections: SectionsService,
    private readonly copies: DuplicateService,
  ) {}

  /** One page of the practice's cases: `search` in names, `sort` by changed, name or finish, `page` from 0. */
  @Get()
  list(@Query() query: Record<string, string>, @Me() me: SignedIn): Promise<CasePage> {
    const { page, bin, ...said } = query;
    const { value, errors } = check(CaseQuery, {
      ...said,
      ...(page !== undefined && { page: Number(page) }),
      ...(bin !== undefined && { bin: bin === 'true' }),
    });
    if (errors.length > 0) throw invalid(errors);
    return this.cases.list(me, value);
  }

  @Post()
  @Allow(keepers('opens cases'))
  async create(@Body(new Checked(NewCase)) input: NewCase, @Me() me: SignedIn): Promise<CaseDetail> {
    return this.cases.detail(await this.cases.create(input, me));
  }

  /** A second case with everything that this one holds. */
  @Post(':id/duplicate')
  @InCase('id')
  @Allow(keepers('opens cases'))
  async duplicate(@OwnCase() own: CaseRow, @Body(new Checked(CaseCopy)) input: CaseCopy): Promise<CaseDetail> {
    return this.cases.detail(await this.copies.duplicate(own, input.name));
  }

  @Get(':id')
  @InCase('id')
  detail(@OwnCase() own: CaseRow): Promise<CaseDetail> {
    return this.cases.detail(own);
  }

  /** Gives the case another name. */
  @Patch(':id')
  @InCase('id')
  @Allow(keepers('names cases'))
  async rename(@OwnCase() own: CaseRow, @Body(new Checked(CaseCopy)) { name }: CaseCopy): Promise<CaseDetail> {
    await own.update({ name, changedAt: new Date() });
    return this.cases.detail(own);
  }

  /** Notes at which stage the person has the case open, so that they find it again. */
  @Post(':id/opened')
  @InCase('id')
  @InBin()
  @HttpCode(204)
  opened(
    @OwnCase() own: CaseRow,
    @Body(new Checked(CaseOpened)) { stage }: CaseOpened,
    @Me() me: SignedIn,
  ): Promise<void> {
    return this.cases.opened(own, stage, me);
  }

  /** Puts the case away; it can be brought back for 30 days, and is forgotten after that. */
  @Delete(':id')
  @InCase('id')
  @Allow(binners)
  @HttpCode(204)
  putAway(@OwnCase() own: CaseRow, @Me() me: SignedIn): Promise<void> {
    return this.cases.putAway(own, me);
  }

  @Post(':id/bring-back')
  @InCase('id')
  @InBin()
  @Allow(binners)
  async bringBack(@OwnCase() own: CaseRow): Promise<CaseDetail> {
    await this.cases.bringBack(own);
    return this.cases.detail(own);
  }

  /** Changes one section: the version it was read at and its whole new content. 409 when somebody else was first. */
  @Patch(':id/sections/:name')
  @InCase('id')
  @Allow(writers)
  @TakesBody(SECTION_BODY)
  @ApiBody({ type: SectionChange })
  change(
    @OwnCase() own: CaseRow,
    @Param('name') name: SectionName,
    @Req() request: Request,
    @Me() me: SignedIn,
  ): Promise<SectionState> {
    return this.sections.change(own, name, request.body, me);
  }

  /** In which states a section was saved, the newest first; `before` a number goes on from there. */
  @Get(':id/sections/:name/history')
  @InCase('id')
  history(
    @OwnCase() own: CaseRow,
    @Param('name') name: SectionName,
    @Query('before') before?: string,
  ): Promise<SectionHistory> {
    return this.sections.history(own, name, before);
  }

  @Post(':id/comments')
  @InCase('id')
  comment(
    @OwnCase() own: CaseRow,
    @Body(new Checked(NewComment)) input: NewComment,
    @Me() me: SignedIn,
  ): Promise<CaseComment> {
    return this.cases.comment(own, input, me);
  }
}
