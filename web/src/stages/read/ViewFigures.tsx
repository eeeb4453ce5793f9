import { PHOTO_VIEWS, type PhotoView } from '@radiant/contract';
import { differs, type ViewFigure } from '@radiant/core';
import { memo } from 'react';
import { useCase, useSection, useSentence, useToothLabel } from '../../data/case-context.js';
import { useReading } from '../../data/reading.js';
import { FigureTable } from '../../shell/FigureTable.js';
import { number } from '../../ui/format.js';
import { AskedValue } from '../../ui/How.js';
import { TeethShown } from './TeethShown.js';

/** Decimal places of a figure by its unit. */
const digitsOf = (f: ViewFigure): number => (f.figure.unit === '%' || f.figure.unit === '°' ? 0 : 1);

/** Everything that a view tells, each with its ± and its working. */
export function ViewFigures({ view, figures }: { view: PhotoView; figures: readonly ViewFigure[] }) {
  const { tooth, selectTooth } = useCase();
  const sentence = useSentence();
  if (figures.length === 0) return null;
  return (
    <section aria-label={`Measures, ${PHOTO_VIEWS[view]}`} className="mt-6">
      <h2 className="subtitle mb-1">
        {view === 'retracted-front'
          ? 'Contacts, axes, levels'
          : PHOTO_VIEWS[view].replace(/^./, (c) => c.toUpperCase())}
      </h2>
      <FigureTable aria-label="Measures of the view">
        <tbody>
          {figures.map((f) => (
            <Row key={f.id} figure={f} name={sentence(f.name)} on={f.tooth === tooth} onChoose={selectTooth} />
          ))}
        </tbody>
      </FigureTable>
      {view === 'close-rest' && <BothCentrals />}
      {view === 'close-smile' && <TeethShown />}
    </section>
  );
}

/** One figure; drawn again only when it has changed. */
const Row = memo(
  function Row({
    figure: f,
    name,
    on,
    onChoose,
  }: {
    figure: ViewFigure;
    name: string;
    on: boolean;
    onChoose: (tooth: number) => void;
  }) {
    return (
      <tr data-testid={`figure-${f.id}`} className={on ? 'bg-plum-soft/50' : ''}>
        <td>
          {f.tooth ? (
            <button type="button" className="text-left hover:text-plum" onClick={() => f.tooth && onChoose(f.tooth)}>
              {name}
            </button>
          ) : (
            name
          )}
          {f.word && <span className="block text-fine font-semibold text-ink">{f.word}</span>}
        </td>
        <td className="whitespace-nowrap">
          <AskedValue figure={f.figure} what={name} digits={digitsOf(f)} suffix={` ${f.figure.unit}`} />
        </td>
      </tr>
    );
  },
  (a, b) =>
    a.name === b.name &&
    a.on === b.on &&
    a.figure.word === b.figure.word &&
    a.figure.figure.value === b.figure.figure.value &&
    a.figure.figure.pm === b.figure.figure.pm,
);

/** The two centrals against each other, and what the record still lacks for the norm. */
function BothCentrals() {
  const { data } = useSection('meet');
  const { figures } = useReading();
  const name = useToothLabel();
  const [right, left] = [11, 21].map((t) => figures['close-rest']?.find((f) => f.id === `display-${t}`)?.figure);
  if (!right || !left) return null;
  return (
    <p className="mt-2 text-fine text-ink-2">
      {differs(right, left)
        ? `${name(11)} shows ${number(Math.abs(right.value - left.value), 1)} mm ${right.value > left.value ? 'more' : 'less'} than ${name(21)}. `
        : ''}
      {data.ageYears ? '' : 'Age and sex in meet bring the norm.'}
    </p>
  );
}
