import {
  type Fdi,
  restorationOf,
  type TargetTold,
  type ToothWay,
  takesAWay,
  WAY_LIMITS,
  wayWords,
} from '@radiant/core';
import { useSection } from '../../data/case-context.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { NumberInput } from '../../ui/NumberInput.js';

/** How the restoration comes off, as it was found or set by hand. Rows of the table of sums. */
export function WayOut({ tooth, told }: { tooth: Fdi; told: TargetTold }) {
  const { data, set, store } = useSection('reduce');
  const mayWrite = useMayWrite('reduce');
  const byHand = data.ways?.find((w) => w.tooth === tooth);
  const settable = takesAWay(restorationOf(tooth, data).design);
  const others = (data.ways ?? []).filter((w) => w.tooth !== tooth);
  const put = (way: ToothWay) => set({ ...data, ways: [...others, way] }, `way ${tooth}`);
  const found = { tooth, downDeg: Math.round(told.way.downDeg), turnDeg: Math.round(told.way.turnDeg) };
  return (
    <>
      <tr>
        <th scope="row">comes off</th>
        <td colSpan={2}>
          {wayWords(told.way)}
          {settable && mayWrite && (
            <button
              type="button"
              className="how ml-2"
              onClick={() => (byHand ? set({ ...data, ways: others }) : put(found))}
            >
              {byHand ? 'let it be found' : 'set by hand'}
            </button>
          )}
        </td>
      </tr>
      {settable && byHand && (
        <tr>
          <th scope="row">by hand</th>
          <td colSpan={2}>
            <span className="flex items-center justify-end gap-1.5 text-tiny text-ink-2">
              down
              <NumberInput
                label="Way out, down from the front"
                className="field h-8 w-14 px-2 text-right text-note text-ink"
                value={byHand.downDeg}
                {...WAY_LIMITS.downDeg}
                step={5}
                digits={0}
                unit="°"
                disabled={!mayWrite}
                onChange={(downDeg) => downDeg !== null && put({ ...found, ...byHand, tooth, downDeg })}
                onDone={() => store.endGroup()}
              />
              to distal
              <NumberInput
                label="Way out, turned to the distal side"
                className="field h-8 w-14 px-2 text-right text-note text-ink"
                value={byHand.turnDeg}
                {...WAY_LIMITS.turnDeg}
                step={2}
                digits={0}
                unit="°"
                disabled={!mayWrite}
                onChange={(turnDeg) => turnDeg !== null && put({ ...found, ...byHand, tooth, turnDeg })}
                onDone={() => store.endGroup()}
              />
            </span>
          </td>
        </tr>
      )}
    </>
  );
}
