import { fretText, type Key, layOut, type LayoutSpec, mod, type Neck, spotsOf, LAYOUTS } from './core.ts';

/** What every result has to keep, whatever the scale, tuning and layout. */
export function keepsPromises(neck: Neck, k: Key, spec: LayoutSpec): void {
  const result = layOut(neck, k, spec);
  if (!result.ok) {
    if (result.error.message.length < 20) throw new Error('unexplained');
    return;
  }
  const pcs = new Set(spotsOf(neck, k).map((s) => mod(s.midi, 12)));
  for (const p of result.value) {
    const where = (): string => `${k.scale.id} ${JSON.stringify(spec)} ${neck.open.join()} ${fretText(p)}`;
    for (const s of p.spots) {
      if (s.fret < 0 || s.fret > neck.frets || s.midi !== neck.open[s.string - 1]! + s.fret)
        throw new Error(`off the neck: ${where()}`);
      if (!s.altered && !pcs.has(mod(s.midi, 12))) throw new Error(`outside the scale: ${where()}`);
    }
    if (!LAYOUTS.for(spec).complete) continue;
    const pitches = p.spots.map((s) => s.midi).sort((a, b) => a - b);
    for (let i = 1; i < pitches.length; i++) {
      if (pitches[i] === pitches[i - 1]) throw new Error(`a pitch twice: ${where()}`);
      for (let m = pitches[i - 1]! + 1; m < pitches[i]!; m++)
        if (pcs.has(mod(m, 12))) throw new Error(`a pitch is missing: ${where()}`);
    }
  }
}
