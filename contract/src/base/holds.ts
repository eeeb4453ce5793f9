import 'reflect-metadata';
import { Type } from 'class-transformer';
import { getMetadataStorage, ValidateBy, type ValidationOptions } from 'class-validator';

type Class = new () => object;

const held = new WeakMap<object, Map<string, () => Class>>();

/** Says which class the objects of a field, or of a field's list, are checked against. */
export function Holds(type: () => Class): PropertyDecorator {
  return (target, key) => {
    const own = held.get(target) ?? new Map<string, () => Class>();
    own.set(String(key), type);
    held.set(target, own);
    // The API's description reads it from here.
    Type(type)(target, key);
  };
}

/** What is known of a class's fields before anything is made of it. */
export interface Field {
  /** The class of its objects, where it holds any. */
  readonly type?: Class;
  /** Most entries of a list, and the sentence for more. */
  readonly most?: { readonly count: number; readonly sentence: string };
}

const known = new WeakMap<Class, ReadonlyMap<string, Field>>();

/** Every field that a contract class knows. */
export function fieldsOf(type: Class): ReadonlyMap<string, Field> {
  const before = known.get(type);
  if (before) return before;
  const fields = new Map<string, Field>();
  for (const m of getMetadataStorage().getTargetValidationMetadatas(type, '', false, false)) {
    const field = fields.get(m.propertyName) ?? {};
    const most = m.name === 'arrayMaxSize' && { count: Number(m.constraints[0]), sentence: String(m.message) };
    fields.set(m.propertyName, { ...field, ...(most && { most }) });
  }
  for (let proto = type.prototype as object; proto; proto = Object.getPrototypeOf(proto)) {
    for (const [name, inner] of held.get(proto) ?? []) {
      const field = fields.get(name);
      if (field && !field.type) fields.set(name, { ...field, type: inner() });
    }
  }
  known.set(type, fields);
  return fields;
}

const DAY = /^(\d{4})-(\d\d)-(\d\d)$/;
const MOMENT = /^(\d{4}-\d\d-\d\d)T\d\d:\d\d(:\d\d(\.\d{1,9})?)?(Z|[+-]\d\d:\d\d)$/;
/** Years that a case may speak of. */
const YEARS = { first: 1900, last: 2200 };

/** Whether a text is a day of the calendar, `2026-12-18`; there is no 30 February. */
export function isDay(v: unknown): v is string {
  const parts = typeof v === 'string' ? DAY.exec(v) : null;
  if (!parts) return false;
  const [year, month, day] = parts.slice(1).map(Number) as [number, number, number];
  if (year < YEARS.first || year > YEARS.last) return false;
  const date = new Date(Date.UTC(year, month - 1, day));
  return date.getUTCMonth() === month - 1 && date.getUTCDate() === day;
}

/** Whether a text is a moment with its zone, `2026-12-18T09:30:00.000Z`. */
export function isMoment(v: unknown): v is string {
  const parts = typeof v === 'string' ? MOMENT.exec(v) : null;
  return !!parts && isDay(parts[1]) && Number.isFinite(Date.parse(v as string));
}

/** A day of the calendar. */
export const IsDay = (options?: ValidationOptions): PropertyDecorator =>
  ValidateBy(
    { name: 'isDay', validator: { validate: isDay, defaultMessage: () => 'This is no day of the calendar.' } },
    options,
  );

/** A moment with its zone. */
export const IsMoment = (options?: ValidationOptions): PropertyDecorator =>
  ValidateBy(
    { name: 'isMoment', validator: { validate: isMoment, defaultMessage: () => 'This is no moment with its zone.' } },
    options,
  );

/** A list of whole numbers within limits, checked in one go: a stroke has hundreds of them. */
export const AreWhole = (min: number, max: number, options?: ValidationOptions): PropertyDecorator =>
  ValidateBy(
    {
      name: 'areWhole',
      constraints: [min, max],
      validator: {
        validate: (v: unknown) => Array.isArray(v) && v.every((n) => Number.isInteger(n) && n >= min && n <= max),
      },
    },
    options,
  );
