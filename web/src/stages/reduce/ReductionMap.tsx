import {
  type ContourPlan,
  type Fdi,
  jawOf,
  restorationOf,
  rowOf,
  SCAN_PM_MM,
  type ToothReduction,
  type Zone,
} from '@radiant/core';
import { useMemo } from 'react';
import { removalColour } from '../../bench/colour-scale.js';
import { toothOutline } from '../../bench/tooth-outline.js';
import { useCase, useSection, useToothLabel } from '../../data/case-context.js';
import { PALETTE } from '../../ui/palette.js';

/** Drawing units a millimetre, and the room across: six teeth fill it, more are drawn smaller. */
const MOST_SCALE = 12.4;
const ROOM = 610;

/** Where each zone's band begins and ends as share of the height, and where its number stands. */
const BANDS: readonly { readonly zone: Zone; readonly from: number; readonly to: number; readonly at: number }[] = [
  { zone: 'edge', from: 0, to: 0.14, at: 0.09 },
  { zone: 'incisal', from: 0.14, to: 1 / 3, at: 0.235 },
  { zone: 'middle', from: 1 / 3, to: 2 / 3, at: 0.5 },
  { zone: 'cervical', from: 2 / 3, to: 1.02, at: 0.81 },
];

/**
 * The teeth of one jaw with the depth to remove in each zone, as colour and number; lower teeth with their edges up.
 */
export function ReductionMap({
  reductions,
  plan,
  zone,
  onPick,
}: {
  reductions: readonly ToothReduction[];
  plan: ContourPlan;
  zone: Zone;
  onPick: (tooth: Fdi, zone: Zone) => void;
}) {
  const { tooth: selected } = useCase();
  const shape = useSection('shape');
  const { own } = useSection('reduce').data;
  const name = useToothLabel();
  const jaw = jawOf(selected);
  // Roots go up in the picture of an upper tooth, down in that of a lower one.
  const rootward = jaw === 'upper' ? -1 : 1;
  const shown = reductions.map((r) => r.tooth).join();
  const { teeth, scale } = useMemo(() => {
    const row = rowOf(jaw).filter((t) => plan[t] && shown.split(',').includes(String(t)));
    const ordered = jaw === 'upper' ? row : [...row].reverse();
    const total = ordered.reduce((s, t) => s + (plan[t]?.widthMm ?? 0), 0);
    const scale = Math.min(MOST_SCALE, ROOM / total);
    let x = -total / 2;
    const teeth = ordered.flatMap((t) => {
      const own = plan[t];
      if (!own) return [];
      const { path, heightMm: height } = toothOutline(t, own);
      const placed = { tooth: t, x: (x + own.widthMm / 2) * scale, path, height };
      x += own.widthMm;
      return [placed];
    });
    return { teeth, scale };
  }, [plan, jaw, shown]);
  return (
    <section aria-label="Tooth to remove">
      <div className="flex items-baseline justify-between">
        <div>
          <h2 className="title text-figure">Tooth to remove, mm</h2>
          <p className="text-note text-ink-2">
            from the tooth as it is to the target under contour no. {shape.version} · in the middle of each zone · ±
            {SCAN_PM_MM.toFixed(2)}
          </p>
        </div>
        <RemovalScale />
      </div>
      <svg
        viewBox={jaw === 'upper' ? '-310 -150 620 190' : '-310 -40 620 190'}
        className="mx-auto mt-2 block w-full max-w-[760px]"
        role="group"
        aria-label="Depth to remove by tooth and zone"
      >
        {teeth.map((t) => {
          const r = reductions.find((q) => q.tooth === t.tooth);
          const on = t.tooth === selected;
          return (
            <g key={t.tooth} transform={`translate(${t.x} 0)`}>
              <clipPath id={`tooth-${t.tooth}`}>
                <path d={t.path} transform={`scale(${scale} ${-rootward * scale})`} />
              </clipPath>
              <g clipPath={`url(#tooth-${t.tooth})`}>
                {BANDS.map((b) => {
                  const z = r?.zones.find((q) => q.zone === b.zone);
                  const mm = z?.removal?.remove.value;
                  return (
                    <rect
                      key={b.zone}
                      x={-60}
                      width={120}
                      y={Math.min(rootward * b.from, rootward * b.to) * t.height * scale}
                      height={(b.to - b.from) * t.height * scale + 0.5}
                      fill={mm === undefined ? '#f0ece4' : removalColour(mm)}
                      stroke={on && b.zone === zone ? PALETTE.plum : 'none'}
                      strokeWidth={2.2}
                      className="cursor-pointer"
                      onClick={() => onPick(t.tooth, b.zone)}
                    />
                  );
                })}
              </g>
              <path
                d={t.path}
                transform={`scale(${scale} ${-rootward * scale})`}
                fill="none"
                stroke={on ? PALETTE.plum : PALETTE.ink2}
                strokeWidth={on ? 0.22 : 0.09}
                pointerEvents="none"
              />
              {BANDS.map((b) => {
                const z = r?.zones.find((q) => q.zone === b.zone);
                const mm = z?.removal?.remove.value;
                return (
                  <text
                    key={b.zone}
                    y={rootward * b.at * t.height * scale + 5}
                    textAnchor="middle"
                    fontSize={b.zone === 'edge' ? 12.5 : 14}
                    fontWeight={on ? 650 : 400}
                    fill={PALETTE.ink}
                    pointerEvents="none"
                    data-testid={`remove-${t.tooth}-${b.zone}`}
                  >
                    {mm === undefined ? (b.zone === 'edge' ? 'flat' : '·') : mm === 0 ? '0' : mm.toFixed(2)}
                  </text>
                );
              })}
              <text
                y={jaw === 'upper' ? 22 : -10}
                textAnchor="middle"
                fontSize={13}
                fontWeight={on ? 700 : 400}
                fill={on ? PALETTE.plum : PALETTE.ink2}
              >
                {name(t.tooth)}
              </text>
              {own?.some((o) => o.tooth === t.tooth) && (
                <text y={jaw === 'upper' ? 35 : -23} textAnchor="middle" fontSize={10.5} fill={PALETTE.ink2}>
                  {restorationOf(t.tooth, { design: 'graduated', own }).design.name}
                </text>
              )}
            </g>
          );
        })}
      </svg>
    </section>
  );
}

function RemovalScale() {
  const steps = [0, 0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7];
  return (
    <div className="text-tiny text-ink-2">
      <div className="flex">
        {steps.map((mm) => (
          <span key={mm} className="h-2.5 w-4 border border-hair" style={{ background: removalColour(mm) }} />
        ))}
      </div>
      <div className="flex justify-between">
        <span>0</span>
        <span>0.7 and more</span>
      </div>
    </div>
  );
}
