export const STATE_WORDS: Readonly<Record<string, string>> = {
  waiting: 'waits for a picker',
  picking: 'under way',
  'set-down': 'set down',
  done: 'done',
};
