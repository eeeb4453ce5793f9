import { adviseEdge, EDGE_LIMITS, edgeOutcome } from '@radiant/core';
import { useSection } from '../../data/case-context.js';
import { FigureTable } from '../../shell/FigureTable.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { number, signed } from '../../ui/format.js';
import { NumberField } from '../../ui/NumberField.js';
import { Advised } from './Advised.js';
import { useEdgeFacts } from './use-edge-facts.js';

/** Where the edge is to stand: what the program proposes and why, the dentist's number, and what it comes to. */
export function EdgeFields() {
  const { data, set, store } = useSection('propose');
  const mayWrite = useMayWrite('propose');
  const facts = useEdgeFacts();
  const advice = adviseEdge(facts);
  const outcome = edgeOutcome(facts, data.edgeMm);
  const rows: readonly (readonly [string, number | undefined, number | undefined])[] = [
    ['shown at rest', facts.restMm, outcome.restMm],
    ['to the lower lip, smiling', facts.roomMm, outcome.roomMm],
    ['over the lower teeth', facts.overbiteMm, outcome.overbiteMm],
  ];
  const known = rows.filter(([, before]) => before !== undefined);
  return (
    <>
      {facts.norms.length === 0 ? (
        <p className="mb-3 text-note text-ink-2">Age and sex in meet give the usual display at rest.</p>
      ) : (
        <p className="mb-3 text-note text-ink-2" title={facts.norms[0]?.source.text}>
          usually shown at rest:{' '}
          {facts.norms.map((n, i) => (
            <span key={n.row}>
              {i > 0 && ', '}
              <b className="font-semibold text-ink">{number(n.value, 1)} mm</b> ({n.row})
            </span>
          ))}{' '}
          · published, {facts.norms[0]?.source.text}
        </p>
      )}
      {advice && (
        <Advised
          title={`Proposed: ${advice.edgeMm === 0 ? 'as it stands' : `${signed(advice.edgeMm, 1)} mm`}`}
          because={advice.because}
          change={advice.edgeMm - data.edgeMm}
          mayTake={mayWrite}
          onTake={() => set({ ...data, edgeMm: advice.edgeMm })}
        />
      )}
      <NumberField
        label="Edge set down"
        unit="mm"
        value={data.edgeMm}
        min={EDGE_LIMITS.min}
        max={EDGE_LIMITS.max}
        step={0.1}
        digits={1}
        disabled={!mayWrite}
        onChange={(v) => set({ ...data, edgeMm: v }, 'edge')}
        onDone={() => store.endGroup()}
      />
      {outcome.warnings.map((w) => (
        <p key={w.text} role="alert" className="finding text-note" data-weight={w.weight}>
          {w.text}
        </p>
      ))}
      {known.length > 0 && (
        <FigureTable className="mb-3 text-note" aria-label="What the edge comes to">
          <tbody>
            {known.map(([label, before, after]) => (
              <tr key={label}>
                <td>{label}, mm</td>
                <td>
                  {number(before as number, 1)} →{' '}
                  <b className="font-semibold text-plum">{number(after as number, 1)}</b>
                </td>
              </tr>
            ))}
          </tbody>
        </FigureTable>
      )}
    </>
  );
}
