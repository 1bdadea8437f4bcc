/** The choices of a list as they are typed, a comma between, each once. */
export const choicesOf = (typed: string): string[] => [
  ...new Set(
    typed
      .split(',')
      .map((c) => c.trim())
      .filter(Boolean),
  ),
];
