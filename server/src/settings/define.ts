export interface SettingBase {
  group: 'Company' | 'Buying' | 'Receiving' | 'Counting' | 'Picking and packing' | 'Items' | 'What is kept';
  label: string;
  /** What it changes, in a sentence. */
  says: string;
}
export type SettingKind =
  | { kind: 'text'; most: number; default: string }
  | { kind: 'whole'; least: number; most: number; unit: string; default: number }
  | { kind: 'yes-no'; default: boolean }
  | { kind: 'choice'; choices: readonly string[]; default: string };

/** Keeps the type of each setting as it is written. */
export const define = <T extends Record<string, SettingBase & SettingKind>>(all: T) => all;
