import type { MeetSection } from '@radiant/contract';
import type { RecipeName } from '@radiant/standins';

/** The records of the sample cases. Invented people; their code names are wading and coastal birds. */
export const DEMO_RECORDS: Readonly<Record<RecipeName, MeetSection>> = {
  Avocet: {
    ageYears: 34,
    sexAtBirth: 'female',
    wish: 'wants them even and a little longer',
    wishTags: ['even', 'longer', 'natural'],
    finishBy: '2026-12-18',
    cautions: ['grinding'],
    cautionNote: 'Grinds at night; a guard after the veneers.',
    teeth: [
      { tooth: 21, past: ['trauma'], note: 'Fell off a bicycle at twelve; vital.' },
      { tooth: 14, past: ['filling'] },
    ],
  },
  Turnstone: {
    ageYears: 23,
    sexAtBirth: 'male',
    wish: 'two teeth never came; the eye teeth look like fangs',
    wishTags: ['even', 'gaps-closed', 'natural'],
    finishBy: '2027-02-26',
    cautions: ['straightened'],
    cautionNote: 'Wears a retainer at night.',
    teeth: [
      { tooth: 12, past: ['missing'], note: 'Never formed; gap closed with braces at fifteen.' },
      { tooth: 22, past: ['missing'], note: 'Never formed.' },
    ],
  },
  Sandpiper: {
    ageYears: 27,
    sexAtBirth: 'female',
    wish: 'the white and brown spots away, everything else may stay',
    wishTags: ['lighter', 'natural'],
    finishBy: '2027-01-15',
    cautions: ['acid'],
    cautionNote: 'Reflux, treated; asks for the least drilling.',
    teeth: [12, 11, 21, 22].map((tooth) => ({ tooth, past: [], note: 'Mottled since it came through.' })),
  },
  Plover: {
    ageYears: 31,
    sexAtBirth: 'female',
    wish: 'too much gum, teeth like a child’s',
    wishTags: ['longer', 'less-gum'],
    finishBy: '2027-04-30',
    cautions: ['healing', 'bleeding'],
    cautionNote: 'Bruises easily; blood values with the physician before the gum is moved.',
    teeth: [11, 21].map((tooth) => ({ tooth, past: ['inflamed'], note: 'Bleeds on probing.' })),
  },
  Dunlin: {
    ageYears: 52,
    sexAtBirth: 'male',
    wish: 'the black triangles between the front teeth catch food',
    wishTags: ['gaps-closed', 'natural'],
    finishBy: null,
    cautions: ['medicines'],
    cautionNote: 'Blood pressure tablets; dry mouth in the mornings.',
    teeth: [
      { tooth: 31, past: ['mobile'], note: 'Grade one.' },
      { tooth: 41, past: ['mobile'], note: 'Grade one.' },
    ],
  },
  Curlew: {
    ageYears: 45,
    sexAtBirth: 'male',
    wish: 'the one grey front tooth',
    wishTags: ['lighter', 'even'],
    finishBy: '2026-12-11',
    cautions: ['anxious'],
    cautionNote: 'Long visits in two halves.',
    teeth: [{ tooth: 21, past: ['root-filled', 'trauma', 'dark-stump'], note: 'Root-filled at nineteen; no post.' }],
  },
};
