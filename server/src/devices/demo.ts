import { type ChildProcess, fork } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { fileURLToPath } from 'node:url';
import { Injectable, Logger, type OnModuleDestroy } from '@nestjs/common';
import {
  completed,
  contourPlan,
  crownTargets,
  EMPTY_SECTIONS,
  FIRST_SETTINGS,
  frontOf,
  type PhotoView,
  type ProposeSection,
  planInputs,
  proposalChoice,
  type ReadSection,
  type ReduceSection,
  type Role,
  type SectionChange,
  type SectionName,
  type ShapeSection,
  setTargets,
} from '@radiant/contract';
import { ask, CaseEngine, dayOf, propose, readScan } from '@radiant/core';
import { inState, makePatient, RECIPES, type RecipeName } from '@radiant/standins';
import { CasesService } from '../cases/cases.service.js';
import { SectionsService } from '../cases/sections.service.js';
import { ProblemException } from '../common/problem.filter.js';
import { CaseRow, FileRow, Person, Practice, SectionRow, SettingRow } from '../database/database.js';
import { FilesService } from '../files/files.service.js';
import { InboxService } from '../inbox/inbox.service.js';
import { PeopleService } from '../people/people.service.js';
import { PracticeSettingsService } from '../people/practice-settings.service.js';
import type { SignedIn } from '../people/session.js';
import { ALL, type Delivery, FIRST, fileOf, PREPARATIONS, viewOf } from './deliveries.js';
import { demoBook, demoVisits } from './demo-bookings.js';
import { DEMO_CHOICES, DEMO_COLOURS } from './demo-colours.js';
import { DEMO_PLANS } from './demo-plans.js';
import { viewReading } from './demo-readings.js';
import { DEMO_RECORDS } from './demo-records.js';
import { demoStock, demoTreat } from './demo-treat.js';

/** The sample people; everybody may know their password, so they exist with demo data only. */
export const DEMO_PASSWORD = 'wading birds at low tide';
export const DEMO_PEOPLE: readonly { name: string; email: string; role: Role }[] = [
  { name: 'Dr Sample Curlew', email: 'dentist@estuary.example', role: 'dentist' },
  { name: 'Assistant Sample Knot', email: 'assistant@estuary.example', role: 'assistant' },
  { name: 'Technician Sample Ruff', email: 'technician@estuary.example', role: 'technician' },
];

const DONE = 'demo';
const DEVICES = 'demo-devices';
const LOOK_MS = 1000;
/** So long after the last file, and after the devices have left, what is missing will not come any more. */
const QUIET_MS = 180_000;

/** The views by which the first contour is made. */
const NEEDED = ['retracted-front', 'portrait-smile'] as const;

/**
 * Puts the demo practice and its cases in, once. Photographs and scans are made by the simulated devices in a process
 * of their own and arrive through the watched folder; what a careful hand would have marked on them is added as they
 * come.
 */
@Injectable()
export class Demo implements OnModuleDestroy {
  private readonly log = new Logger('demo');
  private devices: ChildProcess | undefined;
  private ending = false;
  private following: Promise<void> = Promise.resolve();

  constructor(
    private readonly people: PeopleService,
    private readonly cases: CasesService,
    private readonly sections: SectionsService,
    private readonly files: FilesService,
    private readonly inbox: InboxService,
    private readonly settings: PracticeSettingsService,
  ) {}

  async onModuleDestroy(): Promise<void> {
    this.ending = true;
    this.devices?.kill();
    await this.following;
  }

  async putIn(extent: 'all' | 'one'): Promise<void> {
    const state = await SettingRow.findByPk(DONE);
    if (state && state.value !== 'done') await this.clearHalf();
    if (state?.value !== 'done') {
      if (!state && !(await this.people.isEmpty())) return;
      await this.begin(extent);
    }
    const left = await SettingRow.findByPk(DEVICES);
    if (left?.value === 'all')
      this.following = this.followAll().catch((error: Error) =>
        this.log.warn(`the simulated devices stopped: ${error.message}`),
      );
  }

