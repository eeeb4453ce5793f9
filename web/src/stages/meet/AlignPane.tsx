import type { CaseFile, PhotoAlignment, PointPx } from '@radiant/contract';
import { useEffect, useRef, useState } from 'react';
import { Mark } from '../../bench/Mark.js';
import { useSection } from '../../data/case-context.js';
import { PALETTE } from '../../ui/palette.js';

const tenth = (v: number) => Math.round(v * 10) / 10;

/**
 * One photograph on which two places are set, the same two as on the other: pupils, canine tips, corners of the mouth.
 */
export function AlignPane({
  file,
  src,
  caption,
  alignment,
  put,
}: {
  file: CaseFile;
  src: string;
  caption: string;
  alignment: PhotoAlignment | undefined;
  put: (a: PhotoAlignment, group?: string) => void;
}) {
  const { store } = useSection('read');
  const frame = useRef<SVGSVGElement>(null);
  const [zoom, setZoom] = useState(1);
  const [first, setFirst] = useState<PointPx>();
  const [w, h] = [file.width ?? 1, file.height ?? 1];
  useEffect(() => {
    const measure = () => {
      const box = frame.current?.getBoundingClientRect();
      if (box?.width) setZoom(Math.min(box.width / w, box.height / h));
    };
    measure();
    const watch = new ResizeObserver(measure);
    if (frame.current) watch.observe(frame.current);
    return () => watch.disconnect();
  }, [w, h]);
  const press = (clientX: number, clientY: number) => {
    const matrix = frame.current?.getScreenCTM()?.inverse();
    if (!matrix) return;
    const at = new DOMPoint(clientX, clientY).matrixTransform(matrix);
    if (at.x < 0 || at.y < 0 || at.x > w || at.y > h) return;
    const point = { x: tenth(at.x), y: tenth(at.y) };
    if (alignment) {
      const far = (p: PointPx) => Math.hypot(p.x - point.x, p.y - point.y);
      return put({ ...alignment, [far(alignment.first) <= far(alignment.second) ? 'first' : 'second']: point });
    }
    if (!first) return setFirst(point);
    if (Math.hypot(first.x - point.x, first.y - point.y) < 3) return;
    put({ photoId: file.id, first, second: point });
    setFirst(undefined);
  };
  const view = { x: 0, y: 0, zoom };
  return (
    <figure className="flex min-h-0 flex-col">
      {/* biome-ignore lint/a11y/useKeyWithClickEvents: the points themselves are moved by keys; the first setting is by pointer as on paper */}
      <svg
        ref={frame}
        viewBox={`0 0 ${w} ${h}`}
        className="min-h-0 flex-1 cursor-crosshair"
        onClick={(e) => !(e.target as Element).closest('[data-mark]') && press(e.clientX, e.clientY)}
      >
        <title>{caption}</title>
        <image href={src} width={w} height={h} />
        {first && !alignment && (
          <circle cx={first.x} cy={first.y} r={6 / zoom} fill="none" stroke={PALETTE.white} strokeWidth={2 / zoom} />
        )}
        {alignment &&
          (['first', 'second'] as const).map((which) => (
            <Mark
              key={which}
              x={alignment[which].x}
              y={alignment[which].y}
              label={`${which} place on ${caption}`}
              view={view}
              bounds={{ width: w, height: h }}
              locked={false}
              onMove={(x, y) => put({ ...alignment, [which]: { x, y } }, `align ${file.id} ${which}`)}
              onDone={() => store.endGroup()}
            >
              <circle className="ring" r={8} fill="none" stroke={PALETTE.ink} strokeOpacity={0.55} strokeWidth={4} />
              <circle r={8} fill="none" stroke={PALETTE.white} strokeWidth={2} />
              <text
                x={12}
                y={-8}
                fontSize={14}
                fontWeight={650}
                fill={PALETTE.white}
                stroke={PALETTE.ink}
                strokeWidth={3}
                paintOrder="stroke"
              >
                {which === 'first' ? '1' : '2'}
              </text>
            </Mark>
          ))}
      </svg>
      <figcaption className="pt-1 text-center text-note text-white">
        {caption}:{' '}
        {alignment
          ? 'drag a place, or click where the nearer one belongs'
          : first
            ? 'click the second place'
            : 'click two places that lie alike on both photographs'}
      </figcaption>
    </figure>
  );
}
