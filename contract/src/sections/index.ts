import 'reflect-metadata';
import { IsDefined, IsOptional, ValidateNested } from 'class-validator';
import { Holds } from '../base/holds.js';
import type { Role } from '../base/role.js';
import { same } from '../base/same.js';
import { check, type FieldError } from '../base/validation.js';
import { type BookSection, book } from './book.js';
import { type DecideSection, decide } from './decide.js';
import type { SectionDefinition } from './define.js';
import { type DirectSection, direct } from './direct.js';
import { type MatchSection, match } from './match.js';
import { type MeetSection, meet } from './meet.js';
import { type ProposeSection, propose } from './propose.js';
import { type ReadSection, read } from './read.js';
import { type ReduceSection, reduce } from './reduce.js';
import { type ShapeSection, shape } from './shape.js';
import { type TreatSection, treat } from './treat.js';
import { type VerifySection, verify } from './verify.js';

export * from './book.js';
export * from './decide.js';
export type { FileUse, KnownFile, SectionDefinition } from './define.js';
export * from './direct.js';
export * from './match.js';
export * from './meet.js';
export { fields, type Parts, VALUE } from './parts.js';
export * from './places.js';
export * from './propose.js';
export * from './read.js';
export * from './reduce.js';
export * from './shape.js';
export { BurInput, TrayInput, trayInput } from './tray.js';
export * from './treat.js';
export * from './verify.js';

/** The content of each section. */
export interface SectionData {
  meet: MeetSection;
  read: ReadSection;
  propose: ProposeSection;
  shape: ShapeSection;
  decide: DecideSection;
  match: MatchSection;
  direct: DirectSection;
  reduce: ReduceSection;
  book: BookSection;
  treat: TreatSection;
  verify: VerifySection;
}
export type SectionName = keyof SectionData;

/** The sections of a case, in the order of the journey. A new one is its file, and a line here and in SectionData. */
export const SECTIONS: { readonly [N in SectionName]: SectionDefinition<N, SectionData[N]> } = {
  meet,
  read,
  propose,
  shape,
  decide,
  match,
  direct,
  reduce,
  book,
  treat,
  verify,
};

export const SECTION_NAMES = Object.keys(SECTIONS) as readonly SectionName[];

/** A section for whoever treats all alike. */
export const sectionOf = (name: SectionName): SectionDefinition<SectionName> =>
  SECTIONS[name] as unknown as SectionDefinition<SectionName>;

const each = <V>(of: (s: SectionDefinition<SectionName>) => V) =>
  Object.fromEntries(SECTION_NAMES.map((n) => [n, of(sectionOf(n))]));

/** The class of each section. */
export const SECTION_CLASSES = each((s) => s.type) as { readonly [N in SectionName]: new () => SectionData[N] };

/** What a section holds before anyone has written it. */
export const EMPTY_SECTIONS = each((s) => s.empty) as unknown as { readonly [N in SectionName]: SectionData[N] };

/** Whether a role may change a section. The dentist decides, so the dentist may change all. */
export const mayWrite = (role: Role, section: SectionName): boolean =>
  role === 'dentist' || SECTIONS[section].writers.includes(role);

/** Whether a role may change a field of a section: as who may change all of it, or that field alone. */
export const mayWriteField = (role: Role, section: SectionName, field: string): boolean =>
  mayWrite(role, section) || (sectionOf(section).fieldWriters?.[field]?.includes(role) ?? false);

/** The fields of a section that a role may write though not all of it. */
export const ownFields = (role: Role, section: SectionName): readonly string[] =>
  mayWrite(role, section)
    ? []
    : Object.keys(sectionOf(section).fieldWriters ?? {}).filter((f) => mayWriteField(role, section, f));

/** Whether a role may change anything of a section. */
export const mayWriteSome = (role: Role, section: SectionName): boolean =>
  mayWrite(role, section) || ownFields(role, section).length > 0;

/** The fields in which two contents differ that a role may not change. */
export function fieldsNotOwn(role: Role, section: SectionName, before: object, after: object): readonly string[] {
  const [was, is] = [before, after] as readonly Readonly<Record<string, unknown>>[];
  return [...new Set([...Object.keys(before), ...Object.keys(after)])].filter(
    (f) => !mayWriteField(role, section, f) && !same(was?.[f], is?.[f]),
  );
}

/** The sections on which people comment. */
export const COMMENT_STAGES: readonly SectionName[] = SECTION_NAMES.filter((n) => SECTIONS[n].comments);
export type CommentStage = SectionName;

/** A section as it was written at any time, in the form it has now; what newer versions have added is left empty. */
export function completed<N extends SectionName>(name: N, data: object): SectionData[N] {
  return { ...SECTIONS[name].empty, ...SECTIONS[name].upgraded(data) };
}

/**
 * Checks what is to become a section's content, in any form that the section ever had.
 * @param field what the errors' fields begin with
 */
export const checkSection = (
  name: SectionName,
  data: object,
  field?: string,
): { value: object; errors: FieldError[] } =>
  check<object>(SECTION_CLASSES[name], sectionOf(name).upgraded(data), field);

/** The sections of a case file of any version, each in the form it has now. */
export function upgradedSections(sections: unknown): unknown {
  if (typeof sections !== 'object' || sections === null || Array.isArray(sections)) return sections;
  const form = ([name, data]: [string, unknown]) =>
    [
      name,
      SECTION_NAMES.includes(name as SectionName) && isObject(data)
        ? sectionOf(name as SectionName).upgraded(data)
        : data,
    ] as const;
  return Object.fromEntries(Object.entries(sections).map(form));
}

const isObject = (v: unknown): v is object => typeof v === 'object' && v !== null && !Array.isArray(v);

export type StoredSections = SectionData;
/** All sections as a case file holds them. Its fields come from the list. */
export const StoredSections = class StoredSections {} as new () => SectionData;
for (const name of SECTION_NAMES) {
  const { since } = sectionOf(name);
  (since === undefined ? IsDefined() : IsOptional())(StoredSections.prototype, name);
  ValidateNested()(StoredSections.prototype, name);
  Holds(() => SECTION_CLASSES[name] as new () => object)(StoredSections.prototype, name);
}