  private async followAll(): Promise<void> {
    const [first, ...others] = PREPARATIONS;
    await this.prepare(first ? [first] : []);
    await this.follow(ALL);
    await this.prepare(others);
    if (!this.ending) await SettingRow.upsert({ name: DEVICES, value: 'done' });
  }

  /** Has teeth cut under the contours that stand in their cases, and scanned. */
  private async prepare(which: typeof PREPARATIONS): Promise<void> {
    const person = await Person.findOne({ where: { email: DEMO_PEOPLE[0]?.email ?? '' } });
    const orders: Delivery[] = [];
    for (const { patient, daysAgo, faults, ground } of which) {
      const row = await CaseRow.findOne({ where: { practiceId: person?.practiceId ?? '', name: patient } });
      const [shape, reduce] = await Promise.all(
        (['shape', 'reduce'] as const).map((name) => SectionRow.findOne({ where: { caseId: row?.id ?? '', name } })),
      );
      const { teeth } = completed('shape', shape?.data ?? {}) as ShapeSection;
      if (teeth.length === 0) continue;
      const asked = {
        plan: contourPlan(teeth),
        choice: completed('reduce', reduce?.data ?? {}) as ReduceSection,
      };
      orders.push({ patient, what: 'scan-stl', state: 'prepared', daysAgo, order: { ...asked, ...faults } });
      if (ground) orders.push({ patient, what: 'scan-stl', state: 'provisional', daysAgo, worn: { ...asked, ground } });
    }
    await this.follow(orders);
  }

  private async begin(extent: 'all' | 'one'): Promise<void> {
    this.log.warn('making the sample practice; its first photograph and scan take about 20 s');
    const [dentist, ...others] = DEMO_PEOPLE;
    if (!dentist) return;
    await SettingRow.upsert({ name: DONE, value: 'begun' });
    const me = await this.people.first({
      practice: 'Estuary Dental Studio (sample)',
      name: dentist.name,
      email: dentist.email,
      password: DEMO_PASSWORD,
    });
    for (const p of others) await this.people.add({ ...p, password: DEMO_PASSWORD }, me.practiceId);
    const names: readonly RecipeName[] =
      extent === 'all' ? ['Redshank', 'Dunlin', 'Turnstone', 'Sandpiper', 'Plover', 'Curlew', 'Avocet'] : ['Avocet'];
    const today = dayOf(new Date().toISOString().slice(0, 10));
    for (const name of names) {
      await this.cases.create({ name, meet: DEMO_RECORDS[name] }, me);
      const [colours, row] = [
        DEMO_COLOURS[name],
        await CaseRow.findOne({ where: { practiceId: me.practiceId, name } }),
      ];
      if (colours && row) await this.change(row, 'match', () => colours, me);
      const visits = demoVisits(name, today);
      if (visits.length > 0 && row) await this.change(row, 'book', () => demoBook(name, visits), me);
      const treat = demoTreat(name, visits, today, dentist.name);
      if (treat.runs.length > 0 && row) await this.change(row, 'treat', () => treat, me);
      const choices = DEMO_CHOICES[name];
      if (choices && row) await this.change(row, 'decide', () => choices, me);
    }
    if (extent === 'all')
      await this.settings.set({ version: 0, data: { ...FIRST_SETTINGS, stock: demoStock(today) } }, me);
    await this.follow(FIRST);
    const avocet = await CaseRow.findOne({ where: { practiceId: me.practiceId, name: 'Avocet' } });
    if (avocet) {
      await this.change(avocet, 'reduce', () => ({ design: 'graduated', from: 'mock-up' }), me);
      await this.cases.comment(
        avocet,
        { stage: 'shape', body: 'The left lateral stands turned; please keep its mesial line angle a little soft.' },
        { ...me, id: randomUUID(), name: 'Technician Sample Ruff', role: 'technician' },
      );
    }
    await SettingRow.upsert({ name: DEVICES, value: extent === 'all' ? 'all' : 'none' });
    await SettingRow.upsert({ name: DONE, value: 'done' });
  }

