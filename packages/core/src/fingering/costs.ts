/**
 * Costs of a fingering, in "notes of trouble": 1 is roughly what moving the hand to the next fret between two strings costs.
 * The weights are this project's own judgement, set so that the groups that players
 * memorise come out (1 2 4, 1 3 4, 1 3 stretch 4); choosing a fingering as the cheapest path is Sayegh's
 * optimum path paradigm (Computer Music Journal 13(3), 1989, cited from memory).
 */
export const COST = {
  /** The hand leaves its position: the eye or the ear has to find the next one. */
  shift: 0.9,
  /** Each fret that the hand travels. */
  shiftPerFret: 0.35,
  /** Changing place between two different fingers on one string: closing the hand up and opening it further on. */
  closeUp: 1.2,
  /** Sliding on the finger just used: the string guides the hand, so it costs less than a jump. */
  slide: 1.3,
  /** A slide on the third note of a group is where players put it. */
  slideOnThird: -0.3,
  /** The little finger has the least strength to keep a sliding note alive. */
  slideOnLittle: 0.4,
  /** Sliding is the normal way of travelling for players of the index and ring school. */
  slideForSliders: 0.5,
  /** Upward, the index finger leads to a new place; downward, the last finger does. Arriving with the other end is awkward. */
  wrongLead: 0.4,
  /** Index finger one fret back. */
  indexBack: 0.9,
  /** Little finger one fret forward; a little easier than the index finger back, as the hand opens that way. */
  littleForward: 0.8,
  /** Ring finger one fret forward, where three fingers do the work of four. */
  ringForward: 0.6,
  /** Each mm by which a stretch exceeds the player's comfortable span. */
  perMmOver: 0.08,
  /** The same finger rolled to the next string at the same fret. */
  roll: 0.5,
  /** The same finger lifted to a string that is not a neighbour. */
  hop: 0.8,
  /** The weaker fingers, per note. */
  ring: 0.02,
  little: 0.06,
  /** The middle finger where a school prefers index and ring. */
  middleForSliders: 0.4,
} as const;

/** What a player spans without strain between index and little finger, in mm, unless they say otherwise. */
export const COMFORTABLE_SPAN_MM = 110;
