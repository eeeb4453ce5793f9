/** One step from the last cure to the shine. Common practice, no source. */
export interface FinishStep {
  readonly id: string;
  readonly does: string;
  readonly with: string;
  readonly speed: string;
  readonly why: string;
}

/** In the order in which it is done: shape before texture, texture before shine. */
export const FINISHING_STEPS: readonly FinishStep[] = [
  {
    id: 'outline',
    does: 'Width and length against the plan, with a caliper; edge and embrasures first.',
    with: 'discs, coarse',
    speed: 'dry, slow, light',
    why: 'Everything else is judged by the outline; dry one sees where tooth ends.',
  },
  {
    id: 'line-angles',
    does: 'Line angles marked with pencil on both sides, and moved until they mirror each other.',
    with: 'pencil; discs, coarse to medium',
    speed: 'dry, slow',
    why: 'They make the width that is seen.',
  },
  {
    id: 'lobes',
    does: 'Lobes and the furrows between them, as on the neighbour.',
    with: 'fine diamond, then rubber point',
    speed: 'diamond under water; rubber slow',
    why: 'A flat face shines like a mirror.',
  },
  {
    id: 'texture',
    does: 'Texture across and along, only as much as the neighbour has.',
    with: 'fine diamond, hardly touching',
    speed: 'slow, dry, under glasses',
    why: 'Shine takes half of it away again.',
  },
  {
    id: 'between',
    does: 'Strips between the teeth, from coarse to fine, under the contact; floss glides and does not tear.',
    with: 'strips with a blank middle',
    speed: 'by hand, wet',
    why: 'A rough overhang bleeds within days; the contact itself stays.',
  },
  {
    id: 'bite',
    does: 'Thin paper: marks on tooth, in the closed bite and gliding; none on composite, and none on the join.',
    with: 'paper of 8 to 12 µm, held by a tweezers',
    speed: 'fine diamond under water',
    why: 'A mark on composite is where it chips.',
  },
  {
    id: 'medium',
    does: 'Discs from medium to superfine, each in another direction, none left out.',
    with: 'discs, medium, fine, superfine',
    speed: 'dry and light; a breath of air',
    why: 'A scratch of the disc before shows through every later one.',
  },
  {
    id: 'shine',
    does: 'Rubber, then brush or felt with paste.',
    with: 'rubber; goat-hair brush; felt, paste',
    speed: 'rubber under water; brush quick and light',
    why: 'Rubber that runs dry heats the tooth and drags the surface.',
  },
];
