import { Body, Controller, HttpCode, Param, Post, Put } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { ContourApproval, type ContourVersion, NewContourVersion, WornMockUp } from '@radiant/contract';
import { Checked } from '../common/checked.pipe.js';
import type { CaseRow } from '../database/database.js';
import { Allow, InCase, Me, OwnCase, type SignedIn } from '../people/session.js';
import { ContoursService, releasers } from './contours.service.js';

@ApiTags('contours')
@Controller('cases/:caseId/contours')
@InCase('caseId')
@Allow(releasers)
export class ContoursController {
  constructor(private readonly contours: ContoursService) {}

  /** Keeps the contour that stands in shape as a version. */
  @Post()
  keep(
    @OwnCase() own: CaseRow,
    @Body(new Checked(NewContourVersion)) input: NewContourVersion,
    @Me() me: SignedIn,
  ): Promise<ContourVersion> {
    return this.contours.keep(own, input, me);
  }

  /** Says that a version is or was worn as a mock-up, and what came of it. */
  @Put(':id/worn')
  wear(
    @OwnCase() own: CaseRow,
    @Param('id') id: string,
    @Body(new Checked(WornMockUp)) worn: WornMockUp,
  ): Promise<ContourVersion> {
    return this.contours.wear(own, id, worn);
  }

  /** The patient's approval; it freezes the version. */
  @Post(':id/approve')
  @HttpCode(200)
  approve(
    @OwnCase() own: CaseRow,
    @Param('id') id: string,
    @Body(new Checked(ContourApproval)) approval: ContourApproval,
    @Me() me: SignedIn,
  ): Promise<ContourVersion> {
    return this.contours.approve(own, id, approval, me);
  }
}
