import { workKept, workOn } from '@radiant/contract';
import { BREAK_LIMITS, DIRECT_KINDS, type DirectKind, type DirectWork } from '@radiant/core';
import { useCase, useSection } from '../../data/case-context.js';
import { NumberField } from '../../ui/NumberField.js';

const KINDS = Object.keys(DIRECT_KINDS) as readonly DirectKind[];
/** What is drawn first where somebody draws a break, mm. */
const FIRST_BREAK = { corner: 'mesial', heightMm: 3, widthMm: 4 } as const;

/** What composite is to do on the tooth, the break that is drawn on it, and the dentin that is marked. */
export function WorkField({ mayWrite, markIsland }: { mayWrite: boolean; markIsland: () => void }) {
  const { tooth } = useCase();
  const { data, set, store } = useSection('direct');
  const work = workOn(data, tooth);
  const put = (next: DirectWork, group?: string) =>
    set({ ...data, works: [...data.works.filter((w) => w.tooth !== tooth), workKept(tooth, next)] }, group);
  const broken = work.kind === 'corner' ? work.broken : undefined;
  return (
    <section aria-label="What composite does" className="mb-4">
      <fieldset className="flex flex-wrap gap-1.5" aria-label="Kind of work">
        {KINDS.map((kind) => (
          <button
            key={kind}
            type="button"
            className="chip"
            aria-pressed={work.kind === kind}
            disabled={!mayWrite}
            // What was drawn or marked for another kind is kept until that one is chosen again.
            onClick={() => put({ ...work, kind })}
          >
            {DIRECT_KINDS[kind]}
          </button>
        ))}
      </fieldset>
      {work.kind === 'worn' && (
        <p className="mt-3 text-note text-ink-2">
          {work.island
            ? 'The dentin is troughed as it is marked on the scan. '
            : 'A scan shows no colour: dentin is taken to lie within the walls. '}
          <button type="button" className="how" disabled={!mayWrite} onClick={markIsland}>
            {work.island ? 'mark it anew' : 'mark it on the scan'}
          </button>
          {work.island && (
            <>
              {' · '}
              <button
                type="button"
                className="how"
                disabled={!mayWrite}
                onClick={() => put({ ...work, island: undefined })}
              >
                within the walls
              </button>
            </>
          )}
        </p>
      )}
      {work.kind === 'corner' && (
        <div className="mt-3">
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              checked={broken !== undefined}
              disabled={!mayWrite}
              onChange={(e) => put({ ...work, broken: e.target.checked ? FIRST_BREAK : undefined })}
            />
            the scan does not show the break: draw it
          </label>
          {broken && (
            <>
              <fieldset className="my-2 flex gap-1.5" aria-label="From which corner">
                {(['mesial', 'distal'] as const).map((corner) => (
                  <button
                    key={corner}
                    type="button"
                    className="chip"
                    aria-pressed={broken.corner === corner}
                    disabled={!mayWrite}
                    onClick={() => put({ ...work, broken: { ...broken, corner } })}
                  >
                    {corner} corner
                  </button>
                ))}
              </fieldset>
              {(['heightMm', 'widthMm'] as const).map((k) => (
                <NumberField
                  key={k}
                  label={k === 'heightMm' ? 'broken up to, from the edge' : 'broken in to, from the side'}
                  unit="mm"
                  value={broken[k]}
                  {...BREAK_LIMITS[k]}
                  step={0.1}
                  digits={1}
                  disabled={!mayWrite}
                  onChange={(v) => put({ ...work, broken: { ...broken, [k]: v } }, `break ${tooth} ${k}`)}
                  onDone={() => store.endGroup()}
                />
              ))}
            </>
          )}
        </div>
      )}
    </section>
  );
}
