import { plainToInstance } from 'class-transformer';
import { type ValidationError, validateSync } from 'class-validator';

export interface FieldError {
  readonly field: string;
  readonly message: string;
}

/** The checks that server and forms share: unknown fields are refused, nested classes checked. */
export const VALIDATION_OPTIONS = { whitelist: true, forbidNonWhitelisted: true, forbidUnknownValues: true } as const;

/** Checks plain data against a contract class. Nothing is converted or left out. */
export function check<T extends object>(type: new () => T, data: unknown): { value: T; errors: FieldError[] } {
  const value = plainToInstance(type, data ?? {}) as T;
  return { value, errors: fieldErrors(validateSync(value, VALIDATION_OPTIONS)) };
}

/**
 * class-validator's tree of errors as a list of field paths and sentences, one a field: of several checks that fail, the
 * one that is written first in the class, which says what kind of thing is wanted.
 */
export function fieldErrors(errors: readonly ValidationError[], path = ''): FieldError[] {
  return errors.flatMap((e) => {
    const field = path ? `${path}.${e.property}` : e.property;
    // Decorators run from the last to the first.
    const own = Object.entries(e.constraints ?? {})
      .slice(-1)
      .map(([rule, message]) => ({ field, message: rule === 'whitelistValidation' ? `The field “${field}” does not belong here.` : message }));
    return [...own, ...fieldErrors(e.children ?? [], field)];
  });
}
