import { JSONParser } from '@streamparser/json';

type Value = Parameters<JSONParser['onValue']>[0];

/** What reads JSON as it comes. */
export interface Reader {
  /** Takes more bytes, cut anywhere. False from where on this is no JSON. */
  readonly write: (bytes: Uint8Array) => boolean;
  /** Whether all of it was read. */
  readonly isEnded: () => boolean;
}

/** Reads JSON as it comes and tells of the values at some paths. A mark of byte order before it is passed over. */
export function readerOf(paths: readonly string[], told: (value: Value) => void): Reader {
  const parser = new JSONParser({ paths: [...paths], keepStack: false });
  let isRight = true;
  parser.onValue = told;
  parser.onError = () => (isRight = false);
  // Its own decoder takes such marks out of texts as well, wherever a piece of one begins. The parser is pinned, as this reaches into it.
  const within = parser as unknown as {
    readonly tokenizer: { readonly bufferedString: { decoder: unknown } };
  };
  within.tokenizer.bufferedString.decoder = new TextDecoder('utf-8', { fatal: true, ignoreBOM: true });
  return {
    write: (bytes) => {
      if (isRight) parser.write(bytes);
      return isRight;
    },
    isEnded: () => isRight && parser.isEnded,
  };
}
