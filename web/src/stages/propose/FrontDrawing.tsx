import { CROWN_LIMITS, EDGE_LIMITS, GUM_LIMITS, gumUpOf, type Proposal, type ToothMeasure } from '@radiant/core';
import { toothOutline } from '../../bench/tooth-outline.js';
import { useCase, useSection, useToothLabel } from '../../data/case-context.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { number, signed } from '../../ui/format.js';
import { PALETTE } from '../../ui/palette.js';
import { Grip } from './Grip.js';

interface Placed {
  readonly tooth: number;
  readonly x: number;
  /** Edge level over the lower central edge, mm, up positive. */
  readonly edge: number;
  readonly path: string;
  readonly widthMm: number;
  readonly lengthMm: number;
}

const clamp = (v: number, lo: number, hi: number) => Math.min(hi, Math.max(lo, v));

function place(
  sizes: readonly { tooth: number; widthMm: number; lengthMm: number; zenith: number }[],
  gap: number,
): Placed[] {
  const total = sizes.reduce((s, t) => s + t.widthMm, 0) + gap * (sizes.length - 1);
  let x = -total / 2;
  return sizes.map((t) => {
    const size = { lengthMm: clamp(t.lengthMm, 5, 16), widthMm: clamp(t.widthMm, 3, 14), facialVolumeMm: 0 };
    const own = {
      tooth: t.tooth,
      x: x + t.widthMm / 2,
      edge: t.zenith - t.lengthMm,
      path: toothOutline(t.tooth, size).path,
      widthMm: t.widthMm,
      lengthMm: t.lengthMm,
    };
    x += t.widthMm + gap;
    return own;
  });
}

/**
 * The teeth of the row unrolled along the arch, as they are in ink and as proposed in plum, gum lines kept, to one
 * scale.
 */
export function FrontDrawing({
  proposal,
  measures,
  preview,
}: {
  proposal: Proposal;
  measures: readonly ToothMeasure[];
  /** What is shown is only looked at: by another school, whose name this is. */
  preview?: string | undefined;
}) {
  const { tooth: selected, selectTooth } = useCase();
  const { data } = useSection('propose');
  const mayWrite = useMayWrite('propose') && !preview;
  const name = useToothLabel();
  const of = (t: number) => measures.find((m) => m.tooth === t);
  // A crown is drawn as long as it is and leans a little in the mouth: it is set by its edge, and its gum line follows.
  const level = (t: number, which: 'edgeLevel' | 'zenithLevel') => of(t)?.[which]?.value ?? 0;
  const upright = (t: number) => {
    const length = of(t)?.length?.value ?? 0;
    return length > 0 ? (level(t, 'zenithLevel') - level(t, 'edgeLevel')) / length : 1;
  };
  const row = proposal.targets.map((t) => t.tooth);
  const free =
    proposal.space.value -
    [...row, ...(proposal.premolars ?? []).map((p) => p.tooth)].reduce((s, t) => s + (of(t)?.width?.value ?? 0), 0);
  const now = place(
    row.map((t) => ({
      tooth: t,
      widthMm: of(t)?.width?.value ?? 0,
      lengthMm: of(t)?.length?.value ?? 0,
      zenith: level(t, 'edgeLevel') + (of(t)?.length?.value ?? 0),
    })),
    Math.max(0, free) / Math.max(1, row.length - 1),
  );
  // Where the gum moves up, the crown grows at the gum: its edge stays where the plan puts it.
  const gumMm = data.gumMm ?? 0;
  const then = place(
    proposal.targets.map((t) => ({
      tooth: t.tooth,
      widthMm: t.width.value,
      lengthMm: t.length.value,
      zenith:
        level(t.tooth, 'zenithLevel') + (t.stays ? 0 : gumUpOf(t, gumMm)) + t.length.value * (1 - upright(t.tooth)),
    })),
    0,
  );
  return (
    <figure className="min-h-[240px] flex-1">
      <figcaption className="flex flex-wrap items-baseline gap-x-4">
        <h2 className="title">As it is, and as proposed</h2>
        <span className="text-note text-ink-2">
          unrolled, {gumMm > 0 ? `gum moved up ${number(gumMm, 1)} mm` : 'gum lines kept'}; dashed: central edge
        </span>
        <span className="ml-auto flex gap-4 text-note">
          <span>
            <span className="mr-1.5 inline-block h-0 w-6 border-t-2 border-ink align-middle" />
            as it is
          </span>
          <span className="text-plum">
            <span className="mr-1.5 inline-block h-0 w-6 border-t-[3px] border-plum align-middle" />
            {preview ? `as ${preview} would` : 'proposed'}
          </span>
        </span>
      </figcaption>
      <svg
        viewBox="-25 -11.8 50 16.8"
        className="h-[calc(100%-26px)] w-full"
        role="group"
        aria-label="Front view of the upper front teeth, as they are and as proposed"
      >
        <path d="M-25 0H25" stroke={PALETTE.ink3} strokeWidth={0.05} strokeDasharray="0.4 0.3" />
        <text x={-25} y={data.edgeMm > 0 ? -0.35 : 1.05} fontSize={0.8} fill={PALETTE.ink2}>
          today
        </text>
        {Math.abs(data.edgeMm) > 0.01 && (
          <>
            <path d={`M-25 ${data.edgeMm}H25`} stroke={PALETTE.plum} strokeWidth={0.07} strokeDasharray="0.4 0.3" />
            <text
              x={25}
              y={data.edgeMm + (data.edgeMm > 0 ? 1.05 : -0.35)}
              fontSize={0.8}
              fill={PALETTE.plum}
              textAnchor="end"
            >
              {signed(data.edgeMm, 1)}
            </text>
          </>
        )}
        {then.map((t) => (
          <g
            key={t.tooth}
            data-testid={`proposed-${t.tooth}`}
            transform={`translate(${t.x} ${-t.edge})`}
            onClick={() => selectTooth(t.tooth)}
            className="cursor-pointer"
          >
            <path
              d={t.path}
              fill={t.tooth === selected ? PALETTE.plumSoft : PALETTE.leaf}
              stroke={PALETTE.plum}
              strokeWidth={t.tooth === selected ? 0.22 : 0.14}
            />
          </g>
        ))}
        {now.map((t) => (
          <g key={t.tooth} transform={`translate(${t.x} ${-t.edge})`} pointerEvents="none">
            <path d={t.path} fill="none" stroke={PALETTE.ink} strokeWidth={0.09} />
          </g>
        ))}
        {then.map((t) => (
          <g key={t.tooth} transform={`translate(${t.x} 0)`} textAnchor="middle">
            <text
              y={3.1}
              fontSize={1.15}
              fontWeight={t.tooth === selected ? 700 : 600}
              fill={t.tooth === selected ? PALETTE.plum : PALETTE.ink}
            >
              {name(t.tooth)}
            </text>
            <text y={4.4} fontSize={0.95} fill={PALETTE.ink2}>
              {number(t.widthMm, 1)} × {number(t.lengthMm, 1)}
            </text>
          </g>
        ))}
        {mayWrite && <Grips proposal={proposal} drawn={then} />}
      </svg>
    </figure>
  );
}

