import type { FloorCommand, FloorCommandKind } from './commands.js';

/** What may be done with a command that came too late: ask once more, let it go, or book the goods in apart. */
export const QUESTION_ANSWERS = ['again', 'let-go', 'apart'] as const;
export type QuestionAnswer = (typeof QUESTION_ANSWERS)[number];

/** Why letting go is right, in the words of whoever stands there with the goods; null where nothing was done with goods or papers. */
const LEFT: Readonly<Record<FloorCommandKind, string | null>> = {
  receive: 'The goods are not booked in. Set them apart, or ask the office',
  'receive-pallet': 'The pallet is not booked in. Scan the goods on it, or ask the office',
  'receive-whole': 'The delivery is not booked in. Count its lines, or ask the office',
  tie: 'The code stays unknown',
  'close-arrival': 'The arrival stays open',
  check: 'The check stays open',
  judge: 'The goods still wait to be looked at',
  store: 'Take the goods back to where they stood',
  'count-spot': 'The bin is still to be counted',
  'report-spot': 'Look into the bin again',
  tally: 'The goods are still to be counted, where their count is open',
  move: 'Take the goods back to where they lay',
  issue: 'The goods stay in the books. Put them back, or ask the office',
  condition: 'The goods are as the books had them',
  gather: 'Put the goods back into their bin',
  'send-off': 'It is not on the road in the books. Stop the van, or ask the office',
  'take-in': 'The goods are not booked in. Keep them with their paper, and scan them again',
  'parcel-here': 'Look whether the parcel is at the dock, and scan it again',
  'take-in-close': 'The transfer stays open',
  'tally-bin': 'The bin is still to be counted, where its count is open',
  'tally-code': 'Nobody is told of the code',
  take: null,
  help: null,
  cart: null,
  tote: null,
  pick: 'Put the goods back into their bin',
  short: 'Look into the bin again',
  'set-down': 'The tote is not set down',
  sort: 'Put the goods back into their tote',
  'sort-missing': 'Look into the totes again',
  pack: 'Take the goods out of the parcel',
  'pack-all': 'Take the goods out of the parcel',
  'pack-kit': 'Take the goods out of the parcel',
  'leave-out': 'The insert still goes along. Pack it, or leave it out again',
  'note-seen': 'The note waits to be read',
  'close-parcel': 'The parcel stays open',
  'open-parcel': 'The parcel stays closed',
  'serial-out': 'The number still stands for a piece in the parcel. Look which one came out',
  repack: 'The goods stay in the parcel that they were in',
  park: null,
  load: 'Take the parcel off the van, back into its lane',
  unload: 'The parcel stays on the van',
  'hand-over': 'The parcels are not handed over. Stop the van, or ask the office',
  'come-back': 'The goods are not taken back. Keep them apart with their paper, and scan it again',
  refused: null,
};

/** What letting a command go means for the goods. */
export const letGoWords = (kind: FloorCommandKind): string | null => LEFT[kind];

/** Whether somebody must say what becomes of a command that came too late; the others are let go of by themselves. */
export const wantsAnAnswer = (kind: FloorCommandKind): boolean => LEFT[kind] !== null;

/** The answers that a late command can be given. */
export function answersFor(command: FloorCommand): readonly QuestionAnswer[] {
  switch (command.kind) {
    case 'receive':
      return command.as === 'apart' ? ['again', 'let-go'] : ['again', 'apart', 'let-go'];
    default:
      return ['again', 'let-go'];
  }
}

/**
 * The command that an answer leads to, under an id of its own; null where nothing is booked. What is set apart counts on no
 * line: it was more than there was room for, or its order is over.
 */
export function commandAfter(command: FloorCommand, answer: QuestionAnswer, id: string): FloorCommand | null {
  switch (answer) {
    case 'let-go':
      return null;
    case 'again':
      return { ...command, id };
    case 'apart':
      return command.kind === 'receive' ? { ...command, id, lineId: null, as: 'apart', reason: 'too many' } : null;
  }
}
