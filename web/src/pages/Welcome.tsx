import type { ReactNode } from 'react';
import { PALETTE } from '../ui/palette.js';

/** The page before the house: the arch, the name, a form. */
export function Welcome({ title, words, children }: { title: string; words: string; children: ReactNode }) {
  return (
    <main className="grid h-full grid-cols-[1fr_440px] overflow-auto bg-porcelain max-md:grid-cols-1">
      <div className="flex flex-col justify-center gap-8 px-16 py-10 max-md:hidden">
        <svg viewBox="0 0 400 210" className="w-full max-w-[520px]" aria-hidden="true">
          <path d="M20 200a180 180 0 0 1 360 0" fill="none" stroke={PALETTE.hair} strokeWidth="1.5" />
          <path
            d="M50 200a150 150 0 0 1 300 0"
            fill="none"
            stroke={PALETTE.plum}
            strokeWidth="10"
            strokeLinecap="round"
          />
          <path d="M85 200a115 115 0 0 1 230 0" fill="none" stroke={PALETTE.hair} strokeWidth="1.5" />
          <circle cx="200" cy="196" r="9" fill={PALETTE.plum} />
        </svg>
        <div>
          <h1 className="font-serif text-hero font-semibold leading-none tracking-tight">Radiant Arch</h1>
          <p className="mt-4 max-w-[46ch] text-lead text-ink-2">
            The final contour first. Then what to remove, where, and with which bur: measured from it, with the working
            behind every figure.
          </p>
        </div>
      </div>
      <div className="flex flex-col justify-center border-l border-hair bg-leaf px-12 py-10">
        <h2 className="title mb-1 text-figure">{title}</h2>
        <p className="mb-6 text-ink-2">{words}</p>
        {children}
        <p className="mt-10 text-fine text-ink-2">
          A planning aid. The treating clinician decides and checks in the mouth; local rules come first.
        </p>
      </div>
    </main>
  );
}
