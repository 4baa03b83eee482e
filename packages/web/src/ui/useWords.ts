import { useSearchParams } from 'react-router';

/** The words of the address, a way to put another one in place of one, of which an empty one goes, and one that takes all of them away. */
export function useWords(): readonly [
  words: URLSearchParams,
  put: (name: string, value: string | null) => void,
  clear: () => void,
] {
  const [words, setWords] = useSearchParams();
  const put = (name: string, value: string | null): void =>
    setWords(
      (q) => {
        if (value) q.set(name, value);
        else q.delete(name);
        return q;
      },
      { replace: true },
    );
  return [words, put, () => setWords({}, { replace: true })];
}
