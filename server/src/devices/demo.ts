import { randomUUID } from 'node:crypto';
import { Injectable, Logger } from '@nestjs/common';
import { type LandmarkInput, landmarkSet, type MeetSection, planInputs, type Role, type SectionChange } from '@radiant/contract';
import {
  existingArch,
  type Figure,
  firstContour,
  gapsBetween,
  LANDMARK_KINDS,
  measureTeeth,
  type Proposal,
  propose,
  readScan,
  scaleOf,
  UPPER_SIX,
} from '@radiant/core';
import {
  AVOCET,
  INTRAORAL_SCANNER,
  makePatient,
  type Patient,
  photograph,
  project,
  RETRACTED_FRONT,
  random,
  scalePoints,
  scan,
  truePoints,
} from '@radiant/standins';
import sharp from 'sharp';
import { CasesService } from '../cases/cases.service.js';
import { SectionsService } from '../cases/sections.service.js';
import { Person, Practice, SettingRow } from '../database/database.js';
import { FilesService } from '../files/files.service.js';
import { PeopleService } from '../people/people.service.js';
import type { SignedIn } from '../people/session.js';

/** The sample people; everybody may know their password, so they exist with demo data only. */
export const DEMO_PASSWORD = 'wading birds at low tide';
export const DEMO_PEOPLE: readonly { name: string; email: string; role: Role }[] = [
  { name: 'Dr Sample Curlew', email: 'dentist@estuary.example', role: 'dentist' },
  { name: 'Assistant Sample Knot', email: 'assistant@estuary.example', role: 'assistant' },
  { name: 'Technician Sample Ruff', email: 'technician@estuary.example', role: 'technician' },
];

const DONE = 'demo';

const AVOCET_MEET: MeetSection = {
  ageYears: 34,
  sexAtBirth: 'female',
  wish: 'wants them even and a little longer',
  wishTags: ['even', 'longer', 'natural'],
  finishBy: '2026-12-18',
  cautions: ['grinding'],
  cautionNote: 'Grinds at night; a guard after the veneers.',
  teeth: [
    { tooth: 21, past: ['trauma'], note: 'Fell off a bicycle at twelve; vital.' },
    { tooth: 14, past: ['filling'] },
  ],
};

/** Puts the demo practice and its case in, once. Everything is made by the simulated devices and arrives as theirs would. */
@Injectable()
export class Demo {
  private readonly log = new Logger('demo');

  constructor(
    private readonly people: PeopleService,
    private readonly cases: CasesService,
    private readonly sections: SectionsService,
    private readonly files: FilesService,
  ) {}

  async putInOnce(): Promise<void> {
    const state = await SettingRow.findByPk(DONE);
    if (state?.value === 'done') return;
    if (state) await this.clearHalf();
    else if (!(await this.people.isEmpty())) return;
    this.log.warn('making the demo patient, photograph and scan; once only, about 20 s');
    const [dentist, ...others] = DEMO_PEOPLE;
    if (!dentist) return;
    await SettingRow.upsert({ name: DONE, value: 'begun' });
    const me = await this.people.first({ practice: 'Estuary Dental Studio (sample)', name: dentist.name, email: dentist.email, password: DEMO_PASSWORD });
    for (const p of others) await this.people.add({ ...p, password: DEMO_PASSWORD }, me.practiceId);
    await this.avocet(me);
    await SettingRow.upsert({ name: DONE, value: 'done' });
  }

  /** Takes away what an earlier start left half made when it was ended. */
  private async clearHalf(): Promise<void> {
    const person = await Person.findOne({ where: { email: DEMO_PEOPLE[0]?.email ?? '' } });
    if (person) await Practice.destroy({ where: { id: person.practiceId } });
  }

  /** *Avocet*: a small lateral on one side and worn centrals, six upper veneers mostly added. */
  private async avocet(me: SignedIn): Promise<void> {
    const patient = makePatient(AVOCET);
    const row = await this.cases.create({ name: 'Avocet', meet: AVOCET_MEET }, me);
    const change = (name: Parameters<SectionsService['change']>[1], data: object, version = 0) =>
      this.sections.change(row, name, { version, data } as SectionChange, me);

    const photo = await this.files.keep(row.id, {
      kind: 'photo',
      name: 'retracted front, before.jpg',
      bytes: await jpeg(patient),
      origin: 'simulated camera',
      takenBy: 'Assistant Sample Knot',
    });
    const bytes = scan(patient, INTRAORAL_SCANNER);
    const scanFile = await this.files.keep(row.id, { kind: 'scan', name: 'upper jaw, before.stl', bytes: Buffer.from(bytes), origin: 'simulated scanner' });

    const { from, to, mm } = scalePoints(RETRACTED_FRONT);
    const calibration = { from: { x: round(from[0]), y: round(from[1]) }, to: { x: round(to[0]), y: round(to[1]) }, mm };
    const landmarks = marks(patient);
    await change('read', { photoId: photo.id, calibration, landmarks });

    const choice = { school: 'ratio', referenceTooth: 11, edgeMm: 0.5 } as const;
    await change('propose', choice);
    const scale = scaleOf({ from, to, mm });
    const set = landmarkSet(landmarks);
    const proposal = propose(measureTeeth(set, scale), choice, gapsBetween(set, scale) as Figure) as Proposal;
    const targets = new Map(proposal.targets.map((t) => [t.tooth, { lengthMm: t.length.value, widthMm: t.width.value }]));
    await change('shape', { scanId: scanFile.id, proposalVersion: 1, teeth: planInputs(firstContour(existingArch(readScan(bytes)), targets)) });
    await change('reduce', { design: 'graduated', from: 'mock-up' });
    await this.cases.comment(
      row,
      { stage: 'shape', body: 'The left lateral stands turned; please keep its mesial line angle a little soft.' },
      { ...me, id: randomUUID(), name: 'Technician Sample Ruff', role: 'technician' },
    );
  }
}

const round = (v: number) => Math.round(v * 10) / 10;

async function jpeg(patient: Patient): Promise<Buffer> {
  const p = photograph(patient, RETRACTED_FRONT);
  return sharp(Buffer.from(p.rgba.buffer), { raw: { width: p.width, height: p.height, channels: 4 } })
    .removeAlpha()
    .jpeg({ quality: 90 })
    .toBuffer();
}

/** Landmarks as a careful hand sets them: the true places, off by a pixel or so. */
function marks(patient: Patient): LandmarkInput[] {
  const hand = random(5);
  return UPPER_SIX.flatMap((tooth) => {
    const own = patient.teeth.find((t) => t.tooth === tooth);
    if (!own) return [];
    const points = truePoints(own);
    return LANDMARK_KINDS.map((kind) => {
      const [x, y] = project(RETRACTED_FRONT, points[kind]);
      return { tooth, kind, x: round(x + hand.normal(0.8)), y: round(y + hand.normal(0.8)) };
    });
  });
}
