import type { BenchView } from '../bench/PhotoBench.js';
import { useSection } from '../data/case-context.js';

/** Over the photograph: the level of the lower central edge, and each tooth's line from zenith to edge. */
export function Overlays({ view, width }: { view: BenchView; width: number }) {
  const { data } = useSection('read');
  const thin = 1.4 / view.zoom;
  const edges = data.landmarks.filter((m) => m.kind === 'edge' && m.tooth % 10 === 1);
  const level = edges.length > 0 ? Math.max(...edges.map((m) => m.y)) : undefined;
  return (
    <g pointerEvents="none">
      {level !== undefined && <path d={`M0 ${level}H${width}`} stroke="#fff" strokeWidth={thin} strokeDasharray={`${8 / view.zoom} ${5 / view.zoom}`} />}
      {data.landmarks
        .filter((m) => m.kind === 'zenith')
        .map((z) => {
          const e = data.landmarks.find((m) => m.kind === 'edge' && m.tooth === z.tooth);
          return e && <path key={z.tooth} d={`M${z.x} ${z.y}L${e.x} ${e.y}`} stroke="#fff" strokeOpacity={0.85} strokeWidth={thin} />;
        })}
    </g>
  );
}
