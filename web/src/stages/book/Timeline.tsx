import {
  type Ask,
  type Day,
  dayOf,
  type Interval,
  isOpen,
  isoOf,
  VISITS,
  type VisitKind,
  type VisitPlan,
  weekdayOf,
} from '@radiant/core';
import { type PointerEvent, useRef, useState } from 'react';
import { day as words } from '../../ui/format.js';
import { PALETTE } from '../../ui/palette.js';

const ROW = 46;
const HEAD = 46;
const LABEL = 178;
const RIGHT = 26;
const LEAST_DAYS = 35;
/** After the last visit so many days are shown. */
const AFTER_DAYS = 6;
/** A visit that waits is shown to wait so far, days; and a date no further off than so much more. */
const WAITS_DAYS = 14;
/** What was held is shown so far back, days. */
const HELD_DAYS = 35;
const FAR_DAYS = 28;
/** Between the words of two weeks, px. */
const TICK_PX = 54;

/**
 * The visits of a case on days: each with the stretch on which it can be, what lies between it and the one before, and
 * the promised date. A visit is dragged to a day; what breaks is said while it is dragged.
 */
export function Timeline({
  plan,
  ask,
  happyBy,
  selected,
  onSelect,
  onMove,
  onTry,
  mayWrite,
  width,
}: {
  plan: VisitPlan;
  ask: Ask;
  happyBy: Day | undefined;
  selected: VisitKind | undefined;
  onSelect: (kind: VisitKind) => void;
  onMove: (kind: VisitKind, day: Day) => void;
  /** While it is dragged: where it would be; undefined once it is let go. */
  onTry: (kind: VisitKind, day: Day | undefined) => void;
  mayWrite: boolean;
  /** px. */
  width: number;
}) {
  const [held, setHeld] = useState<{ kind: VisitKind; day: Day }>();
  const svg = useRef<SVGSVGElement>(null);
  const since = Math.max(ask.today - HELD_DAYS, Math.min(ask.today, ...plan.visits.map((v) => v.booked ?? v.earliest)));
  const first = since - weekdayOf(since);
  // A date that is far off is told at the border.
  const shown = Math.max(ask.today + LEAST_DAYS - 7, ...plan.visits.map((v) => (v.booked ?? v.earliest) + WAITS_DAYS));
  const far = Math.max(
    shown,
    ...[plan.by, happyBy].flatMap((d) => (d !== undefined && d < shown + FAR_DAYS ? [d] : [])),
  );
  const last = far + AFTER_DAYS;
  const scale = (width - LABEL - RIGHT) / (last - first);
  // What was held longer ago stands at the border.
  const x = (d: Day) => LABEL + (Math.max(first, d) - first) * scale;
  const height = HEAD + ROW * plan.visits.length + 10;
  const days = Array.from({ length: last - first }, (_, i) => first + i);
  const at = (v: VisitPlan['visits'][number]) => (held?.kind === v.kind ? held.day : (v.booked ?? v.earliest));
  const dayAt = (e: PointerEvent) => {
    const box = svg.current?.getBoundingClientRect();
    const d = first + Math.floor((e.clientX - (box?.left ?? 0) - LABEL) / scale);
    return Math.max(ask.today, Math.min(last - 1, d));
  };
  return (
    // biome-ignore lint/a11y/useSemanticElements: a drawing is no set of fields
    <svg ref={svg} width={width} height={height} className="block select-none" role="group" aria-label="Visits on days">
      {days.map((d) =>
        isOpen(ask.house.clinic, d) ? null : (
          <rect
            key={d}
            x={x(d)}
            y={HEAD - 12}
            width={scale}
            height={height - HEAD + 12}
            fill={PALETTE.hair}
            opacity={0.45}
          />
        ),
      )}
      {ask.patientAway.map((a) => (
        <rect
          key={a.from}
          x={x(Math.max(first, a.from))}
          y={HEAD - 12}
          width={Math.max(0, (Math.min(last, a.to + 1) - Math.max(first, a.from)) * scale)}
          height={height - HEAD + 12}
          fill={PALETTE.removed}
          opacity={0.14}
        />
      ))}
      {days
        .filter((d) => (d - first) % (7 * Math.max(1, Math.ceil(TICK_PX / (7 * scale)))) === 0)
        .map((d) => (
          <g key={d}>
            <line x1={x(d)} x2={x(d)} y1={HEAD - 12} y2={height} stroke={PALETTE.hair} />
            <text x={x(d) + 3} y={HEAD - 18} className="fill-ink-2 text-tiny">
              {short(d)}
            </text>
          </g>
        ))}
      <Mark x={x(ask.today) + scale / 2} height={height} words="today" colour={PALETTE.ink3} />
      {plan.by !== undefined && (
        <Mark
          x={x(Math.min(plan.by, last - 1)) + scale}
          height={height}
          words={`promised ${short(plan.by)}${plan.by >= last ? ' →' : ''}`}
          colour={PALETTE.plum}
          strong={plan.by < last}
          atEnd={plan.by >= last}
        />
      )}
      {happyBy !== undefined && happyBy < last && (
        <Mark x={x(happyBy) + scale} height={height} words="would please" colour={PALETTE.plum} dashed />
      )}
      {plan.visits.map((v, i) => {
        const [y, now] = [HEAD + ROW * i + ROW / 2, at(v)];
        const chosen = selected === v.kind;
        const own = plan.intervals.filter((l) => l.to === v.kind);
        return (
          <g key={v.kind}>
            {chosen && <rect x={0} y={y - ROW / 2} width={width} height={ROW} fill={PALETTE.plumSoft} opacity={0.55} />}
            {own.map((l) => (
              <Between
                key={l.from}
                link={l}
                plan={plan}
                at={at}
                x={x}
                scale={scale}
                y={(k) => HEAD + ROW * k + ROW / 2}
              />
            ))}
            {v.latest !== undefined && v.booked === undefined && (
              <rect
                x={x(v.earliest)}
                y={y - 7}
                width={Math.max(scale, (v.latest - v.earliest + 1) * scale)}
                height={14}
                rx={7}
                fill={v.decides ? PALETTE.plum : PALETTE.ink3}
                opacity={0.22}
              />
            )}
            <text x={14} y={y - 3} className={`text-body ${chosen ? 'fill-plum font-semibold' : 'fill-ink'}`}>
              {VISITS[v.kind]}
            </text>
            <text x={14} y={y + 12} className="fill-ink-2 text-tiny">
              {v.minutes} min, {v.who}
            </text>
            {/* biome-ignore lint/a11y/useSemanticElements: a button can't stand in a drawing */}
            <g
              role="button"
              tabIndex={0}
              aria-label={`${VISITS[v.kind]}, ${v.booked === undefined ? 'not booked, at the earliest' : v.booked < ask.today ? 'held on' : 'booked on'} ${words(isoOf(now))}`}
              aria-pressed={chosen}
              className={`outline-none [&:focus-visible>circle]:stroke-[4px] ${mayWrite ? 'cursor-grab' : 'cursor-pointer'}`}
              onClick={() => onSelect(v.kind)}
              onKeyDown={(e) => {
                if (e.key === 'Enter' || e.key === ' ') {
                  e.preventDefault();
                  onSelect(v.kind);
                }
                const by = e.key === 'ArrowRight' ? 1 : e.key === 'ArrowLeft' ? -1 : 0;
                if (by === 0 || !mayWrite) return;
                e.preventDefault();
                onMove(v.kind, Math.max(ask.today, now + by));
              }}
              onPointerDown={(e) => {
                onSelect(v.kind);
                if (!mayWrite) return;
                e.currentTarget.setPointerCapture(e.pointerId);
                setHeld({ kind: v.kind, day: now });
              }}
              onPointerMove={(e) => {
                if (held?.kind !== v.kind) return;
                const to = dayAt(e);
                if (to === held.day) return;
                setHeld({ kind: v.kind, day: to });
                onTry(v.kind, to);
              }}
              onPointerUp={() => {
                if (held?.kind === v.kind && held.day !== (v.booked ?? v.earliest)) onMove(v.kind, held.day);
                setHeld(undefined);
                onTry(v.kind, undefined);
              }}
              onPointerCancel={() => {
                setHeld(undefined);
                onTry(v.kind, undefined);
              }}
            >
              <rect x={x(now) - 14} y={y - 20} width={scale + 28} height={40} fill="transparent" />
              <circle
                cx={x(now) + scale / 2}
                cy={y}
                r={8}
                fill={v.booked === undefined ? PALETTE.leaf : PALETTE.plum}
                stroke={v.decides || v.booked !== undefined ? PALETTE.plum : PALETTE.ink3}
                strokeWidth={2.5}
              />
            </g>
            <text x={x(now) + scale / 2 + 14} y={y - 10} className="fill-ink text-tiny tabular-nums">
              {short(now)}
            </text>
          </g>
        );
      })}
    </svg>
  );
}

