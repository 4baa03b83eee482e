import { FILE_LIMITS } from '@crow-ladder/formats/named';
import { useEffect, useRef, useState } from 'react';
import { type Given } from '../workers/opened.ts';

/** A file as it is handed to the reader; one that is too big is not taken into memory. */
export const givenBy = async (file: File): Promise<Given> => ({
  name: file.name,
  bytes: new Uint8Array(await file.slice(0, FILE_LIMITS.bytes).arrayBuffer()),
  size: file.size,
});
/** Text that was pasted, as it is handed to the reader. */
export function givenText(text: string): Given {
  const bytes = new TextEncoder().encode(text);
  return { name: 'pasted.txt', bytes, size: bytes.length };
}

const hasFiles = (e: DragEvent): boolean => e.dataTransfer?.types.includes('Files') ?? false;
const isTyped = (at: EventTarget | null): boolean =>
  at instanceof HTMLElement && at.closest('input, textarea, [contenteditable="true"]') !== null;
/** Whether pasted text looks like music: several lines of tablature, a tune or a score. */
const isMusic = (text: string): boolean =>
  /<score-(?:partwise|timewise)/u.test(text) ||
  (/^X:\s*\d/mu.test(text) && /^K:/mu.test(text)) ||
  (text.match(/^.{0,4}[|:\-–—][-–—\dhpbrstx/\\~|:()\s]{6,}$/gimu)?.length ?? 0) >= 3;

/** Files that are dropped anywhere on the page, or pasted where nothing is typed; whether one is being dragged over it. */
export function useGiven(onGiven: (given: Given) => void): boolean {
  const [over, setOver] = useState(false);
  const told = useRef(onGiven);
  useEffect(() => {
    told.current = onGiven;
  });
  useEffect(() => {
    const take = (file: File | undefined): void => {
      if (file) void givenBy(file).then((given) => told.current(given));
    };
    const dragged = (e: DragEvent): void => {
      if (!hasFiles(e)) return;
      e.preventDefault();
      setOver(true);
    };
    const left = (e: DragEvent): void => {
      if (!e.relatedTarget) setOver(false);
    };
    const dropped = (e: DragEvent): void => {
      if (!hasFiles(e)) return;
      e.preventDefault();
      setOver(false);
      take(e.dataTransfer?.files[0]);
    };
    const pasted = (e: ClipboardEvent): void => {
      if (isTyped(e.target)) return;
      const file = e.clipboardData?.files[0];
      const text = e.clipboardData?.getData('text/plain') ?? '';
      if (file) take(file);
      else if (isMusic(text)) told.current(givenText(text));
      else return;
      e.preventDefault();
    };
    window.addEventListener('dragover', dragged);
    window.addEventListener('dragleave', left);
    window.addEventListener('drop', dropped);
    window.addEventListener('paste', pasted);
    return () => {
      window.removeEventListener('dragover', dragged);
      window.removeEventListener('dragleave', left);
      window.removeEventListener('drop', dropped);
      window.removeEventListener('paste', pasted);
    };
  }, []);
  return over;
}
