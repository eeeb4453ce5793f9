import { type DirectPlan, ENERGY_WANTED, LAYER_ORDER, LAYERS, layerWords } from '@radiant/core';
import { number } from '../../ui/format.js';
import { LAYER_COLOURS } from './layer-colours.js';

/** The layers of a tooth: how much of each, how thick, and in how many increments it is laid. */
export function LayerTable({ plan }: { plan: DirectPlan }) {
  return (
    <>
      <table className="figures mb-2 w-full text-note" aria-label="Layers">
        <thead>
          <tr>
            <th scope="col">layer</th>
            <th scope="col">mm³</th>
            <th scope="col" className="pl-3!">
              thick, mm
            </th>
            <th scope="col" className="pl-3!">
              parts
            </th>
          </tr>
        </thead>
        <tbody>
          {LAYER_ORDER.flatMap((name) => plan.layers.filter((l) => l.name === name)).map((l) => (
            <tr key={l.name}>
              <th scope="row">
                <span
                  className="mr-2 inline-block size-3 rounded-sm align-[-1px]"
                  style={{ background: LAYER_COLOURS[l.name] }}
                  aria-hidden
                />
                {LAYERS[l.name]}
              </th>
              <td>{number(l.mm3, 1)}</td>
              {/* A wall is as thick as is set; along its columns it is as deep as the tooth. */}
              <td>{l.name === 'wall' ? '–' : number(l.usualMm, 2)}</td>
              <td>{plan.increments.filter((i) => i.layer === l.name).length}</td>
            </tr>
          ))}
          <tr className="font-semibold">
            <th scope="row">all</th>
            <td>{number(plan.missingMm3, 1)}</td>
            <td />
            <td>{plan.increments.length}</td>
          </tr>
        </tbody>
      </table>
      <p className="mb-3 text-note text-ink-2">
        {plan.portions.enamel} {plan.portions.enamel === 1 ? 'portion' : 'portions'} of enamel, {plan.portions.body} of
        body. Each increment gets {number(plan.energy, 0)} J/cm²; about {ENERGY_WANTED} are wanted.
        {plan.longerMm > 0.05 && ` It becomes ${number(plan.longerMm, 1)} mm longer.`}
        {plan.wider.left + plan.wider.right > 0.1 &&
          ` It becomes ${number(plan.wider.left + plan.wider.right, 1)} mm wider.`}
      </p>
      <h3 className="subtitle mb-1">In this order</h3>
      <ol className="mb-4 list-decimal space-y-0.5 pl-5 text-note">
        {plan.increments.map((i) => (
          <li key={`${i.layer} ${i.nth}`}>
            {layerWords(i.layer)}
            {i.of > 1 && `, ${i.nth} of ${i.of}`}: {number(i.mm3, 1)} mm³, up to {number(i.thickestMm, 1)} mm
          </li>
        ))}
      </ol>
    </>
  );
}
