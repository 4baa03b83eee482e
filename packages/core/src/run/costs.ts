/**
 * Costs of a fingering, in "notes of trouble": 1 is roughly a slide to the next fret. The weights are this project's own
 * judgement, set so that the fingerings that players memorise come out (1 2 4, 1 3 4, 1 3 stretch 4, 1 3 s3 4); choosing a
 * fingering as the cheapest path is Sayegh's optimum path paradigm (Computer Music Journal 13(3), 1989, cited from memory).
 */
export const COST = {
  /** The hand moves at a string change, to a note that it could already reach. */
  shift: 0.6,
  /** The note that it moves to lay outside the hand: the eye or the ear has to find it. */
  aim: 0.3,
  /** Each fret that the hand travels. */
  perFret: 0.1,
  /** Changing place between two different fingers on one string: closing the hand up and opening it further on. */
  closeUp: 1.0,
  /** Sliding on the finger just used. It costs more than a shift at a string change. */
  slide: 1.8,
  /** A slide on the third note of a group, or coming down on its last, is where players put it. */
  slideOnThird: -0.9,
  /** The little finger has the least strength to keep a sliding note alive. */
  slideOnLittle: 0.4,
  /** Sliding is the normal way of travelling for players of the index and ring school. */
  slideForSliders: -0.45,
  /** Upward, the index finger leads to a new place; downward, the last finger does. Arriving with the other end is awkward. */
  wrongLead: 0.4,
  /** Index finger one fret back, where the hand covers 100 mm: a stretch costs more low on the neck than high up. */
  indexBack: 1.5,
  /** Little finger one fret forward; easier than the index finger back, as the hand opens that way. */
  littleForward: 1.0,
  /** Ring finger one fret forward, where three fingers do the work of four. */
  ringForward: 0.7,
  /** Each mm by which a stretch exceeds the player's comfortable span. */
  perMmOver: 0.02,
  /** The same finger rolled to the next string at the same fret. */
  roll: 0.5,
  /** The same finger lifted to a string that is not a neighbour. */
  hop: 0.8,
  /** The weaker fingers, per note. */
  ring: 0.02,
  little: 0.06,
  /** The middle finger where a school prefers index and ring. */
  middleForSliders: 0.4,
  /** What no teacher lets pass where there is another way. */
  never: 9,
  /** A slide after a slide on the same finger. */
  slideAgain: 9,
  /** Each note fingered otherwise than in the group before with the same steps: what repeats is remembered. */
  unlike: 0.3,
} as const;

/** Of a stretch's cost, what does not depend on its width, and what each mm adds; 100 mm make the whole. */
export const STRETCH = { least: 0.6, perMm: 0.004 } as const;

/** What a player spans without strain between index and little finger, in mm, unless they say otherwise. */
export const COMFORTABLE_SPAN_MM = 110;
