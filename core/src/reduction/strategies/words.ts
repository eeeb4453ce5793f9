/** The strategies as they are chosen and named; the first is the default: depth through the mock-up keeps most enamel. */
export const CUT_WAYS = [
  {
    id: 'mock-up',
    name: 'through the mock-up',
    meaning: 'Grooves are as deep as the needed thickness and cut through the worn mock-up: most enamel is kept.',
  },
  {
    id: 'align',
    name: 'align, then reduce',
    meaning: 'Proud teeth are brought onto the planned curve first; grooves are as deep as what is needed from there.',
  },
  {
    id: 'margin',
    name: 'margin first',
    meaning: 'A ball traces the finish line, then grooves as deep as what has to go are cut into the bare tooth.',
  },
  {
    id: 'planes',
    name: 'planes with a guide',
    meaning: 'The face is cut in two planes, the incisal half and the cervical half, each read with the index.',
  },
] as const;
export type CutFrom = (typeof CUT_WAYS)[number]['id'];
