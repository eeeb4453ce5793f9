import { Injectable, type PipeTransform } from '@nestjs/common';
import { check } from '@radiant/contract';
import { invalid } from './problem.filter.js';

/** Checks a request body against a contract class; unknown fields are refused. */
@Injectable()
export class Checked<T extends object> implements PipeTransform<unknown, T> {
  constructor(private readonly type: new () => T) {}

  transform(body: unknown): T {
    const { value, errors } = check(this.type, body);
    if (errors.length > 0) throw invalid(errors);
    return value;
  }
}
