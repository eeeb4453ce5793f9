import { type Parts, same, VALUE } from '@radiant/contract';

/** A place in a section: the fields, and the names of list entries, that lead to it. */
export type Path = readonly string[];

/** A place that both sides have changed, differently. */
export interface Clash {
  readonly path: Path;
  readonly base: unknown;
  readonly mine: unknown;
  readonly theirs: unknown;
}

/** Two changes of one content put together. At clashes it holds mine until somebody has chosen. */
export interface Merged<T> {
  readonly merged: T;
  readonly clashes: readonly Clash[];
}

type Plain = Readonly<Record<string, unknown>>;

/**
 * Puts two changes of one content together, part by part: what only one side has changed is taken from that side, what
 * both have changed alike is taken once, and only what both have changed differently is a clash.
 * @param parts how the content is taken, as its section declares it
 */
export function merge<T extends object>(parts: Parts, base: T, mine: T, theirs: T): Merged<T> {
  const clashes: Clash[] = [];
  const merged = part(parts, base, mine, theirs, [], clashes) as T;
  return { merged, clashes };
}

const nothing = (v: unknown) => v === undefined || v === null;

function part(form: Parts, base: unknown, mine: unknown, theirs: unknown, path: Path, clashes: Clash[]): unknown {
  if (same(mine, theirs) || same(base, theirs)) return mine;
  if (same(base, mine)) return theirs;
  if (form.as === 'set') return ofSet(base, mine, theirs);
  if (form.as === 'list' && Array.isArray(mine) && Array.isArray(theirs))
    return ofList(form, Array.isArray(base) ? base : [], mine, theirs, path, clashes);
  if (form.as === 'fields' && !nothing(mine) && !nothing(theirs))
    return ofFields(form, (base ?? {}) as Plain, mine as Plain, theirs as Plain, path, clashes);
  clashes.push({ path, base, mine, theirs });
  return mine;
}

/** What either side has added and neither has taken out. */
function ofSet(base: unknown, mine: unknown, theirs: unknown): unknown[] {
  const [b, m, t] = [base, mine, theirs].map((v) => new Set(Array.isArray(v) ? v : []));
  return [...new Set([...(m as Set<unknown>), ...(t as Set<unknown>)])].filter(
    (v) => !b?.has(v) || (m?.has(v) && t?.has(v)),
  );
}

function ofList(
  form: Parts & { as: 'list' },
  base: unknown[],
  mine: unknown[],
  theirs: unknown[],
  path: Path,
  clashes: Clash[],
): unknown[] {
  const named = (entries: unknown[]) => new Map(entries.map((e) => [form.name(e as Plain), e]));
  const [b, m, t] = [named(base), named(mine), named(theirs)];
  const out: unknown[] = [];
  // In their order, and what only we have behind it.
  for (const name of new Set([...t.keys(), ...m.keys()])) {
    const entry = part(form.entry, b.get(name), m.get(name), t.get(name), [...path, name], clashes);
    if (!nothing(entry)) out.push(entry);
  }
  return out;
}

function ofFields(
  form: Parts & { as: 'fields' },
  base: Plain,
  mine: Plain,
  theirs: Plain,
  path: Path,
  clashes: Clash[],
): Plain {
  const out: Record<string, unknown> = {};
  const put = (key: string, value: unknown) => {
    if (value !== undefined) out[key] = value;
  };
  // Where one side has changed what the others stand on, the whole group is one value.
  const bound = form.together.filter(
    ([first]) => first !== undefined && !(same(base[first], mine[first]) && same(base[first], theirs[first])),
  );
  const keys = new Set([...Object.keys(theirs), ...Object.keys(mine)]);
  for (const group of bound) {
    const own = group.filter((k) => keys.has(k) || base[k] !== undefined);
    const of = (side: Plain) => Object.fromEntries(own.map((k) => [k, side[k]]));
    const chosen = part(VALUE, of(base), of(mine), of(theirs), [...path, group.join('+')], clashes) as Plain;
    for (const k of own) {
      put(k, chosen[k]);
      keys.delete(k);
    }
  }
  for (const key of keys)
    put(key, part(form.forms[key] ?? VALUE, base[key], mine[key], theirs[key], [...path, key], clashes));
  return out;
}

/** A merged content with the chosen side at each clash; `choose` gets the clash's place among `clashes`. */
export function chosen<T extends object>(
  parts: Parts,
  base: T,
  mine: T,
  theirs: T,
  choose: (clash: number) => 'mine' | 'theirs',
): T {
  const { clashes } = merge(parts, base, mine, theirs);
  // What is given up on one side is made what it was: then only the other side has changed it, and is taken.
  let own = mine;
  clashes.forEach((c, i) => {
    if (choose(i) === 'theirs') own = placed(parts, own, c.path, c.base) as T;
  });
  let other = theirs;
  clashes.forEach((c, i) => {
    if (choose(i) === 'mine') other = placed(parts, other, c.path, c.base) as T;
  });
  return merge(parts, base, own, other).merged;
}

/** A content with another value at a place. */
function placed(form: Parts, content: unknown, path: Path, value: unknown): unknown {
  const [key, ...rest] = path;
  if (key === undefined) return value;
  if (form.as === 'list') {
    const entries = Array.isArray(content) ? content : [];
    const at = entries.findIndex((e) => form.name(e as Plain) === key);
    const next = placed(form.entry, entries[at], rest, value);
    if (at < 0) return nothing(next) ? entries : [...entries, next];
    return nothing(next) ? entries.toSpliced(at, 1) : entries.with(at, next);
  }
  const own = { ...((content ?? {}) as Plain) } as Record<string, unknown>;
  const parts = key.split('+');
  if (parts.length > 1) for (const k of parts) set(own, k, (value as Plain | undefined)?.[k]);
  else set(own, key, placed(form.as === 'fields' ? (form.forms[key] ?? VALUE) : VALUE, own[key], rest, value));
  return own;
}

function set(into: Record<string, unknown>, key: string, value: unknown): void {
  if (value === undefined) delete into[key];
  else into[key] = value;
}
