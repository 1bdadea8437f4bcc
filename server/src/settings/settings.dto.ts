export class SettingDto {
  name: string;
  group: string;
  label: string;
  /** What it changes. */
  says: string;
  kind: string;
  value: string;
  standard: string;
  choices: string[];
  unit: string;
}
