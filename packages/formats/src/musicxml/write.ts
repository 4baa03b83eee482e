import { midiName, note, type Note } from '@crow-ladder/core';
import {
  alteredBy,
  isMinor,
  type Bar,
  type Pitch,
  type Score,
  type ScoreItem,
  scoreOf,
} from '@crow-ladder/core/notation';
import { QUARTER, type Run, type Step } from '@crow-ladder/core/run';
import { bytesOf } from '../bytes.ts';
import { type Music, type Written } from '../format.ts';

const TYPES: Readonly<Record<ScoreItem['value'], string>> = {
  1: 'whole',
  2: 'half',
  4: 'quarter',
  8: 'eighth',
  16: '16th',
  32: '32nd',
};
const ACCIDENTALS: Readonly<Record<number, string>> = {
  [-2]: 'flat-flat',
  [-1]: 'flat',
  0: 'natural',
  1: 'sharp',
  2: 'double-sharp',
};
/** A slow bend is there after so much of the note, in percent (as it sounds here). */
export const SLOW_BEND = 37.5;
/** The voices of the two staves. */
const VOICES = { 1: 1, 2: 5 } as const;

const escaped = (text: string): string =>
  // What XML 1.0 cannot hold is left out.
  text
    .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/gu, '')
    .replace(/&/gu, '&amp;')
    .replace(/</gu, '&lt;')
    .replace(/>/gu, '&gt;')
    .replace(/"/gu, '&quot;');

/** One element after the other, each in its own line where it is not empty. */
const lines = (...parts: readonly string[]): string => parts.filter(Boolean).join('\n');
const tag = (name: string, text: string | number): string => `<${name}>${text}</${name}>`;

/** What is looked up for a note while it is written. */
interface Around {
  readonly run: Run;
  readonly score: Score;
  readonly bar: Bar;
  readonly nth: number;
}

const isJoin = (step: Step | undefined, ...ways: readonly Step['arrive'][]): boolean =>
  step !== undefined && ways.includes(step.arrive);

/** What `h`, `p` and a slide are called, and their texts. */
const JOINS = [
  { arrive: 'hammer', name: 'hammer-on', text: 'H' },
  { arrive: 'pull', name: 'pull-off', text: 'P' },
] as const;

/** String, fret, finger, and how the note is struck and bent. */
function technical(run: Run, i: number): string {
  const { spot, finger, arrive, bend } = run[i]!;
  const joins = JOINS.flatMap(({ arrive: way, name, text }) => [
    isJoin(run[i], way) ? `<${name} number="1" type="stop"/>` : '',
    isJoin(run[i + 1], way) ? `<${name} number="1" type="start">${text}</${name}>` : '',
  ]);
  const sound = bend?.how === 'slowly' ? ` first-beat="0" last-beat="${SLOW_BEND}"` : '';
  return lines(
    ...joins,
    finger >= 1 && finger <= 4 ? tag('fingering', finger) : '',
    arrive === 'tap' ? '<tap/>' : '',
    tag('string', spot.string),
    tag('fret', spot.fret),
    bend ? `<bend${sound}>${tag('bend-alter', bend.by)}</bend>` : '',
    bend?.released ? `<bend>${tag('bend-alter', -bend.by)}<release/></bend>` : '',
  );
}

/** What stands around a note: ties, tuplets, slurs, slides, accents, and in tablature how it is played. */
function notations(
  item: ScoreItem,
  place: number,
  tied: boolean,
  isTab: boolean,
  { run, bar }: Around,
): string {
  const i = item.step;
  const step = i === null ? null : run[i]!;
  const starts = bar.tuplets.some(({ from }) => from === place);
  const ends = bar.tuplets.some(({ to }) => to === place);
  const slides = step && i !== null && item.first;
  const all = lines(
    i !== null && !item.first ? '<tied type="stop"/>' : '',
    tied ? '<tied type="start"/>' : '',
    starts ? '<tuplet number="1" type="start"/>' : '',
    ends ? '<tuplet number="1" type="stop"/>' : '',
    ...(slides
      ? [
          isJoin(run[i], 'slide') ? '<slide number="1" line-type="solid" type="stop"/>' : '',
          isJoin(run[i + 1], 'slide') ? '<slide number="1" line-type="solid" type="start"/>' : '',
          !isTab && isJoin(run[i], 'hammer', 'pull') && !isJoin(run[i + 1], 'hammer', 'pull')
            ? '<slur number="1" type="stop"/>'
            : '',
          !isTab && !isJoin(run[i], 'hammer', 'pull') && isJoin(run[i + 1], 'hammer', 'pull')
            ? '<slur number="1" type="start"/>'
            : '',
          step.vibrato
            ? '<ornaments><wavy-line number="1" type="start"/><wavy-line number="1" type="stop"/></ornaments>'
            : '',
          isTab ? `<technical>\n${technical(run, i)}\n</technical>` : '',
          !isTab && step.accent ? '<articulations><accent/></articulations>' : '',
        ]
      : []),
  );
  return all && `<notations>\n${all}\n</notations>`;
}

/** The beams of an item at each level: eighths one, sixteenths two. */
function beams(place: number, { items, beams: groups }: Bar): string {
  const group = groups.find((it) => it.includes(place));
  if (!group) return '';
  const at = group.indexOf(place);
  const has = (k: number, level: number): boolean =>
    group[k] !== undefined && items[group[k]!]!.value >= 4 * 2 ** level;
  return lines(
    ...[1, 2, 3].map((level) => {
      if (!has(at, level)) return '';
      const [left, right] = [has(at - 1, level), has(at + 1, level)];
      const hook = at === 0 ? 'forward hook' : 'backward hook';
      const way = left && right ? 'continue' : left ? 'end' : right ? 'begin' : hook;
      return `<beam number="${level}">${way}</beam>`;
    }),
  );
}

/** A sign is written where the signature and the bar so far do not say it already. */
function sign({ note, octave }: Pitch, signature: number, told: Map<string, number>): string {
  const key = `${note.letter}${octave}`;
  const before = told.get(key) ?? alteredBy(signature, note.letter);
  told.set(key, note.alteration);
  return before === note.alteration ? '' : tag('accidental', ACCIDENTALS[note.alteration]!);
}

const pitchText = ({ letter, alteration }: Note, octave: number): string =>
  `<pitch>${tag('step', letter)}${alteration ? tag('alter', alteration) : ''}${tag('octave', octave)}</pitch>`;

function noteText(
  item: ScoreItem,
  place: number,
  staff: 1 | 2,
  told: Map<string, number>,
  around: Around,
): string {
  const { score, bar, nth } = around;
  const { pitch, step, first, value, dotted, length } = item;
  const next = bar.items[place + 1] ?? score.bars[nth + 1]?.items[0];
  const tied = step !== null && next?.step === step && !next.first;
  const tuplet = bar.tuplets.find(({ from, to }) => from <= place && place <= to);
  return lines(
    '<note>',
    pitch ? pitchText(pitch.note, pitch.octave) : '<rest/>',
    tag('duration', length),
    step !== null && !first ? '<tie type="stop"/>' : '',
    tied ? '<tie type="start"/>' : '',
    tag('voice', VOICES[staff]),
    tag('type', TYPES[value]),
    dotted ? '<dot/>' : '',
    pitch && staff === 1 && first ? sign(pitch, score.signature, told) : '',
    tuplet
      ? `<time-modification>${tag('actual-notes', tuplet.actual)}${tag('normal-notes', tuplet.normal)}</time-modification>`
      : '',
    tag('staff', staff),
    staff === 1 && pitch ? beams(place, bar) : '',
    notations(item, place, tied, staff === 2, around),
    '</note>',
  );
}

/** An octave sign over the staff begins or ends. */
const octaves = (shift: number, type: 'start' | 'stop'): string => {
  const way = type === 'stop' ? 'stop' : shift > 0 ? 'down' : 'up';
  return `<direction><direction-type><octave-shift type="${way}" size="${Math.abs(shift) === 2 ? 15 : 8}"/></direction-type><staff>1</staff></direction>`;
};

/** The notes of a bar on the staff, with the octave signs over them. */
function staffText(around: Around): string {
  const { score, bar } = around;
  const told = new Map<string, number>();
  const all = score.bars.flatMap(({ items }) => items).filter(({ step }) => step !== null);
  return lines(
    ...bar.items.flatMap((item, place) => {
      if (item.step === null) return [noteText(item, place, 1, told, around)];
      const at = all.indexOf(item);
      const [before, after] = [all[at - 1]?.shift ?? 0, all[at + 1]?.shift ?? 0];
      return [
        item.shift && item.shift !== before ? octaves(item.shift, 'start') : '',
        noteText(item, place, 1, told, around),
        item.shift && item.shift !== after ? octaves(item.shift, 'stop') : '',
      ];
    }),
  );
}

/** The strings of the tablature staff, the lowest line first. */
function tuning({ neck, capo }: Music): string {
  const open = [...neck.open].reverse().map((midi) => midi - capo);
  return lines(
    '<staff-details number="2">',
    tag('staff-lines', open.length),
    ...open.map((midi, i) => {
      const [, name, octave] = /^(.*?)(-?\d+)$/u.exec(midiName(midi))!;
      const { letter, alteration } = note(name!);
      return `<staff-tuning line="${i + 1}">${tag('tuning-step', letter)}${alteration ? tag('tuning-alter', alteration) : ''}${tag('tuning-octave', octave!)}</staff-tuning>`;
    }),
    capo ? tag('capo', capo) : '',
    '</staff-details>',
  );
}

function attributes(music: Music, { signature, clef, beats }: Score): string {
  return lines(
    '<attributes>',
    tag('divisions', QUARTER),
    `<key>${tag('fifths', signature)}${tag('mode', isMinor(music.key) ? 'minor' : 'major')}</key>`,
    `<time>${tag('beats', beats)}${tag('beat-type', 4)}</time>`,
    tag('staves', 2),
    clef === 'treble'
      ? '<clef number="1"><sign>G</sign><line>2</line></clef>'
      : '<clef number="1"><sign>F</sign><line>4</line></clef>',
    '<clef number="2"><sign>TAB</sign><line>5</line></clef>',
    tuning(music),
    // Guitars and basses sound an octave lower than they are written.
    '<transpose><diatonic>0</diatonic><chromatic>0</chromatic><octave-change>-1</octave-change></transpose>',
    '</attributes>',
  );
}

const tempoText = (tempo: number): string =>
  `<direction placement="above"><direction-type><metronome>${tag('beat-unit', 'quarter')}${tag('per-minute', tempo)}</metronome></direction-type><staff>1</staff><sound tempo="${tempo}"/></direction>`;

/** Music as MusicXML 4.0 (W3C Community Group report, 2021): a staff and a tablature of one part. */
export function writeMusicXml(music: Music): Written {
  const { title, run, ticks, key, beats, tempo, clef } = music;
  const score = scoreOf(run, key, { beats, until: ticks, usual: clef });
  const bars = score.bars.map((bar, nth) => {
    const around: Around = { run, score, bar, nth };
    return lines(
      `<measure number="${nth + 1}">`,
      nth === 0 ? attributes(music, score) : '',
      nth === 0 ? tempoText(tempo) : '',
      staffText(around),
      `<backup>${tag('duration', beats * QUARTER)}</backup>`,
      ...bar.items.map((item, place) => noteText(item, place, 2, new Map(), around)),
      nth === score.bars.length - 1
        ? '<barline location="right"><bar-style>light-heavy</bar-style></barline>'
        : '',
      '</measure>',
    );
  });
  const text = lines(
    '<?xml version="1.0" encoding="UTF-8" standalone="no"?>',
    '<score-partwise version="4.0">',
    `<work>${tag('work-title', escaped(title))}</work>`,
    '<identification><encoding><supports element="accidental" type="yes"/></encoding></identification>',
    `<part-list>\n<score-part id="P1">${tag('part-name', clef === 'bass' ? 'Bass' : 'Guitar')}</score-part>\n</part-list>`,
    '<part id="P1">',
    ...bars,
    '</part>',
    '</score-partwise>',
    '',
  );
  return {
    bytes: bytesOf(`${text}\n`),
    lost: run.some(({ vibrato }) => vibrato)
      ? ['How deep and fast a vibrato is is not in MusicXML: a wavy line stands for it.']
      : [],
  };
}