/** What can be taken hold of: the edge, the gum, and the width of the chosen tooth. */
function Grips({ proposal, drawn }: { proposal: Proposal; drawn: readonly Placed[] }) {
  const { tooth } = useCase();
  const { data, set, store } = useSection('propose');
  const name = useToothLabel();
  const done = () => store.endGroup();
  const own = drawn.find((t) => t.tooth === tooth);
  const target = proposal.targets.find((t) => t.tooth === tooth);
  const central = drawn.find((t) => t.tooth === 21) ?? drawn.find((t) => t.tooth === 11) ?? drawn[0];
  const hold = (widthMm: number) =>
    set(
      { ...data, locked: [...(data.locked ?? []).filter((l) => l.tooth !== tooth), { tooth, widthMm }] },
      `lock ${tooth}`,
    );
  // The side that lies away from the middle of the mouth.
  const outward = own && own.x < 0 ? -1 : 1;
  return (
    <>
      <Grip
        label="Central edges, up and down"
        x={21.2}
        y={data.edgeMm}
        along="y"
        grows={1}
        value={data.edgeMm}
        limits={EDGE_LIMITS}
        sign
        onSlide={(edgeMm) => set({ ...data, edgeMm }, 'edge')}
        onDone={done}
      />
      {central && (
        <Grip
          label="Gum line, up and down"
          x={central.x}
          y={-(central.edge + central.lengthMm)}
          along="y"
          grows={-1}
          value={data.gumMm ?? 0}
          limits={GUM_LIMITS}
          sign
          onSlide={(gumMm) => set({ ...data, gumMm }, 'gum')}
          onDone={done}
        />
      )}
      {own && target && !target.stays && (
        <Grip
          label={`Side of ${name(tooth)}, in and out`}
          x={own.x + (outward * own.widthMm) / 2}
          y={-(own.edge + 0.4 * own.lengthMm)}
          along="x"
          grows={outward}
          value={Math.round(own.widthMm * 10) / 10}
          limits={CROWN_LIMITS.widthMm}
          onSlide={hold}
          onDone={done}
        />
      )}
    </>
  );
}
