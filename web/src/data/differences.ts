import { PLAN_FIELDS } from '@radiant/contract';

/** One place in which two contents of a section differ, in words. */
export interface Difference {
  readonly key: string;
  readonly label: string;
  readonly mine: string;
  readonly theirs: string;
}

type Plain = Record<string, unknown>;

/** Where lists hold things with a name of their own, that name: a tooth of the plan, a landmark of a tooth. */
function identity(v: unknown): string | undefined {
  if (typeof v !== 'object' || v === null) return undefined;
  const { tooth, kind, id, name } = v as Plain;
  if (typeof id === 'string') return typeof name === 'string' ? `measure ${name} ${id}` : `finding ${id}`;
  return tooth === undefined ? undefined : kind === undefined ? String(tooth) : `${tooth} ${kind}`;
}

const LABELS: Record<string, string> = {
  photoId: 'photograph',
  gumMm: 'gum moved up, mm',
  ratio: 'recurring ratio',
  gaps: 'gaps',
  alike: 'left and right alike',
  premolars: 'premolars in the space',
  liked: 'smile that is liked',
  calibration: 'scale',
  edgeMm: 'edge level, mm',
  referenceTooth: 'reference tooth',
  school: 'school',
  design: 'design',
  from: 'grooves cut from',
  scanId: 'scan',
  proposalVersion: 'set to proposal',
  contactsMm: 'contacts kept, mm',
  character: 'character',
  strokes: 'strokes of the brush',
  ...Object.fromEntries(PLAN_FIELDS.map((f) => [f.key, `${f.label.toLowerCase()}, ${f.unit}`])),
};

/** Takes a content apart into leaves: plain fields, list items by their name, and the fields of planned teeth singly. */
function leaves(data: object): Map<string, { label: string; value: unknown }> {
  const out = new Map<string, { label: string; value: unknown }>();
  for (const [field, value] of Object.entries(data)) {
    if (value === null || value === undefined) continue;
    if (!Array.isArray(value)) {
      out.set(field, { label: LABELS[field] ?? field, value });
      continue;
    }
    for (const item of value) {
      const id = identity(item) ?? JSON.stringify(item);
      if (field === 'teeth') {
        for (const [k, v] of Object.entries(item as Plain)) if (k !== 'tooth') out.set(`${field}/${id}/${k}`, { label: `${id}, ${LABELS[k] ?? k}`, value: v });
      } else out.set(`${field}/${id}`, { label: id, value: item });
    }
  }
  return out;
}

function words(v: unknown): string {
  if (v === undefined || v === null) return 'none';
  if (Array.isArray(v)) return `${v.length} in all`;
  if (typeof v === 'object') {
    const { x, y, mm, verdict, word } = v as { x?: number; y?: number; mm?: number; verdict?: string; word?: string };
    const { points } = v as { points?: readonly { x: number; y: number }[] };
    if (points) return points.map((p) => `${p.x.toFixed(0)}, ${p.y.toFixed(0)}`).join(' – ');
    if (verdict) return word ? `${verdict}: ${word}` : verdict;
    if (x !== undefined && y !== undefined) return `${x.toFixed(1)}, ${y.toFixed(1)} px`;
    if (mm !== undefined) return `${mm} mm between two points`;
    return JSON.stringify(v);
  }
  return typeof v === 'string' && /^[0-9a-f-]{36}$/.test(v) ? 'a file' : String(v);
}

/** All places in which two contents differ. */
export function differences(mine: object, theirs: object): Difference[] {
  const a = leaves(mine);
  const b = leaves(theirs);
  const out: Difference[] = [];
  for (const key of new Set([...a.keys(), ...b.keys()])) {
    const p = a.get(key);
    const q = b.get(key);
    if (JSON.stringify(sorted(p?.value)) === JSON.stringify(sorted(q?.value))) continue;
    out.push({ key, label: (p ?? q)?.label ?? key, mine: words(p?.value), theirs: words(q?.value) });
  }
  return out;
}

function sorted(v: unknown): unknown {
  return v && typeof v === 'object' && !Array.isArray(v) ? Object.fromEntries(Object.entries(v).sort(([p], [q]) => (p < q ? -1 : 1))) : v;
}

/** One content put together from two, leaf by leaf, by the choice for each key; leaves that agree are taken as they are. */
export function assemble(mine: object, theirs: object, choose: (key: string) => 'mine' | 'theirs'): object {
  const a = leaves(mine);
  const b = leaves(theirs);
  const open = new Set(differences(mine, theirs).map((d) => d.key));
  const out: Plain = {};
  for (const field of new Set([...Object.keys(mine), ...Object.keys(theirs)]))
    if (Array.isArray((mine as Plain)[field]) || Array.isArray((theirs as Plain)[field])) out[field] = [];
  const teeth = new Map<string, Plain>();
  for (const key of new Set([...a.keys(), ...b.keys()])) {
    const from = open.has(key) && choose(key) === 'theirs' ? b : a;
    const leaf = from.get(key);
    if (!leaf) continue;
    const [field, id, part] = key.split('/') as [string, string | undefined, string | undefined];
    if (id === undefined) out[field] = leaf.value;
    else if (part === undefined) (out[field] as unknown[]).push(leaf.value);
    else {
      const own = teeth.get(id) ?? { tooth: Number(id) };
      own[part] = leaf.value;
      teeth.set(id, own);
    }
  }
  if (teeth.size > 0) out.teeth = [...teeth.values()];
  return out;
}
