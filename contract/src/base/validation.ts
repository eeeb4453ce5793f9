import { type ValidationError, validateSync } from 'class-validator';
import { fieldsOf } from './holds.js';

export interface FieldError {
  readonly field: string;
  readonly message: string;
}

/** The checks that server and forms share: unknown fields are refused, nested classes checked. */
export const VALIDATION_OPTIONS = { whitelist: true, forbidNonWhitelisted: true, forbidUnknownValues: true } as const;

/** Refusals told at once; nobody reads more, and a thousand of them are an attack on whoever writes them. */
export const MOST_ERRORS = 20;
/** Of a name that somebody else chose, so much is said again. */
const NAME_TOLD = 60;

/**
 * Checks plain data against a contract class. Nothing is converted or left out. What costs with the size of the data is
 * looked at first: fields that do not belong and lists that are too long end it before their entries are touched.
 * @param path where in something larger the data stands, for the sentences
 */
export function check<T extends object>(
  type: new () => T,
  data: unknown,
  path = '',
): { value: T; errors: FieldError[] } {
  const errors: FieldError[] = [];
  const value = made(type, data ?? {}, path, errors);
  if (errors.length > 0) return { value, errors };
  return { value, errors: capped(fieldErrors(validateSync(value, VALIDATION_OPTIONS), path)) };
}

function capped(errors: FieldError[]): FieldError[] {
  return errors.length <= MOST_ERRORS
    ? errors
    : [
        ...errors.slice(0, MOST_ERRORS - 1),
        { field: '', message: `And ${errors.length - MOST_ERRORS + 1} more fields are not accepted.` },
      ];
}

const WANTED = 'Fields and their values are wanted here.';
const isPlain = (v: unknown): v is Record<string, unknown> => typeof v === 'object' && v !== null && !Array.isArray(v);

/**
 * An object of the class with the data's fields, its own objects likewise; what is wrong with its size goes to
 * `errors`.
 */
function made<T extends object>(type: new () => T, data: unknown, path: string, errors: FieldError[]): T {
  const out = new type();
  if (!isPlain(data)) {
    errors.push({ field: path, message: WANTED });
    return out;
  }
  const fields = fieldsOf(type);
  const target = out as Record<string, unknown>;
  for (const [name, value] of Object.entries(data)) {
    if (errors.length >= MOST_ERRORS) return out;
    const told = name.length > NAME_TOLD ? `${name.slice(0, NAME_TOLD)}…` : name;
    const where = path ? `${path}.${told}` : told;
    const field = fields.get(name);
    if (!field) errors.push({ field: where, message: `The field “${where}” does not belong here.` });
    else if (typeof value === 'string' && BROKEN.test(value))
      errors.push({ field: where, message: `The text of “${where}” holds half a character.` });
    else if (Array.isArray(value) && field.most && value.length > field.most.count)
      errors.push({ field: where, message: field.most.sentence });
    else if (Array.isArray(value) && field.type && !field.most) errors.push({ field: where, message: WANTED });
    else target[name] = field.type ? within(field.type, value, where, errors) : value;
  }
  return out;
}

/**
 * Objects of a field's class. What is no object in a list of them ends here; a single value is left for the field's own
 * check.
 */
function within(type: new () => object, value: unknown, path: string, errors: FieldError[]): unknown {
  if (!Array.isArray(value)) return isPlain(value) ? made(type, value, path, errors) : value;
  const out: object[] = [];
  for (const [i, v] of value.entries()) {
    if (errors.length >= MOST_ERRORS) break;
    out.push(made(type, v, `${path}.${i}`, errors));
  }
  return out;
}

/** Half of a surrogate pair: no text that a database or another program could keep. */
const BROKEN = /\p{Surrogate}/u;

/** How large data may be, counted before anything is made of it. */
export interface Extent {
  /** Values in all: fields, entries, and the objects and lists that hold them. */
  readonly values: number;
  /** Objects and lists within each other. */
  readonly depth: number;
}

/**
 * Whether data stays within an extent. Takes no more steps than the extent allows, and none of them deeper than
 * another.
 */
export function isWithin(data: unknown, { values, depth }: Extent): boolean {
  let level: unknown[] = [data];
  let seen = 0;
  for (let d = 0; level.length > 0; d++) {
    if (d > depth) return false;
    const next: unknown[] = [];
    for (const v of level) {
      if (++seen > values) return false;
      if (typeof v !== 'object' || v === null) continue;
      for (const inner of Array.isArray(v) ? v : Object.values(v)) {
        if (typeof inner === 'object' && inner !== null) next.push(inner);
        else if (++seen > values) return false;
      }
    }
    level = next;
  }
  return true;
}

/**
 * class-validator's tree of errors as a list of field paths and sentences, one a field: of several checks that fail,
 * the one that is written first in the class, which says what kind of thing is wanted.
 */
export function fieldErrors(errors: readonly ValidationError[], path = ''): FieldError[] {
  return errors.flatMap((e) => {
    const field = path ? `${path}.${e.property}` : e.property;
    // Decorators run from the last to the first.
    const own = Object.entries(e.constraints ?? {})
      .slice(-1)
      .map(([, message]) => ({ field, message }));
    return [...own, ...fieldErrors(e.children ?? [], field)];
  });
}
