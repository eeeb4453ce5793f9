import type { CasePage, CaseSummary } from '@radiant/contract';
import { kindName } from '@radiant/core';
import { Command } from 'cmdk';
import { Search } from 'lucide-react';
import { Dialog } from 'radix-ui';
import { useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import { api } from '../data/api.js';
import { useCase, useToothLabel } from '../data/case-context.js';
import { actsNow, type KeyAct, keyLabel, useHotkeys, useShownKey } from '../ui/hotkeys.js';
import { type StageDefinition, useStages } from './stage.js';
import { useStripTeeth } from './use-strip-teeth.js';

/** So many cases are offered. */
const CASES = 8;
/** What is typed rests so long before cases are looked for, ms. */
const REST_MS = 200;

const ITEM =
  'flex cursor-pointer items-center justify-between gap-4 rounded-md px-3 py-1.5 data-[selected=true]:bg-plum-soft data-[selected=true]:text-plum';
const GROUP =
  '[&_[cmdk-group-heading]]:px-3 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:text-tiny [&_[cmdk-group-heading]]:text-ink-2';

/** Everything that can be gone to or done from here, found by its name: stages, tools, teeth, other cases. */
export function Palette({ stage }: { stage: StageDefinition }) {
  const [open, setOpen] = useState(false);
  const shown = useShownKey();
  // What a key would do is asked for before the palette takes the keyboard.
  const [acts, setActs] = useState<readonly KeyAct[]>([]);
  useHotkeys('everywhere', [
    {
      keys: 'Ctrl K',
      does: 'find a stage, a tool, a tooth or a case',
      on: ['mod+k'],
      run: () => {
        setActs(actsNow());
        setOpen(true);
      },
      whileTyping: () => true,
    },
  ]);
  return (
    <Dialog.Root
      open={open}
      onOpenChange={(to) => {
        if (to) setActs(actsNow());
        setOpen(to);
      }}
    >
      <Dialog.Trigger
        className="flex items-center gap-1.5 text-left hover:text-ink"
        title="a stage, a tool, a tooth or a case"
      >
        <Search size={15} aria-hidden="true" /> find
        <kbd className="key max-lg:hidden">{shown('Ctrl K')}</kbd>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-ink/40" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-[12vh] left-1/2 z-40 w-[560px] max-w-[94vw] -translate-x-1/2 overflow-hidden rounded-xl bg-leaf shadow-xl"
        >
          <Dialog.Title className="sr-only">Find and go</Dialog.Title>
          <Finder stage={stage} acts={acts} done={() => setOpen(false)} />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** Every word that is typed stands in the name, or less well in what a stage answers; letters scattered over it are none. */
function found(value: string, search: string, keywords: string[] = []): number {
  const [name, all] = [value.toLowerCase(), [value, ...keywords].join(' ').toLowerCase()];
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  return words.every((w) => name.includes(w)) ? 1 : words.every((w) => all.includes(w)) ? 0.5 : 0;
}

function Finder({ stage, acts, done }: { stage: StageDefinition; acts: readonly KeyAct[]; done: () => void }) {
  const { detail, selectTooth } = useCase();
  const { teeth } = useStripTeeth(stage);
  const stages = useStages();
  const navigate = useNavigate();
  const name = useToothLabel();
  const [text, setText] = useState('');
  const cases = useFoundCases(text).filter((c) => c.id !== detail.id);
  const go = (act: () => void) => () => {
    done();
    act();
  };
  // Of keys that do one thing, one is enough; stages and teeth have lines of their own.
  const tools = acts.filter(
    (a, i) =>
      !a.hotkey.off &&
      !/^(go to |tooth before|tooth after|find a stage)/.test(a.name) &&
      acts.findIndex((b) => b.name === a.name) === i,
  );
  return (
    <Command label="Find a stage, a tool, a tooth or a case" loop filter={found}>
      <Command.Input
        autoFocus
        value={text}
        onValueChange={setText}
        placeholder="a stage, a tool, a tooth, a case"
        className="w-full border-b border-hair bg-leaf px-5 py-3.5 outline-none"
      />
      <Command.List className="max-h-[54vh] overflow-y-auto p-2">
        <Command.Empty className="px-3 py-4 text-ink-2">Nothing here has this name.</Command.Empty>
        <Command.Group heading="stages" className={GROUP}>
          {stages.map((s) => (
            <Command.Item
              key={s.name}
              value={`stage ${s.name}`}
              keywords={[s.question]}
              className={ITEM}
              onSelect={go(() => navigate(`/cases/${detail.id}/${s.name}`))}
            >
              <span>
                {s.name} <span className="ml-2 text-note text-ink-2">{s.question}</span>
              </span>
            </Command.Item>
          ))}
          <Command.Item value="all cases" className={ITEM} onSelect={go(() => navigate('/'))}>
            all cases
          </Command.Item>
        </Command.Group>
        {tools.length > 0 && (
          <Command.Group heading={`on ${stage.name}`} className={GROUP}>
            {tools.map((a) => (
              <Command.Item
                key={a.id}
                value={`tool ${a.name}`}
                className={ITEM}
                onSelect={go(() => a.hotkey.run(a.first, new KeyboardEvent('keydown', { key: a.first })))}
              >
                {a.name}
                <kbd className="key">{keyLabel(a.now)}</kbd>
              </Command.Item>
            ))}
          </Command.Group>
        )}
        <Command.Group heading="teeth" className={GROUP}>
          {teeth.map((t) => (
            <Command.Item
              key={t}
              value={`tooth ${name(t)} ${kindName(t)}`}
              className={ITEM}
              onSelect={go(() => selectTooth(t))}
            >
              {name(t)} <span className="text-note text-ink-2">{kindName(t)}</span>
            </Command.Item>
          ))}
        </Command.Group>
        {cases.length > 0 && (
          <Command.Group heading="cases" className={GROUP}>
            {cases.map((c) => (
              <Command.Item
                key={c.id}
                value={`case ${c.name} ${c.id}`}
                className={ITEM}
                onSelect={go(() => navigate(`/cases/${c.id}/${c.stagesBegun.includes('read') ? 'read' : 'meet'}`))}
              >
                {c.name} <span className="truncate text-note text-ink-2">{c.wish}</span>
              </Command.Item>
            ))}
          </Command.Group>
        )}
      </Command.List>
    </Command>
  );
}

/** Cases whose names hold what was typed, looked for on the server once the hand rests. */
function useFoundCases(text: string): readonly CaseSummary[] {
  const [found, setFound] = useState<readonly CaseSummary[]>([]);
  useEffect(() => {
    let gone = false;
    const timer = setTimeout(() => {
      const query = new URLSearchParams({ ...(text.trim() && { search: text.trim() }) });
      void api.get<CasePage>(`/cases?${query}`).then(
        (page) => !gone && setFound(page.cases.slice(0, CASES)),
        () => !gone && setFound([]),
      );
    }, REST_MS);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [text]);
  return found;
}