const short = (d: Day): string => {
  const [, m, day] = isoOf(d).split('-').map(Number) as [number, number, number];
  return `${day} ${['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'][m - 1]}`;
};

function Mark({
  x,
  height,
  words: said,
  colour,
  strong,
  dashed,
  atEnd,
}: {
  x: number;
  height: number;
  words: string;
  colour: string;
  strong?: boolean;
  dashed?: boolean;
  /** Its words stand before it. */
  atEnd?: boolean;
}) {
  return (
    <g>
      <line
        x1={x}
        x2={x}
        y1={16}
        y2={height}
        stroke={colour}
        strokeWidth={strong ? 2 : 1}
        strokeDasharray={dashed ? '4 4' : undefined}
      />
      <text x={x} y={11} textAnchor={atEnd ? 'end' : 'middle'} className="text-tiny font-semibold" fill={colour}>
        {said}
      </text>
    </g>
  );
}

/** From a visit to one that waits for it. */
function Between({
  link,
  plan,
  at,
  x,
  y,
  scale,
}: {
  link: Interval;
  plan: VisitPlan;
  at: (v: VisitPlan['visits'][number]) => Day;
  x: (d: Day) => number;
  y: (row: number) => number;
  scale: number;
}) {
  const [i, j] = [link.from, link.to].map((k) => plan.visits.findIndex((v) => v.kind === k)) as [number, number];
  const [a, b] = [plan.visits[i], plan.visits[j]];
  if (!a || !b) return null;
  const [x1, x2] = [x(at(a)) + scale / 2, x(at(b)) + scale / 2];
  const decides = a.decides && b.decides && j - i === 1;
  const said = `${link.least} ${link.working ? 'working ' : ''}days`;
  return (
    <>
      {x2 - x1 > SAID_PX && (link.working || link.least > 6) && (
        <text x={x2 - 16} y={y(j) + 15} textAnchor="end" className="fill-ink-2 text-tiny">
          {said}
        </text>
      )}
      <path
        d={`M ${x1} ${y(i) + 9} C ${x1} ${y(j) - 6}, ${Math.min(x1 + 10, x2)} ${y(j)}, ${x2 - 9} ${y(j)}`}
        fill="none"
        stroke={decides ? PALETTE.plum : PALETTE.ink3}
        strokeWidth={decides ? 1.6 : 1}
        opacity={decides ? 0.8 : 0.45}
      />
    </>
  );
}

/** There is room for words from here on, px. */
const SAID_PX = 84;

/** The same day as ISO writes it, or nothing. */
export const dayOrNone = (iso: string | null | undefined): Day | undefined => (iso ? dayOf(iso) : undefined);
