import type { Jaw } from '@radiant/core';
import { useCase } from '../../data/case-context.js';

/** The palatal key and the layers as files for a printer, or for another program; and the way without a printer. */
export function Files({ jaw }: { jaw: Jaw }) {
  const { detail, notation } = useCase();
  const href = (form: 'stl' | '3mf', what: string) =>
    `/api/cases/${detail.id}/contour.${form}?what=${what}&jaw=${jaw}&notation=${notation}`;
  const links = [
    ['palatal key, STL', 'stl', 'palatal-key'],
    ['palatal key, 3MF', '3mf', 'palatal-key'],
    ['layers, 3MF', '3mf', 'layers'],
    ['layers, STL', 'stl', 'layers'],
  ] as const;
  return (
    <section aria-label="Key and layers as files" className="mb-5">
      <h2 className="title mb-2">Palatal key</h2>
      <div className="mb-2 flex flex-wrap gap-2">
        {links.map(([words, form, what]) => (
          <a key={words} className="btn btn-ghost" href={href(form, what)} download>
            {words}
          </a>
        ))}
      </div>
      <p className="text-note text-ink-2">
        4 mm thick, under the edges and up behind them as far as is set, the face open: dam and clamps want room at the
        gum. Without a printer: putty over the wax-up or the printed model, cut along the edges with a sharp blade so
        that the face is open, and off the gum behind. Try it in before and after the dam.
      </p>
    </section>
  );
}
