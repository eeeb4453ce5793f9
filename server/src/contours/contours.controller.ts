import { Body, Controller, HttpCode, Param, Post, Put } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { ContourApproval, type ContourVersion, NewContourVersion, WornMockUp } from '@radiant/contract';
import { CasesService } from '../cases/cases.service.js';
import { Checked } from '../common/checked.pipe.js';
import { Me, type SignedIn } from '../people/session.js';
import { ContoursService } from './contours.service.js';

@ApiTags('contours')
@Controller('cases/:caseId/contours')
export class ContoursController {
  constructor(
    private readonly cases: CasesService,
    private readonly contours: ContoursService,
  ) {}

  /** Keeps the contour that stands in shape as a version. */
  @Post()
  async keep(@Param('caseId') caseId: string, @Body(new Checked(NewContourVersion)) input: NewContourVersion, @Me() me: SignedIn): Promise<ContourVersion> {
    return this.contours.keep(await this.cases.own(caseId, me), input, me);
  }

  /** Says that a version is or was worn as a mock-up, and what came of it. */
  @Put(':id/worn')
  async wear(
    @Param('caseId') caseId: string,
    @Param('id') id: string,
    @Body(new Checked(WornMockUp)) worn: WornMockUp,
    @Me() me: SignedIn,
  ): Promise<ContourVersion> {
    return this.contours.wear(await this.cases.own(caseId, me), id, worn, me);
  }

  /** The patient's approval; it freezes the version. */
  @Post(':id/approve')
  @HttpCode(200)
  async approve(
    @Param('caseId') caseId: string,
    @Param('id') id: string,
    @Body(new Checked(ContourApproval)) approval: ContourApproval,
    @Me() me: SignedIn,
  ): Promise<ContourVersion> {
    return this.contours.approve(await this.cases.own(caseId, me), id, approval, me);
  }
}
