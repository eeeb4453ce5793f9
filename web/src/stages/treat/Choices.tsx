import {
  type AtVisit,
  CORDS,
  type Cord,
  inRow,
  OLD_WORKS,
  type OldWork,
  PROVISIONALS,
  type Provisional,
  type VisitKind,
} from '@radiant/core';
import { useId } from 'react';
import { useSection, useToothLabel } from '../../data/case-context.js';

/** What else the steps of a visit follow from: old work, posts, cords, the provisional. */
export function Choices({ visit, at, mayWrite }: { visit: VisitKind; at: AtVisit; mayWrite: boolean }) {
  const name = useToothLabel();
  const id = useId();
  const { data, set } = useSection('treat');
  const { data: meet } = useSection('meet');
  const cuts = visit === 'preparation';
  const taken = visit === 'impression' || (cuts && at.impression === 'same');
  if (!cuts && !taken) return null;
  const crowned = meet.teeth.filter((t) => t.past.includes('crown')).map((t) => t.tooth);
  const unsaid = crowned.filter((t) => at.teeth.includes(t) && !data.oldWorks.some((o) => o.tooth === t));
  return (
    <div className="mb-4 grid grid-cols-2 gap-x-6 gap-y-3 text-note">
      {taken && (
        <label className="text-ink-2" htmlFor={`${id}c`}>
          Gum is kept away with
          <select
            id={`${id}c`}
            className="field mt-0.5 min-h-12 w-full px-2 text-ink"
            disabled={!mayWrite}
            value={at.cord}
            onChange={(e) => set({ ...data, cord: e.target.value as Cord }, 'cord')}
          >
            {(Object.keys(CORDS) as Cord[]).map((c) => (
              <option key={c} value={c}>
                {CORDS[c]}
              </option>
            ))}
          </select>
        </label>
      )}
      {cuts && at.cuts.length > 0 && (
        <label className="text-ink-2" htmlFor={`${id}p`}>
          Provisionals are
          <select
            id={`${id}p`}
            className="field mt-0.5 min-h-12 w-full px-2 text-ink"
            disabled={!mayWrite}
            value={at.provisional}
            onChange={(e) => set({ ...data, provisional: e.target.value as Provisional }, 'provisional')}
          >
            {(Object.keys(PROVISIONALS) as Provisional[]).map((c) => (
              <option key={c} value={c}>
                {PROVISIONALS[c]}
              </option>
            ))}
          </select>
        </label>
      )}
      {cuts && (
        <fieldset className="col-span-2">
          <legend className="mb-1 text-ink-2">Old work that comes off, and teeth that get a post</legend>
          {unsaid.length > 0 && (
            <p className="mb-1 text-removed-ink">
              {unsaid.map(name).join(', ')} {unsaid.length > 1 ? 'have old crowns' : 'has an old crown'}: say of what,
              it comes off by its material.
            </p>
          )}
          <div className="grid grid-cols-2 gap-x-6 gap-y-1">
            {inRow(at.teeth).map((t) => (
              <div key={t} className="flex items-center gap-2">
                <b className="w-7 tabular-nums">{name(t)}</b>
                <select
                  className="field min-h-12 min-w-0 flex-1 px-2"
                  aria-label={`Old work on ${name(t)}`}
                  disabled={!mayWrite}
                  value={data.oldWorks.find((o) => o.tooth === t)?.work ?? ''}
                  onChange={(e) => {
                    const others = data.oldWorks.filter((o) => o.tooth !== t);
                    const work = e.target.value as OldWork | '';
                    set({ ...data, oldWorks: work ? [...others, { tooth: t, work }] : others }, `old ${t}`);
                  }}
                >
                  <option value="">none</option>
                  {(Object.keys(OLD_WORKS) as OldWork[]).map((w) => (
                    <option key={w} value={w}>
                      {OLD_WORKS[w]}
                    </option>
                  ))}
                </select>
                <label className="flex min-h-12 items-center gap-1.5">
                  <input
                    type="checkbox"
                    className="size-6 accent-plum"
                    disabled={!mayWrite}
                    checked={at.posts.includes(t)}
                    onChange={(e) => {
                      const others = at.posts.filter((p) => p !== t);
                      set({ ...data, posts: e.target.checked ? [...others, t] : others }, `post ${t}`);
                    }}
                  />
                  post
                </label>
              </div>
            ))}
          </div>
        </fieldset>
      )}
    </div>
  );
}
