import { type ToothHistory as Past, TOOTH_PAST } from '@radiant/contract';
import { type Fdi, fromUniversal, kindName } from '@radiant/core';
import { Popover } from 'radix-ui';
import { useSection, useToothLabel } from '../../data/case-context.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { moment } from '../../ui/format.js';
import { ShadeField } from './ShadeField.js';
import { Toggles } from './Toggles.js';

const UPPER = Array.from({ length: 16 }, (_, i) => fromUniversal(i + 1));
const LOWER = Array.from({ length: 16 }, (_, i) => fromUniversal(32 - i));

const isNoted = (t: Past): boolean => t.past.length > 0 || !!t.note || !!t.shade;

/** What is noted of a tooth, in a line. */
const told = ({ past, shade, note }: Past): string => {
  const wet = shade?.wet === undefined ? '' : shade.wet ? ' wet' : ' dry';
  const taken = shade && `shade ${shade.name}, taken${wet} ${moment(shade.at)}`;
  return [...past.map((p) => TOOTH_PAST[p]), taken, note].filter(Boolean).join(', ');
};

/** All teeth as they stand before the observer; each opens what it has behind it. */
export function ToothHistory() {
  const { data } = useSection('meet');
  const name = useToothLabel();
  const noted = data.teeth.filter(isNoted);
  return (
    <section aria-label="Tooth history">
      <h2 className="title mb-2 mt-1">Tooth history</h2>
      {[UPPER, LOWER].map((row) => (
        <div key={row[0]} className="mb-1 grid grid-cols-8 gap-1 @[460px]:grid-cols-[repeat(16,minmax(0,1fr))]">
          {row.map((t) => (
            <ToothButton key={t} tooth={t} />
          ))}
        </div>
      ))}
      <p className="mt-2 text-note text-ink-2">
        {noted.length === 0
          ? 'Nothing noted: choose a tooth.'
          : noted.map((t) => `${name(t.tooth)}: ${told(t)}`).join(' · ')}
      </p>
    </section>
  );
}

function ToothButton({ tooth }: { tooth: Fdi }) {
  const meet = useSection('meet');
  const mayWrite = useMayWrite('meet');
  const name = useToothLabel();
  const own: Past = meet.data.teeth.find((t) => t.tooth === tooth) ?? { tooth, past: [] };
  const marked = isNoted(own);
  const change = (next: Past, group?: string) => {
    const others = meet.data.teeth.filter((t) => t.tooth !== tooth);
    meet.set(
      {
        ...meet.data,
        teeth: isNoted(next) ? [...others, next].sort((a, b) => a.tooth - b.tooth) : others,
      },
      group,
    );
  };
  return (
    <Popover.Root onOpenChange={(open) => !open && meet.store.endGroup()}>
      <Popover.Trigger
        aria-label={`${name(tooth)}, ${kindName(tooth)}${marked ? `: ${told(own)}` : ''}`}
        className={`h-9 rounded-md border text-note ${marked ? 'border-plum bg-plum-soft font-semibold text-plum' : 'border-hair bg-leaf text-ink-2 hover:border-plum'} ${own.past.includes('missing') ? 'line-through' : ''}`}
      >
        {name(tooth)}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side="top"
          sideOffset={6}
          collisionPadding={12}
          className="z-20 w-[320px] rounded-xl border border-hair bg-leaf p-4 shadow-lg"
        >
          <h3 className="subtitle mb-2">
            {name(tooth)}, {kindName(tooth)}
          </h3>
          <Toggles
            legend="History"
            quiet
            words={TOOTH_PAST}
            chosen={own.past}
            disabled={!mayWrite}
            onChange={(past) => change({ ...own, past })}
          />
          <ShadeField
            shade={own.shade}
            disabled={!mayWrite}
            onChange={(shade, typed) => {
              const { shade: _, ...rest } = own;
              change(shade ? { ...rest, shade } : rest, typed ? `shade ${tooth}` : undefined);
            }}
          />
          <label className="mt-3 block">
            <span className="mb-1 block text-note">Note</span>
            <input
              className="field"
              maxLength={300}
              value={own.note ?? ''}
              disabled={!mayWrite}
              onChange={(e) => {
                const { note: _, ...rest } = own;
                change(e.target.value ? { ...rest, note: e.target.value } : rest, `note ${tooth}`);
              }}
            />
          </label>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
