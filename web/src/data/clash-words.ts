import { PHOTO_VIEWS, type PhotoView, SECTION_NAMES, SECTIONS } from '@radiant/contract';
import type { Clash, Path } from './merge.js';

const LABELS: Readonly<Record<string, string>> = Object.assign({}, ...SECTION_NAMES.map((n) => SECTIONS[n].labels));

/** A list entry's name as words: `["11","edge"]` is a landmark, a view's name is written out, an id says nothing. */
function entry(name: string): string {
  const parts = JSON.parse(name) as unknown[];
  return parts
    .map((p) =>
      typeof p === 'string' && p in PHOTO_VIEWS
        ? PHOTO_VIEWS[p as PhotoView]
        : typeof p === 'string' && /^[0-9a-f-]{36}$/.test(p)
          ? ''
          : String(p),
    )
    .filter(Boolean)
    .join(' ');
}

/** Where a clash is, in words. */
export function placeOf(path: Path, value: unknown): string {
  const named = (value as { name?: unknown } | null | undefined)?.name;
  const words = path.map((p, i) => {
    if (p.startsWith('[')) return entry(p);
    if (p.includes('+'))
      return p.startsWith('scanId') ? 'scan, with the contour on it' : 'photograph, with what is set on it';
    return LABELS[p] ?? (i < path.length - 1 ? '' : p);
  });
  const lists = path.some((p) => p.startsWith('['))
    ? words.filter((_, i) => path[i]?.startsWith('[') || i === path.length - 1)
    : words;
  return [...new Set([...lists, typeof named === 'string' ? `“${named}”` : ''])].filter(Boolean).join(', ');
}

export function labelOf(c: Clash): string {
  return placeOf(c.path, c.mine ?? c.theirs ?? c.base);
}

/** A value in a few words. */
export function valueWords(v: unknown): string {
  if (v === undefined || v === null) return 'taken out';
  if (Array.isArray(v)) return `${v.length} in all`;
  if (typeof v === 'boolean') return v ? 'yes' : 'no';
  if (typeof v === 'object') {
    const { x, y, mm, verdict, word, points, teeth, landmarks, widthMm, lengthMm } = v as Readonly<
      Record<string, never>
    >;
    if (teeth !== undefined) return `with ${(teeth as unknown[]).length} planned teeth`;
    if (landmarks !== undefined) return `with ${(landmarks as unknown[]).length} landmarks`;
    if (Array.isArray(points))
      return (points as { x: number; y: number }[])
        .slice(0, 3)
        .map((p) => `${p.x.toFixed(0)}, ${p.y.toFixed(0)}`)
        .join(' – ');
    if (verdict) return word ? `${verdict}: ${word}` : String(verdict);
    if (x !== undefined && y !== undefined) return `${Number(x).toFixed(1)}, ${Number(y).toFixed(1)} px`;
    if (mm !== undefined) return `${mm} mm between two points`;
    if (lengthMm !== undefined) return `${lengthMm} × ${widthMm} mm`;
    if (widthMm !== undefined) return `${widthMm} mm`;
    return 'changed';
  }
  if (typeof v === 'number') return String(Math.round(100 * v) / 100).replace('-', '−');
  if (v === '') return 'empty';
  return typeof v === 'string' && /^[0-9a-f-]{36}$/.test(v) ? 'another file' : String(v);
}
