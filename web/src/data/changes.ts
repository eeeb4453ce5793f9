import { type Parts, same, VALUE } from '@radiant/contract';
import type { Path } from './merge.js';

/** A place that differs between two states of a content. */
export interface Change {
  readonly path: Path;
  readonly before: unknown;
  readonly after: unknown;
}

type Plain = Readonly<Record<string, unknown>>;
const isPlain = (v: unknown): v is Plain => typeof v === 'object' && v !== null && !Array.isArray(v);

/**
 * Where two states of a content differ, as finely as its parts tell: a list entry that came or went is one place.
 * @param parts how the content is taken, as its section declares it
 */
export function changes(parts: Parts, before: unknown, after: unknown, path: Path = []): Change[] {
  if (same(before, after)) return [];
  if (parts.as === 'list' && Array.isArray(before) && Array.isArray(after)) {
    const named = (entries: unknown[]) => new Map(entries.map((e) => [parts.name(e as Plain), e]));
    const [b, a] = [named(before), named(after)];
    return [...new Set([...b.keys(), ...a.keys()])].flatMap((n) =>
      changes(parts.entry, b.get(n), a.get(n), [...path, n]),
    );
  }
  if (parts.as === 'fields' && isPlain(before) && isPlain(after))
    return [...new Set([...Object.keys(before), ...Object.keys(after)])].flatMap((k) =>
      changes(parts.forms[k] ?? VALUE, before[k], after[k], [...path, k]),
    );
  return [{ path, before, after }];
}
