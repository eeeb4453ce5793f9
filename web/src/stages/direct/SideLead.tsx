import { type CanineLead, SIDE_STEP_MM } from '@radiant/core';
import { useToothLabel } from '../../data/case-context.js';
import { number } from '../../ui/format.js';
import { LeadWay } from './LeadWay.js';

/** What the canines need so that the back teeth part when the jaw goes to a side: now, and as planned. */
export function SideLead({
  told,
  partMm,
}: {
  told: { readonly now: readonly CanineLead[]; readonly planned: readonly CanineLead[] } | undefined;
  partMm: number;
}) {
  const name = useToothLabel();
  if (!told || told.now.length === 0)
    return (
      <p className="px-6 pt-6 text-ink-2">
        How the canines lead is told from both jaws in the closed bite: a scan of the lower jaw is missing, or a canine.
      </p>
    );
  return (
    <div className="grid gap-4 px-6 pt-4 pb-6 xl:grid-cols-2">
      {told.now.map((now) => {
        const planned = told.planned.find((p) => p.to === now.to) ?? now;
        const done = planned.addMm < 0.05;
        return (
          <section key={now.to} aria-label={`To the ${now.to}`} className="rounded-xl border border-hair bg-leaf p-5">
            <h3 className="title mb-2">To the {now.to}</h3>
            <p className="finding" data-weight={done ? 'good' : 'watch'}>
              {done
                ? `As planned ${name(now.upper)} leads on ${name(now.lower)}, and the back teeth part by ${number(planned.partNowMm, 1)} mm.`
                : `${number(planned.addMm, 1)} mm more on ${name(now.upper)} and ${name(now.lower)} together, along the height of the tip, ${
                    partsAlready(planned)
                      ? 'and they lead: the back teeth part already, led by other teeth.'
                      : `and they lead, and the back teeth part by ${number(partMm, 1)} mm.`
                  } Most of it is missing ${number(planned.mostAtMm, 1)} mm to the side.`}
            </p>
            <dl className="figures mt-3 grid grid-cols-[1fr_auto_auto] gap-x-5 gap-y-1">
              <dt />
              <dd className="text-right text-ink-2">now</dd>
              <dd className="text-right text-ink-2">planned</dd>
              <dt>back teeth part by, {SIDE_STEP_MM} mm to the side</dt>
              <dd className="text-right tabular-nums">{number(now.partNowMm, 2)} mm</dd>
              <dd className="text-right tabular-nums">{number(planned.partNowMm, 2)} mm</dd>
              <dt>missing on the canines, at most</dt>
              <dd className="text-right tabular-nums">{number(now.addMm, 2)} mm</dd>
              <dd className="text-right tabular-nums">{number(planned.addMm, 2)} mm</dd>
            </dl>
            <LeadWay now={now.way} planned={planned.way} />
            {!done && (
              <p className="mt-2 text-note text-ink-2">
                {onWhich(planned, name)} On the slope it leads on, not on the place on which the jaws close.
              </p>
            )}
          </section>
        );
      })}
      <p className="text-note text-ink-2 xl:col-span-2">
        Followed as far as the canines stay across from each other, the jaw carried without turning; the wished parting
        is reached evenly up to {SIDE_STEP_MM} mm. Many healthy mouths are led by several teeth: parting is a wish, no
        illness. Where the height of the bite would change, the whole mouth is planned first.
      </p>
    </div>
  );
}

/** Whether other teeth part those behind as wished all along the way. */
const partsAlready = ({ way }: CanineLead): boolean => way.every((s) => s.partMm >= s.wantedMm - 0.05);

/** Nearer than this two tips are worn alike, mm: the form that fits tells no finer. */
const ALIKE_MM = 0.3;

/** On which of the two canines most of it is laid: on the one that has lost more. */
function onWhich({ upper, lower, upperWearMm, lowerWearMm }: CanineLead, name: (tooth: number) => string): string {
  if (upperWearMm === undefined || lowerWearMm === undefined || Math.abs(upperWearMm - lowerWearMm) < ALIKE_MM)
    return 'Both tips are worn about alike: half on each, or all on the lower one, which shows less.';
  const [most, mm] = upperWearMm > lowerWearMm ? [upper, upperWearMm] : [lower, lowerWearMm];
  return `Most of it on ${name(most)}: its tip has lost about ${number(mm, 1)} mm, more than the other’s.`;
}
