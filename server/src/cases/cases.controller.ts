import { Body, Controller, Get, Param, Patch, Post } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import {
  type CaseComment,
  type CaseDetail,
  type CaseSummary,
  NewCase,
  NewComment,
  SectionChange,
  type SectionName,
  type SectionState,
} from '@radiant/contract';
import { Checked } from '../common/checked.pipe.js';
import { ProblemException } from '../common/problem.filter.js';
import { Me, type SignedIn } from '../people/session.js';
import { CasesService } from './cases.service.js';
import { SectionsService } from './sections.service.js';

@ApiTags('cases')
@Controller('cases')
export class CasesController {
  constructor(
    private readonly cases: CasesService,
    private readonly sections: SectionsService,
  ) {}

  @Get()
  list(@Me() me: SignedIn): Promise<CaseSummary[]> {
    return this.cases.list(me);
  }

  @Post()
  async create(@Body(new Checked(NewCase)) input: NewCase, @Me() me: SignedIn): Promise<CaseDetail> {
    if (me.role === 'technician') throw new ProblemException(403, 'Not allowed', 'A technician reads and comments; the practice opens cases.');
    return this.cases.detail(await this.cases.create(input, me));
  }

  @Get(':id')
  async detail(@Param('id') id: string, @Me() me: SignedIn): Promise<CaseDetail> {
    return this.cases.detail(await this.cases.own(id, me));
  }

  /** Changes one section: the version it was read at and its whole new content. 409 when somebody else was first. */
  @Patch(':id/sections/:name')
  async change(
    @Param('id') id: string,
    @Param('name') name: SectionName,
    @Body(new Checked(SectionChange)) change: SectionChange,
    @Me() me: SignedIn,
  ): Promise<SectionState> {
    return this.sections.change(await this.cases.own(id, me), name, change, me);
  }

  @Post(':id/comments')
  async comment(@Param('id') id: string, @Body(new Checked(NewComment)) input: NewComment, @Me() me: SignedIn): Promise<CaseComment> {
    return this.cases.comment(await this.cases.own(id, me), input, me);
  }
}