  /** Takes away what an earlier start left half made when it was ended. */
  private async clearHalf(): Promise<void> {
    const person = await Person.findOne({ where: { email: DEMO_PEOPLE[0]?.email ?? '' } });
    if (person) await Practice.destroy({ where: { id: person.practiceId } });
  }

  /**
   * Starts the devices for what has not come yet and adds to the cases what belongs to each file, until all is there.
   */
  private async follow(wanted: readonly Delivery[]): Promise<void> {
    const person = await Person.findOne({ where: { email: DEMO_PEOPLE[0]?.email ?? '' } });
    const me = person && (await this.people.byId(person.id));
    if (!me) return;
    const open = new Set(wanted.map(fileOf));
    const todo: Delivery[] = [];
    for (const d of wanted) {
      if (await this.arrived(d, me)) open.delete(fileOf(d));
      else todo.push(d);
    }
    if (todo.length === 0) return;
    const script = fileURLToPath(new URL('./simulated-devices.js', import.meta.url));
    this.devices = fork(script, [this.inbox.dir, JSON.stringify(todo)], {
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    });
    let left = false;
    this.devices.on('exit', () => {
      left = true;
    });
    // From the last one that came, since the devices or since they left: the inbox lets a file rest before it takes it.
    let last = Date.now();
    while (open.size > 0 && !this.ending) {
      await new Promise((r) => setTimeout(r, LOOK_MS));
      let came = false;
      for (const d of todo) {
        if (this.ending || !open.has(fileOf(d)) || !(await this.arrived(d, me))) continue;
        open.delete(fileOf(d));
        came = true;
      }
      if (came || !left) last = Date.now();
      if (!this.ending && open.size > 0 && Date.now() - last > QUIET_MS)
        throw new Error(`${open.size} files never arrived`);
    }
  }

  /**
   * Whether a delivery lies in its case; then what is marked on it is added. A file that somebody put away counts as
   * there.
   */
  private async arrived(d: Delivery, me: SignedIn): Promise<boolean> {
    const row = await CaseRow.findOne({ where: { practiceId: me.practiceId, name: d.patient } });
    // A case that somebody has renamed needs nothing more.
    if (!row) return true;
    const file = await FileRow.findOne({ where: { caseId: row.id, name: fileOf(d) } });
    if (!file) return false;
    if (d.state !== 'before' || file.removedAt) return true;
    // A first contour needs the measures of the front view, and the portrait that says what is level: a scan that is
    // noticed before them waits for the next look.
    if (d.what.startsWith('scan-')) for (const view of NEEDED) if (!(await this.isRead(row, view))) return false;
    // Lower edges are planned onto what is planned above.
    if (d.what === 'scan-lower' && DEMO_PLANS[d.patient].lower && !(await this.isShaped(row))) return false;
    await this.mark(d, row, file, me);
    return true;
  }

  private async mark(d: Delivery, row: CaseRow, file: FileRow, me: SignedIn): Promise<void> {
    const view = viewOf(d);
    if (d.what === 'scan-stl' || d.what === 'scan-ply') return this.contour(row, file, me);
    if (d.what === 'scan-lower') return this.lowerEdges(row, file, me);
    if (!view || (await this.isRead(row, view))) return;
    const patient = makePatient(inState(RECIPES[d.patient], d.state));
    const reading = viewReading(patient, view, file.id);
    await this.change(
      row,
      'read',
      (before) => {
        const read = completed('read', before ?? {}) as ReadSection;
        return reading && !read.views.some((v) => v.view === view)
          ? { ...read, views: [...read.views, reading] }
          : undefined;
      },
      me,
    );
  }

