/** The answers that a key stands for: a letter those of that note, a figure those of that degree, string, finger or first of several. */
export const answersAt = (answers: readonly string[], key: string): readonly string[] =>
  /^[a-g1-9]$/i.test(key)
    ? answers.filter((a) =>
        a
          .replace(/[♭♯𝄫𝄪]/gu, '')
          .replace(/^(between )?strings? /, '')
          .toUpperCase()
          .startsWith(key.toUpperCase()),
      )
    : [];
