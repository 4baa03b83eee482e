/** A word of ours or of the trade that needs explaining, and what it must not be called in its place. */
export interface Term {
  readonly word: string;
  readonly means: string;
  /** Other words for the same thing, which are not used. */
  readonly not?: readonly RegExp[];
}

/** One word a thing: what each means, and what is said nowhere instead of it. */
export const WORDS = {
  position: {
    word: 'position',
    means:
      'One place of a shape on the neck: the notes that the hand takes there, from the lowest string to the highest.',
    not: [/\bpattern box\b/i],
  },
  rung: {
    word: 'rung',
    means: 'A position as a bar of the ladder, over or beside the frets that it covers.',
  },
  ladder: {
    word: 'ladder',
    means: 'All positions of a layout in order along the neck, each a rung over its frets.',
  },
  seam: {
    word: 'seam',
    means: 'The notes that two neighbouring positions share: where the hand can go from one into the other.',
  },
  climb: {
    word: 'climb',
    means: 'A way along the neck that can be played: which notes, in which order, on which fingers.',
  },
  stairs: {
    word: 'stairs',
    means:
      'Where the hand is, in order: a stair for each of its places, as wide as its four fingers. A slide is a slope to the next.',
  },
  jog: {
    word: 'jog',
    means:
      'Where two strings are not a fourth apart, a shape moves by some frets as it crosses them: in standard tuning by one fret from string 3 to string 2.',
  },
  signature: {
    word: 'signature',
    means:
      'The fingers of a shape string by string, as players memorise them: 1 is the index finger, 4 the little finger, and s before a finger is a slide on it. The steps stand below.',
  },
  law: {
    word: 'law',
    means:
      'A rule that follows from the scale and holds in every key: where its wide steps and half steps lie, and after how many strings its groups repeat.',
  },
  steps: {
    word: 'W and H',
    means:
      'Steps from note to note: H is a half step, one fret; W is a whole step, two frets; W+H is three frets.',
    not: [/\bsemitones?\b/i, /\bhalf[- ]tones?\b/i, /\bwhole tones? step/i],
  },
  naturalMinor: {
    word: 'natural minor',
    means: 'The scale 1 2 ♭3 4 5 ♭6 ♭7. As a mode of the major scale it is called Aeolian.',
    not: [/\bplain minor\b/i, /\bminor proper\b/i],
  },
  school: {
    word: 'school',
    means: 'A way of fingering, numbering or picking that some players hold to and others do not.',
  },
  layout: { word: 'layout', means: 'The rule by which a scale is spread over the strings.' },
  relay: {
    word: 'relay',
    means:
      'A run in legs: so many notes of one position, then from one string back the same number of the next position up.',
  },
  reach: {
    word: 'reach',
    means: 'The frets from the lowest to the highest note that the hand takes on one string.',
  },
  shift: {
    word: 'shift',
    means: 'The hand goes to another place. With a slide the finger keeps the string.',
    not: [/\bposition change\b/i, /\bhand moves?\b/i],
  },
  note: { word: 'note', means: 'A pitch. What you write about a chart are notes of your own.' },
  save: {
    word: 'save',
    means: 'Charts and instruments are saved on the server, by themselves once they have a name.',
    not: [/\bKept “/, /\bKeep (the|this) (name|instrument|chart)\b/, /\bKeep instrument\b/],
  },
  bin: {
    word: 'bin',
    means: 'Where deleted charts and instruments stay for 30 days.',
    not: [/\btrash\b/i, /\brecycle\b/i],
  },
} as const satisfies Readonly<Record<string, Term>>;
