import { type ScaleFamily } from './scale.ts';

/** id | name | degrees | characteristic degrees | aliases, separated by ; */
type Row = readonly [id: string, name: string, degrees: string, characteristic?: string, aliases?: string];

/** Scales of one family. Where `modesOf` is given, the rows are its modes 1, 2, 3 … in order. */
export interface ScaleTable {
  readonly family: ScaleFamily;
  readonly modesOf?: string;
  readonly rows: readonly Row[];
}

/** The catalogue. Names and spellings are common practice among guitarists; docs/sources.md lists the checks. */
export const SCALE_TABLES: readonly ScaleTable[] = [
  {
    family: 'pentatonic',
    modesOf: 'major-pentatonic',
    rows: [
      ['major-pentatonic', 'major pentatonic', '1 2 3 5 6', '3 6', 'pentatonic major; gong'],
      [
        'suspended-pentatonic',
        'suspended pentatonic',
        '1 2 4 5 b7',
        '2 4',
        'Egyptian; major pentatonic mode 2; shang',
      ],
      [
        'blues-minor-pentatonic',
        'blues minor pentatonic',
        '1 b3 4 b6 b7',
        'b6',
        'man gong; major pentatonic mode 3; jue',
      ],
      [
        'blues-major-pentatonic',
        'blues major pentatonic',
        '1 2 4 5 6',
        '4 6',
        'ritsusen; major pentatonic mode 4; zhi',
      ],
      [
        'minor-pentatonic',
        'minor pentatonic',
        '1 b3 4 5 b7',
        'b3 b7',
        'pentatonic minor; rock pentatonic; yu',
      ],
    ],
  },
  {
    family: 'blues',
    rows: [
      ['minor-blues', 'minor blues', '1 b3 4 b5 5 b7', 'b5', 'blues; blues scale; hexatonic blues'],
      ['major-blues', 'major blues', '1 2 b3 3 5 6', 'b3 3', 'country blues; gospel scale'],
    ],
  },
  {
    family: 'major modes',
    modesOf: 'major',
    rows: [
      ['major', 'major', '1 2 3 4 5 6 7', '4 7', 'Ionian; diatonic; do re mi'],
      ['dorian', 'Dorian', '1 2 b3 4 5 6 b7', '6', 'Dorian mode; minor with a natural sixth'],
      ['phrygian', 'Phrygian', '1 b2 b3 4 5 b6 b7', 'b2', 'Phrygian mode'],
      ['lydian', 'Lydian', '1 2 3 #4 5 6 7', '#4', 'Lydian mode'],
      ['mixolydian', 'Mixolydian', '1 2 3 4 5 6 b7', 'b7', 'dominant scale; Mixolydian mode'],
      ['natural-minor', 'natural minor', '1 2 b3 4 5 b6 b7', 'b6', 'Aeolian; minor; pure minor'],
      ['locrian', 'Locrian', '1 b2 b3 4 b5 b6 b7', 'b5', 'half-diminished scale; Locrian mode'],
    ],
  },
  {
    family: 'melodic minor modes',
    modesOf: 'melodic-minor',
    rows: [
      [
        'melodic-minor',
        'melodic minor',
        '1 2 b3 4 5 6 7',
        'b3 7',
        'jazz minor; melodic minor ascending; Ionian b3',
      ],
      ['dorian-b2', 'Dorian b2', '1 b2 b3 4 5 6 b7', 'b2 6', 'Phrygian #6; Phrygian natural 6; Javanese'],
      ['lydian-augmented', 'Lydian augmented', '1 2 3 #4 #5 6 7', '#4 #5', 'Lydian #5'],
      [
        'lydian-dominant',
        'Lydian dominant',
        '1 2 3 #4 5 6 b7',
        '#4 b7',
        'Lydian b7; overtone scale; acoustic scale; Mixolydian #4',
      ],
      ['mixolydian-b6', 'Mixolydian b6', '1 2 3 4 5 b6 b7', '3 b6', 'Aeolian dominant; melodic major; Hindu'],
      [
        'locrian-natural-2',
        'Locrian natural 2',
        '1 2 b3 4 b5 b6 b7',
        '2 b5',
        'Aeolian b5; half-diminished; Locrian #2',
      ],
      [
        'altered',
        'altered',
        '1 b2 b3 b4 b5 b6 b7',
        'b4 b5',
        'super-Locrian; altered dominant; diminished whole tone',
      ],
    ],
  },
  {
    family: 'harmonic minor modes',
    modesOf: 'harmonic-minor',
    rows: [
      ['harmonic-minor', 'harmonic minor', '1 2 b3 4 5 b6 7', 'b6 7', 'Aeolian natural 7; Aeolian #7'],
      ['locrian-natural-6', 'Locrian natural 6', '1 b2 b3 4 b5 6 b7', 'b5 6', 'Locrian #6'],
      [
        'ionian-augmented',
        'Ionian augmented',
        '1 2 3 4 #5 6 7',
        '4 #5',
        'major #5; Ionian #5; augmented major',
      ],
      [
        'dorian-sharp-4',
        'Dorian #4',
        '1 2 b3 #4 5 6 b7',
        'b3 #4',
        'Romanian minor; Ukrainian Dorian; altered Dorian; Lydian minor b7',
      ],
      [
        'phrygian-dominant',
        'Phrygian dominant',
        '1 b2 3 4 5 b6 b7',
        'b2 3',
        'Spanish; Freygish; Phrygian major; Mixolydian b2 b6; Spanish gypsy',
      ],
      ['lydian-sharp-2', 'Lydian #2', '1 #2 3 #4 5 6 7', '#2 #4', 'Lydian sharp second'],
      [
        'altered-bb7',
        'altered bb7',
        '1 b2 b3 b4 b5 b6 bb7',
        'b4 bb7',
        'super-Locrian bb7; ultra-Locrian; superlocrian diminished',
      ],
    ],
  },
  {
    family: 'harmonic major modes',
    modesOf: 'harmonic-major',
    rows: [
      ['harmonic-major', 'harmonic major', '1 2 3 4 5 b6 7', '3 b6', 'major b6; Ionian b6'],
      ['dorian-b5', 'Dorian b5', '1 2 b3 4 b5 6 b7', 'b5 6', 'Locrian natural 2 natural 6'],
      ['phrygian-b4', 'Phrygian b4', '1 b2 b3 b4 5 b6 b7', 'b4 5', 'altered natural 5; super-Phrygian'],
      [
        'lydian-b3',
        'Lydian b3',
        '1 2 b3 #4 5 6 7',
        'b3 #4',
        'Lydian diminished; melodic minor #4; Lydian minor',
      ],
      ['mixolydian-b2', 'Mixolydian b2', '1 b2 3 4 5 6 b7', 'b2 6', 'dominant b9'],
      ['lydian-augmented-sharp-2', 'Lydian augmented #2', '1 #2 3 #4 #5 6 7', '#2 #5', 'Lydian #2 #5'],
      ['locrian-bb7', 'Locrian bb7', '1 b2 b3 4 b5 b6 bb7', 'b5 bb7', 'Locrian diminished'],
    ],
  },
  {
    family: 'double harmonic',
    modesOf: 'double-harmonic',
    rows: [
      [
        'double-harmonic',
        'double harmonic',
        '1 b2 3 4 5 b6 7',
        'b2 7',
        'double harmonic major; Byzantine; Arabic; gypsy major',
      ],
      ['lydian-sharp-2-sharp-6', 'Lydian #2 #6', '1 #2 3 #4 5 #6 7', '#2 #6', 'double harmonic mode 2'],
      [
        'ultraphrygian',
        'Phrygian b4 bb7',
        '1 b2 b3 b4 5 b6 bb7',
        'b4 bb7',
        'ultra-Phrygian; double harmonic mode 3',
      ],
      [
        'hungarian-minor',
        'Hungarian minor',
        '1 2 b3 #4 5 b6 7',
        '#4 7',
        'harmonic minor #4; gypsy minor; double harmonic minor; Algerian',
      ],
      ['oriental', 'Oriental', '1 b2 3 4 b5 6 b7', 'b2 b5', 'Mixolydian b2 b5; double harmonic mode 5'],
      [
        'ionian-augmented-sharp-2',
        'Ionian augmented #2',
        '1 #2 3 4 #5 6 7',
        '#2 #5',
        'Ionian #2 #5; double harmonic mode 6',
      ],
      ['locrian-bb3-bb7', 'Locrian bb3 bb7', '1 b2 bb3 4 b5 b6 bb7', 'bb3 bb7', 'double harmonic mode 7'],
    ],
  },
  {
    family: 'other five-note',
    rows: [
      ['hirajoshi', 'Hirajoshi', '1 2 b3 5 b6', 'b3 b6', 'hira-joshi; koto tuning scale'],
      ['in-sen', 'In-sen', '1 b2 4 5 b7', 'b2 4', 'insen'],
      ['iwato', 'Iwato', '1 b2 4 b5 b7', 'b2 b5', 'Iwato pentatonic'],
      ['kumoi', 'Kumoi', '1 2 b3 5 6', 'b3 6', 'minor 6 pentatonic without the fourth; kumoi-joshi'],
      ['in', 'In', '1 b2 4 5 b6', 'b2 b6', 'Sakura pentatonic; miyako-bushi'],
      ['pelog', 'Pelog pentatonic', '1 b2 b3 5 b6', 'b2 b6', 'pelog approximation'],
      ['lydian-pentatonic', 'Lydian pentatonic', '1 3 #4 5 7', '#4 7', 'Chinese pentatonic'],
      ['dominant-pentatonic', 'dominant pentatonic', '1 2 3 5 b7', '3 b7', 'ninth pentatonic'],
      [
        'minor-six-pentatonic',
        'minor six pentatonic',
        '1 b3 4 5 6',
        'b3 6',
        'minor pentatonic 6; Dorian pentatonic',
      ],
      [
        'minor-flat-five-pentatonic',
        'minor flat five pentatonic',
        '1 b3 4 b5 b7',
        'b5',
        'Locrian pentatonic; half-diminished pentatonic',
      ],
    ],
  },
  {
    family: 'symmetric',
    rows: [
      ['whole-tone', 'whole tone', '1 2 3 #4 #5 b7', '#4 #5', 'whole-tone; augmented dominant'],
      [
        'diminished-whole-half',
        'diminished whole-half',
        '1 2 b3 4 b5 b6 6 7',
        'b5 6',
        'diminished; octatonic whole-half',
      ],
      [
        'diminished-half-whole',
        'diminished half-whole',
        '1 b2 b3 3 #4 5 6 b7',
        'b2 #4',
        'dominant diminished; octatonic half-whole; auxiliary diminished blues',
      ],
      ['augmented', 'augmented', '1 #2 3 5 #5 7', '#2 #5', 'hexatonic augmented'],
      ['tritone', 'tritone scale', '1 b2 3 b5 5 b7', 'b2 b5', 'two-triad tritone'],
      ['chromatic', 'chromatic', '1 b2 2 b3 3 4 b5 5 b6 6 b7 7', '', 'twelve-tone; half-step scale'],
    ],
  },
  {
    family: 'bebop',
    rows: [
      ['bebop-dominant', 'bebop dominant', '1 2 3 4 5 6 b7 7', 'b7 7', 'bebop; Mixolydian bebop'],
      ['bebop-major', 'bebop major', '1 2 3 4 5 #5 6 7', '#5', 'major bebop; sixth-diminished'],
      ['bebop-dorian', 'bebop Dorian', '1 2 b3 3 4 5 6 b7', 'b3 3', 'bebop minor; Dorian bebop'],
      [
        'bebop-melodic-minor',
        'bebop melodic minor',
        '1 2 b3 4 5 #5 6 7',
        'b3 #5',
        'melodic minor bebop; minor sixth-diminished',
      ],
      ['bebop-harmonic-minor', 'bebop harmonic minor', '1 2 b3 4 5 b6 b7 7', 'b6 7', 'harmonic minor bebop'],
    ],
  },
  {
    family: 'other',
    rows: [
      ['hungarian-major', 'Hungarian major', '1 #2 3 #4 5 6 b7', '#2 #4', 'Lydian dominant #2'],
      ['neapolitan-minor', 'Neapolitan minor', '1 b2 b3 4 5 b6 7', 'b2 7', 'Phrygian natural 7'],
      [
        'neapolitan-major',
        'Neapolitan major',
        '1 b2 b3 4 5 6 7',
        'b2 7',
        'Phrygian melodic; Dorian b2 natural 7',
      ],
      ['persian', 'Persian', '1 b2 3 4 b5 b6 7', 'b2 b5', 'Locrian natural 3 natural 7'],
      ['enigmatic', 'enigmatic', '1 b2 3 #4 #5 #6 7', '#5 #6', 'scala enigmatica'],
      ['prometheus', 'Prometheus', '1 2 3 #4 6 b7', '#4 b7', 'mystic scale'],
      ['lydian-minor', 'Lydian b6 b7', '1 2 3 #4 5 b6 b7', '#4 b6', 'major-minor Lydian'],
      ['major-locrian', 'major Locrian', '1 2 3 4 b5 b6 b7', '3 b5', 'Arabian; Locrian major'],
      [
        'leading-whole-tone',
        'leading whole tone',
        '1 2 3 #4 #5 #6 7',
        '#5 #6',
        'whole tone with a leading note',
      ],
    ],
  },
];
