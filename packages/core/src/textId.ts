/** FNV-1a (Fowler, Noll, Vo), 32 bits, from a beginning. */
function hash(text: string, from: number): string {
  let h = from;
  for (let i = 0; i < text.length; i++) h = Math.imul(h ^ text.charCodeAt(i), 16_777_619);
  return (h >>> 0).toString(36).padStart(7, '0');
}
/**
 * An id of 14 letters and digits for a text: the same one for the same text.
 *
 * @example textId('dorian').length // 14
 */
export const textId = (text: string): string => hash(text, 2_166_136_261) + hash(text, 3_735_928_559);
