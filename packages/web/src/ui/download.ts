/** Gives the player a file. */
export function download(name: string, data: Blob): void {
  const url = URL.createObjectURL(data);
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  // The browser still reads it for a moment.
  setTimeout(() => URL.revokeObjectURL(url), 1000);
}

/** A name as a file can bear it: "Slow Bow Door" → "slow-bow-door". */
export const fileName = (name: string): string =>
  name
    .toLowerCase()
    .replace(/♯/g, '-sharp')
    .replace(/♭/g, '-flat')
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-+|-+$/g, '') || 'chart';