  /** Whether a view was marked in an earlier start: a patient is not made again for nothing. */
  private async isRead(row: CaseRow, view: PhotoView): Promise<boolean> {
    const read = await this.read(row);
    return !!read?.views.some((v) => v.view === view);
  }

  private async read(row: CaseRow): Promise<ReadSection | undefined> {
    const section = await SectionRow.findOne({ where: { caseId: row.id, name: 'read' } });
    return section ? completed('read', section.data) : undefined;
  }

  private async isShaped(row: CaseRow): Promise<boolean> {
    return !!(await SectionRow.findOne({ where: { caseId: row.id, name: 'shape' }, attributes: ['version'] }));
  }

  /** Lower teeth as they stand, with the edge that they have lost. */
  private async lowerEdges(row: CaseRow, file: FileRow, me: SignedIn): Promise<void> {
    const wish = DEMO_PLANS[row.name as RecipeName].lower;
    if (!wish) return;
    const engine = new CaseEngine();
    engine.take(readScan(await this.files.original(file), []));
    const plan = Object.fromEntries(
      wish.teeth.map((t) => {
        const own = ask(engine, 'asItStands', t);
        return [t, { ...own, lengthMm: own.lengthMm + wish.addMm }];
      }),
    );
    const lower = planInputs(plan);
    await this.change(
      row,
      'shape',
      (before) => {
        const shape = completed('shape', before ?? {}) as ShapeSection;
        return shape.teeth.some((t) => t.tooth > 30) ? undefined : { ...shape, teeth: [...shape.teeth, ...lower] };
      },
      me,
    );
  }

  /** First targets and contour of the teeth that the case is about. */
  private async contour(row: CaseRow, file: FileRow, me: SignedIn): Promise<void> {
    if (await this.isShaped(row)) return;
    const read = await this.read(row);
    const meet = await SectionRow.findOne({ where: { caseId: row.id, name: 'meet' } });
    const engine = new CaseEngine();
    engine.take(readScan(await this.files.original(file), []));
    const front = read && frontOf(read, completed('meet', meet?.data ?? {}), ask(engine, 'existing', 'upper'));
    const plan = DEMO_PLANS[row.name as RecipeName];
    const choice: ProposeSection = { ...EMPTY_SECTIONS.propose, ...plan.propose };
    const proposal = front && propose(front.measures, proposalChoice(choice), front.gaps, front.roles);
    if (!proposal)
      return this.change(row, 'shape', (before) => (before ? undefined : { scanId: file.id, teeth: [] }), me);
    const targets = crownTargets(proposal, choice.gumMm);
    const teeth = planInputs(ask(engine, 'proposedCrowns', targets).plan);
    await this.change(row, 'propose', (before) => (before ? undefined : choice), me);
    await this.change(
      row,
      'shape',
      (before) =>
        before ? undefined : { scanId: file.id, proposalVersion: 1, setTo: setTargets(proposal, choice.gumMm), teeth },
      me,
    );
    const { reduce, direct } = plan;
    if (direct)
      await this.change(row, 'direct', (before) => (before ? undefined : { ...EMPTY_SECTIONS.direct, ...direct }), me);
    if (reduce)
      await this.change(row, 'reduce', (before) => (before ? undefined : { ...EMPTY_SECTIONS.reduce, ...reduce }), me);
  }

  /**
   * Changes a section on its newest version; when somebody else was first, on theirs. Nothing where `next` gives
   * nothing.
   */
  private async change(
    row: CaseRow,
    name: SectionName,
    next: (before: object | undefined) => object | undefined,
    me: SignedIn,
  ): Promise<void> {
    for (let tries = 0; tries < 4; tries++) {
      const before = await SectionRow.findOne({ where: { caseId: row.id, name } });
      const data = next(before?.data);
      if (!data) return;
      try {
        await this.sections.change(row, name, { version: before?.version ?? 0, data } as SectionChange, me);
        return;
      } catch (error) {
        if (!(error instanceof ProblemException) || error.getStatus() !== 409) throw error;
      }
    }
  }
}
