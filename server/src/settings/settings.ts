import { COMPANY_SETTINGS } from './company-settings.js';
import type { SettingBase, SettingKind } from './define.js';
import { WORK_SETTINGS } from './work-settings.js';

export type { SettingKind } from './define.js';

/** Every choice that a company can make, with what it changes. */
export const SETTINGS = { ...COMPANY_SETTINGS, ...WORK_SETTINGS };

export type SettingName = keyof typeof SETTINGS;
type Widen<T> = T extends string ? string : T extends number ? number : T extends boolean ? boolean : never;
export type SettingValue<N extends SettingName> = Widen<(typeof SETTINGS)[N]['default']>;

/** What is wrong with a value for a setting, in words; null where it can be kept. */
export function settingFault(name: SettingName, value: unknown): string | null {
  const setting: SettingBase & SettingKind = SETTINGS[name];
  switch (setting.kind) {
    case 'text':
      return typeof value === 'string' && value.length <= setting.most
        ? null
        : `${setting.label}: text of up to ${setting.most} characters`;
    case 'whole':
      return Number.isInteger(value) && (value as number) >= setting.least && (value as number) <= setting.most
        ? null
        : `${setting.label}: a whole number from ${setting.least} to ${setting.most}`;
    case 'yes-no':
      return typeof value === 'boolean' ? null : `${setting.label}: yes or no`;
    case 'choice':
      return typeof value === 'string' && setting.choices.includes(value) ? null : `${setting.label}: one of ${setting.choices.join(', ')}`;
  }
}
