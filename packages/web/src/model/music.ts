import { type Music } from '@crow-ladder/formats';
import { noteName, ok, pretty, refuse, type Result, scaleSaid } from '@crow-ladder/core';
import { CLIMBS } from '@crow-ladder/core/climbs';
import { usualOf } from '@crow-ladder/core/kinds';
import { QUARTER, type Route, type Run } from '@crow-ladder/core/run';
import { wayThrough } from '@crow-ladder/core/sources';
import { sourceWithAdded } from './added.ts';
import { climbingOf } from './climbing.ts';
import { clefOf, type Model } from './model.ts';
import { phraseHere, phraseId, phrasesOf } from './phrases.ts';
import { USUAL_BEATS } from './progression.ts';
import { sourceOfClimb } from './sources.ts';
import { struck } from './way.ts';

/** Something of a chart that can be written down as music. */
export interface Writable {
  readonly id: string;
  readonly name: string;
  readonly music: () => Result<Music>;
}

/** Quarter notes a minute where nothing says another tempo. */
const TEMPO = 80;

/** Where the bar ends in which a run does, in ticks; bars have so many quarter notes. */
export function barsUp(run: Run, beats: number): number {
  const bar = beats * QUARTER;
  const last = run.at(-1);
  return last ? Math.ceil((last.start + last.length) / bar) * bar : 0;
}

const musicFrom = (model: Model, title: string, run: Run, ticks: number, beats = USUAL_BEATS): Music => {
  const { instrument } = model.state;
  return {
    title,
    run,
    ticks,
    neck: model.neck,
    capo: instrument.capo,
    key: model.key,
    beats,
    tempo: TEMPO,
    clef: clefOf(model),
  };
};

/** What of a chart can be written down: the position in front up and down, every position in turn, its climbs, its phrases. */
export function writables(model: Model): readonly Writable[] {
  const { front, positions, state } = model;
  const key = `${pretty(noteName(model.key.root))} ${scaleSaid(model.scale)}`;
  const all = positions.ok ? positions.value : [];
  const climbing = climbingOf(model);
  const inEighths = (title: string, route: Route): Result<Music> => {
    const done = struck(model, route, 'picked');
    if (!done.ok) return done;
    const { run } = done.value;
    return run.length
      ? ok(musicFrom(model, title, run, barsUp(run, USUAL_BEATS)))
      : refuse('music.none', 'There is no note to write down.');
  };
  const upAndDown = (index: number): Route => wayThrough(sourceWithAdded(model, all[index]!), 'both');
  const at = front?.position.index;
  return [
    ...(at === undefined
      ? []
      : [
          {
            id: 'position',
            name: `${model.names()[at]!}, up and down`,
            music: () => inEighths(`${key}: ${model.names()[at]!}`, upAndDown(at)),
          },
        ]),
    ...(all.length
      ? [
          {
            id: 'ladder',
            name: 'every position in turn',
            music: () =>
              inEighths(
                `${key}: every position`,
                all.flatMap((_, i) => upAndDown(i)),
              ),
          },
        ]
      : []),
    ...(climbing
      ? CLIMBS.all().map((climb) => ({
          id: `climb.${climb.kind}`,
          name: `the climb ${climb.name}`,
          music: () => {
            const source = sourceOfClimb(model, usualOf(climb, climbing));
            return source.ok
              ? inEighths(`${key}: the climb ${climb.name}`, wayThrough(source.value, 'both'))
              : source;
          },
        }))
      : []),
    ...phrasesOf(state).map(({ phrase }) => ({
      id: phraseId(phrase.name),
      name: `the phrase “${phrase.name}”`,
      music: (): Result<Music> => {
        const { way } = phraseHere(model, phrase);
        return way.run.length
          ? ok(musicFrom(model, phrase.name, way.run, way.ticks, phrase.beats))
          : refuse('music.none', 'This phrase has no note that lies on this neck.');
      },
    })),
  ];
}
