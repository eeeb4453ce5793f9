import { soundingsOf } from '@radiant/contract';
import {
  type ClosedGap,
  EMERGES,
  PAPILLA_FILLS,
  SOUNDING_LIMITS,
  SQUARE_PERCENT,
  USUAL_SOUNDING_MM,
} from '@radiant/core';
import { useSection, useToothLabel } from '../../data/case-context.js';
import { number } from '../../ui/format.js';
import { NumberInput } from '../../ui/NumberInput.js';

/** Nearer than this two teeth touch, mm. */
const TOUCHES_MM = 0.02;
/** Less added to a side nobody builds, mm. */
const LITTLE_MM = 0.05;

/** The spaces that the plan closes: who gets how much, what fills, with which matrix, in which order. */
export function GapTable({ gaps, mayWrite }: { gaps: readonly ClosedGap[]; mayWrite: boolean }) {
  const { data, set, store } = useSection('direct');
  const name = useToothLabel();
  const sounded = soundingsOf(data);
  if (gaps.length === 0)
    return (
      <p className="px-6 pt-6 text-ink-2">
        The plan closes no space here: no contact comes nearer than it stands, and none is open beneath.
      </p>
    );
  const put = (between: string, mm: number | undefined) =>
    set(
      {
        ...data,
        soundings: [
          ...data.soundings.filter((s) => s.between !== between),
          ...(mm === undefined ? [] : [{ between, mm }]),
        ],
      },
      `sounding ${between}`,
    );
  return (
    <div className="px-6 pt-4 pb-6">
      <div className="grid gap-4 xl:grid-cols-2">
        {gaps.map((g) => {
          const key = `${g.right}-${g.left}`;
          const [second, secondMm] = g.first === g.right ? [g.left, g.share.left] : [g.right, g.share.right];
          return (
            <section
              key={key}
              aria-label={`Between ${name(g.right)} and ${name(g.left)}`}
              className="rounded-xl border border-hair bg-leaf p-5"
            >
              <h3 className="title mb-1">
                {name(g.right)} · {name(g.left)}
              </h3>
              <p className="text-ink-2">
                {g.nowMm > TOUCHES_MM ? `${number(g.nowMm, 2)} mm apart now` : 'in contact now'};{' '}
                {g.plannedMm > TOUCHES_MM ? `${number(g.plannedMm, 2)} mm as planned` : 'in contact as planned'}.
              </p>
              <dl className="figures mt-3 grid grid-cols-[1fr_auto] gap-x-4 gap-y-1">
                <dt>{name(g.right)} gets wider by</dt>
                <dd className="text-right tabular-nums">
                  {number(g.share.right, 2)} mm
                  <Ratio percent={g.ratio.right} />
                </dd>
                <dt>{name(g.left)} gets wider by</dt>
                <dd className="text-right tabular-nums">
                  {number(g.share.left, 2)} mm
                  <Ratio percent={g.ratio.left} />
                </dd>
                {g.openMm !== undefined && (
                  <>
                    <dt>open under the contact, to the papilla’s tip</dt>
                    <dd className="text-right tabular-nums">
                      {g.openMm > 0 ? `${number(g.openMm, 1)} mm` : 'nothing'}
                    </dd>
                  </>
                )}
                <dt>
                  <label htmlFor={`sounding ${key}`}>tip of the papilla to the bone, sounded</label>
                </dt>
                <dd className="text-right">
                  <NumberInput
                    id={`sounding ${key}`}
                    value={sounded[key] ?? null}
                    empty
                    step={0.5}
                    {...SOUNDING_LIMITS}
                    digits={1}
                    disabled={!mayWrite}
                    onChange={(mm) => put(key, mm ?? undefined)}
                    onDone={() => store.endGroup()}
                  />{' '}
                  mm
                </dd>
                {g.boneMm !== undefined && g.fills !== undefined && (
                  <>
                    <dt className="font-semibold">contact to bone</dt>
                    <dd className="text-right font-semibold tabular-nums">{number(g.boneMm, 1)} mm</dd>
                  </>
                )}
              </dl>
              {g.fills !== undefined && (
                <p className="finding mt-3 text-note" data-weight={g.fills >= 90 ? 'good' : 'watch'}>
                  {g.fills >= 90
                    ? `Such a space fills nearly always (${g.fills} %).`
                    : `Such a space filled in ${g.fills} of 100: bring the contact lower, or say so before.`}{' '}
                  {g.sounded ? '' : `Nobody has sounded it: the usual ${USUAL_SOUNDING_MM} mm are taken. `}
                  <span className="text-ink-2">{PAPILLA_FILLS.source.text}</span>
                </p>
              )}
              {g.share.right + g.share.left > LITTLE_MM && (
                <ol className="mt-3 list-decimal space-y-1 pl-5 text-note">
                  <li>
                    {name(g.first)} first: its whole side, cured, shaped and polished; width by caliper
                    {g.share.right + g.share.left > 0.1 &&
                      ` (${number(g.first === g.right ? g.share.right : g.share.left, 2)} mm more)`}
                    .
                  </li>
                  <li>
                    {secondMm > LITTLE_MM
                      ? `${name(second)} against it, the matrix between them pulled tight: two sides that are soft at once have no contact.`
                      : `${name(second)} stays as it is: the matrix is pulled tight against it.`}
                  </li>
                  <li>
                    Matrix: {g.matrix.words}; {g.matrix.why}.
                  </li>
                </ol>
              )}
            </section>
          );
        })}
      </div>
      <p className="mt-3 text-note text-ink-2">
        From {SQUARE_PERCENT} % of its length a tooth looks square (common practice): its length has to follow. Steeper
        than {EMERGES.mostDeg}° from the tooth a side can’t be kept clean (common practice). Gaps that are wider than
        composite closes well are moved with braces first.
      </p>
    </div>
  );
}

/** What width it comes to, of its length, and whether that has to follow. */
function Ratio({ percent }: { percent: number | undefined }) {
  if (percent === undefined) return null;
  return (
    <span className={`block text-note ${percent > SQUARE_PERCENT ? 'font-semibold text-ink' : 'text-ink-2'}`}>
      {number(percent, 0)} % of its length{percent > SQUARE_PERCENT && ': make it longer'}
    </span>
  );
}
