const STATE_WORDS: Readonly<Record<string, string>> = {
  waiting: 'waits for a picker',
  picking: 'under way',
  'set-down': 'set down',
  done: 'done',
};

/** How far a round is, in words. */
export const stateOf = ({ state, pooled }: { state: string; pooled: boolean }): string =>
  state === 'set-down' && pooled ? 'at the wall' : (STATE_WORDS[state] ?? state);
