import {
  ContourApproval,
  type ContourVersion,
  formsChanged,
  isApproved,
  keysOf,
  PLAN_FIELDS,
  type PlanField,
  planDefault,
  sameContour,
  scanOf,
  type ToothPlanInput,
  WORN_EDGES,
  WORN_MEASURED,
  type WornEdge,
  type WornMeasured,
  WornMockUp,
} from '@radiant/contract';
import { Dialog } from 'radix-ui';
import { useState } from 'react';
import { api, sentenceOf } from '../../data/api.js';
import { useCase, useSection, useToothLabel } from '../../data/case-context.js';
import { useUnsent } from '../../data/unsent-text.js';
import { FigureTable } from '../../shell/FigureTable.js';
import { Form } from '../../shell/Form.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { day, signed } from '../../ui/format.js';
import { AskedChanges } from './AskedChanges.js';
import { BeforeApproval } from './BeforeApproval.js';

/**
 * One kept contour: how it differs from what stands now or from another, what wearing it brought, and the patient's
 * approval.
 */
export function VersionCard({ version: v, onClose }: { version: ContourVersion; onClose: () => void }) {
  const { detail, refresh } = useCase();
  const shape = useSection('shape');
  const mayWrite = useMayWrite('shape');
  const [other, setOther] = useState('now');
  const [refusal, setRefusal] = useState<string>();
  const act = async (work: () => Promise<unknown>) => {
    setRefusal(undefined);
    try {
      await work();
      await refresh();
      return true;
    } catch (error) {
      setRefusal(sentenceOf(error));
      return false;
    }
  };
  const path = `/cases/${detail.id}/contours/${v.id}`;
  const against = other === 'now' ? shape.data.teeth : (detail.contours.find((c) => c.id === other)?.teeth ?? []);
  return (
    <Dialog.Root open onOpenChange={(o) => !o && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-ink/40" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed left-1/2 top-1/2 z-40 max-h-[92vh] w-[640px] max-w-[96vw] -translate-x-1/2 -translate-y-1/2 overflow-y-auto rounded-xl bg-leaf p-7 shadow-xl"
        >
          <Dialog.Title className="title">
            Version {v.number}: {v.name}
          </Dialog.Title>
          <p className="mb-4 text-note text-ink-2">
            kept by {v.by}, {day(v.at)}
            {v.why && `; ${v.why}`}
          </p>
          {formsChanged(v) && (
            <p className="finding mb-4 text-note" data-weight="watch" data-testid="forms-changed">
              It was kept with an earlier edition of the crown forms: its numbers stand, its surfaces are drawn with
              today’s. Look at it again before it is worn, approved or cut to.
            </p>
          )}
          {v.approved?.claimed && (
            <p className="mb-4 rounded-lg border border-removed px-3 py-2 text-body">
              <b className="font-semibold">Said to be approved by the patient</b>, {day(v.approved.at)}, by{' '}
              {v.approved.by}: “{v.approved.word}”. That is the word of the file it came in with
              {detail.imported && `, brought in by ${detail.imported.by}`}; nobody has recorded it here.
            </p>
          )}
          {isApproved(v) && v.approved && (
            <p className="mb-4 rounded-lg bg-plum-soft px-3 py-2 text-body">
              <b className="font-semibold">Approved by the patient</b>, {day(v.approved.at)}, recorded by{' '}
              {v.approved.by}: “{v.approved.word}”. It is frozen.
            </p>
          )}
          <div className="mb-1 flex items-center gap-2">
            <label htmlFor="against">Beside</label>
            <select id="against" className="field w-[260px]" value={other} onChange={(e) => setOther(e.target.value)}>
              <option value="now">the contour as it stands now</option>
              {detail.contours
                .filter((c) => c.id !== v.id)
                .map((c) => (
                  <option key={c.id} value={c.id}>
                    version {c.number}: {c.name}
                  </option>
                ))}
            </select>
          </div>
          <Differences own={v.teeth} against={against} />
          <Worn
            key={JSON.stringify(v.worn)}
            version={v}
            disabled={!mayWrite}
            onMade={onClose}
            save={(worn) => act(() => api.put(`${path}/worn`, worn))}
          />
          {mayWrite && !isApproved(v) && (
            <div className="mt-5">
              <BeforeApproval version={v} />
              <Form
                type={ContourApproval}
                place={`approval ${v.id}`}
                action="Approved by the patient"
                fields={[
                  {
                    name: 'word',
                    label: 'How the patient approved it, in a word',
                    hint: 'Recorded in your name, and not to be taken back. This version stays as it is; the contour goes on changing.',
                  },
                ]}
                send={async (approval) => {
                  await api.post(`${path}/approve`, approval);
                  await refresh();
                }}
              />
            </div>
          )}
          {refusal && (
            <p role="alert" className="mt-2 text-note text-stop">
              {refusal}
            </p>
          )}
          <div className="mt-6 flex justify-between">
            {mayWrite && !sameContour(v.teeth, shape.data.teeth) ? (
              <button
                type="button"
                className="btn btn-ghost"
                title="The contour becomes this version; one undo brings back what it is now"
                onClick={() => {
                  shape.set({
                    ...shape.data,
                    ...scanOf(v),
                    teeth: v.teeth.map((t) => ({ ...t })),
                  });
                  onClose();
                }}
              >
                Go on from this one
              </button>
            ) : (
              <span />
            )}
            <Dialog.Close className="btn">Close</Dialog.Close>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** By how much the version differs, tooth by tooth; only what differs is shown. */
function Differences({ own, against }: { own: readonly ToothPlanInput[]; against: readonly ToothPlanInput[] }) {
  const name = useToothLabel();
  if (sameContour(own, against)) return <p className="mb-3 text-body text-ink-2">The same in every number.</p>;
  const find = (list: readonly ToothPlanInput[], tooth: number) => list.find((t) => t.tooth === tooth);
  const of = (list: readonly ToothPlanInput[], tooth: number, key: PlanField['key']) =>
    find(list, tooth)?.[key] ?? planDefault(key);
  const teeth = own.map((t) => t.tooth);
  const rows = PLAN_FIELDS.filter(({ key }) => teeth.some((t) => of(own, t, key) !== of(against, t, key)));
  const other = (t: number): string[] => {
    const [p, q] = [find(own, t), find(against, t)];
    const out: string[] = (p?.character ?? 'even') === (q?.character ?? 'even') ? [] : [p?.character ?? 'even'];
    if (p?.palatal !== q?.palatal) out.push(p?.palatal === 'own' ? 'own palatal side' : 'palatal side by form');
    if (JSON.stringify(p?.strokes ?? []) !== JSON.stringify(q?.strokes ?? [])) out.push('brush');
    return out;
  };
  return (
    <FigureTable className="mb-3" aria-label="Differences">
      <thead>
        <tr>
          <th scope="col">differs by</th>
          {teeth.map((t) => (
            <th key={t} scope="col">
              {name(t)}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map(({ key, label, unit, digits }) => (
          <tr key={key}>
            <td>
              {label.toLowerCase()}, {unit}
            </td>
            {teeth.map((t) => {
              const d = of(own, t, key) - of(against, t, key);
              return <td key={t}>{d === 0 ? '' : signed(d, digits)}</td>;
            })}
          </tr>
        ))}
        {teeth.some((t) => other(t).length > 0) && (
          <tr>
            <td>character, palatal side, brush</td>
            {teeth.map((t) => (
              <td key={t}>{other(t).join(', ')}</td>
            ))}
          </tr>
        )}
      </tbody>
    </FigureTable>
  );
}

const WORN_KEYS = ['from', 'until', 'edge', 'measured', 'speech', 'bulk', 'family'] as const;

/** Whether two notes say the same; what is not said and what is empty are one. */
const sameWorn = (a: Partial<WornMockUp>, b: Partial<WornMockUp>): boolean =>
  WORN_KEYS.every((k) => (a[k] || '') === (b[k] || '')) &&
  JSON.stringify((a.asked ?? []).map(inOrder)) === JSON.stringify((b.asked ?? []).map(inOrder));

const inOrder = (asked: object) => Object.entries(asked).sort(([p], [q]) => p.localeCompare(q));

/** The mock-up in the mouth: from, until, and what speech, bulk and family said. */
function Worn({
  version: v,
  disabled,
  save,
  onMade,
}: {
  version: ContourVersion;
  disabled: boolean;
  /** Whether it was saved. */
  save: (w: WornMockUp) => Promise<boolean>;
  onMade: () => void;
}) {
  const unsent = useUnsent<WornMockUp>(`worn ${v.id}`);
  const [worn, write] = useState<WornMockUp>(unsent.kept ?? v.worn ?? Object.assign(new WornMockUp(), { from: '' }));
  const setWorn = (next: WornMockUp) => {
    write(next);
    unsent.keep(next);
  };
  const changed = !sameWorn(worn, v.worn ?? {});
  const text = (key: 'speech' | 'bulk' | 'family', label: string) => (
    <label className="block">
      <span className="mb-1 block text-note">{label}</span>
      <input
        className="field"
        value={worn[key]}
        maxLength={300}
        disabled={disabled}
        onChange={(e) => setWorn({ ...worn, [key]: e.target.value })}
      />
    </label>
  );
  return (
    <section aria-label="Worn as mock-up" className="border-t border-hair pt-3">
      <div className="mb-2 flex items-baseline justify-between">
        <h3 className="subtitle">Worn as mock-up</h3>
        {!disabled && (
          <button
            type="button"
            className="how text-note"
            disabled={!changed}
            onClick={() => void save({ ...worn, until: worn.until || null }).then((done) => done && unsent.drop())}
          >
            save these notes
          </button>
        )}
      </div>
      <div className="grid grid-cols-2 gap-3">
        {(['from', 'until'] as const).map((key) => (
          <label key={key} className="block">
            <span className="mb-1 block text-note">{key === 'from' ? 'Put in on' : 'Out on'}</span>
            <input
              type="date"
              className="field"
              value={worn[key] ?? ''}
              disabled={disabled}
              onChange={(e) => setWorn({ ...worn, [key]: e.target.value })}
            />
          </label>
        ))}
        <label className="col-span-2 block">
          <span className="mb-1 block text-note">The edge, speaking and smiling</span>
          <select
            className="field"
            value={worn.edge ?? ''}
            disabled={disabled}
            onChange={(e) => setWorn({ ...worn, edge: (e.target.value || null) as WornEdge | null })}
          >
            <option value="">not looked at</option>
            {keysOf(WORN_EDGES).map((k) => (
              <option key={k} value={k}>
                {WORN_EDGES[k]}
              </option>
            ))}
          </select>
        </label>
        <label className="col-span-2 block">
          <span className="mb-1 block text-note">Measured again as it was worn</span>
          <select
            className="field"
            value={worn.measured ?? ''}
            disabled={disabled}
            onChange={(e) => setWorn({ ...worn, measured: (e.target.value || null) as WornMeasured | null })}
          >
            <option value="">not said</option>
            {keysOf(WORN_MEASURED).map((k) => (
              <option key={k} value={k}>
                {WORN_MEASURED[k]}
              </option>
            ))}
          </select>
        </label>
        {text('speech', 'Speech')}
        {text('bulk', 'Bulk')}
        <span className="col-span-2">{text('family', 'What the family says')}</span>
      </div>
      <AskedChanges
        version={v}
        asked={worn.asked ?? []}
        set={(asked) => setWorn({ ...worn, asked })}
        noted={!changed && v.worn !== null}
        disabled={disabled}
        onMade={onMade}
      />
    </section>
  );
}
