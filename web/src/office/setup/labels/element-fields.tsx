import { LABEL_FIELDS, type LabelElement, type LabelSubject, type Media, type Symbology } from '@vectrum/core/labels';
import { Field } from '../../../ui/field';
import { Input, Select } from '../../../ui/input';
import { TextButton } from '../../../ui/button';

const SYMBOLOGIES: readonly (readonly [Symbology, string])[] = [
  ['code-128', 'Code 128'],
  ['gs1-128', 'GS1-128'],
  ['ean', 'EAN'],
  ['data-matrix', 'Data Matrix'],
  ['qr', 'QR'],
];

/** The chosen element in figures and words. */
export function ElementFields({
  element: e,
  subject,
  onChange,
  onTakeOut,
}: {
  element: LabelElement;
  subject: LabelSubject;
  onChange: (e: LabelElement) => void;
  onTakeOut: () => void;
}) {
  const mm = (key: 'xMm' | 'yMm' | 'wMm' | 'hMm', label: string) => (
    <Field label={label}>
      <Input
        className="num"
        type="number"
        step={0.5}
        value={e[key]}
        onChange={(ev) => onChange({ ...e, [key]: Number(ev.target.value) })}
      />
    </Field>
  );
  const words = (text: string, set: (t: string) => LabelElement) => (
    <>
      <Field label="Shows; fields stand in braces">
        <Input className="code" value={text} onChange={(ev) => onChange(set(ev.target.value))} />
      </Field>
      <Field label="Put a field in">
        <Select value="" onChange={(ev) => ev.target.value && onChange(set(`${text}{${ev.target.value}}`))}>
          <option value="">choose one</option>
          {LABEL_FIELDS[subject].map((f) => (
            <option key={f.key} value={f.key}>
              {f.says}, like {f.sample}
            </option>
          ))}
        </Select>
      </Field>
    </>
  );
  return (
    <fieldset className="flex flex-col gap-3">
      <div className="grid grid-cols-4 gap-2">
        {mm('xMm', 'X, mm')}
        {mm('yMm', 'Y')}
        {mm('wMm', 'Wide')}
        {mm('hMm', 'High')}
      </div>
      {e.kind === 'text' && (
        <>
          {words(e.text, (text) => ({ ...e, text }))}
          <div className="flex gap-4 items-end">
            <Field label="Stands">
              <Select value={e.align} onChange={(ev) => onChange({ ...e, align: ev.target.value as typeof e.align })}>
                <option value="left">left</option>
                <option value="centre">in the middle</option>
                <option value="right">right</option>
              </Select>
            </Field>
            <label className="h-[30px] flex gap-2 items-center">
              <input type="checkbox" checked={e.bold} onChange={(ev) => onChange({ ...e, bold: ev.target.checked })} /> bold
            </label>
            <label className="h-[30px] flex gap-2 items-center">
              <input type="checkbox" checked={e.mono} onChange={(ev) => onChange({ ...e, mono: ev.target.checked })} /> as a code
            </label>
          </div>
        </>
      )}
      {e.kind === 'barcode' && (
        <>
          {words(e.value, (value) => ({ ...e, value }))}
          <div className="flex gap-4 items-end">
            <Field label="Symbology">
              <Select value={e.symbology} onChange={(ev) => onChange({ ...e, symbology: ev.target.value as Symbology })}>
                {SYMBOLOGIES.map(([s, says]) => (
                  <option key={s} value={s}>
                    {says}
                  </option>
                ))}
              </Select>
            </Field>
            <label className="h-[30px] flex gap-2 items-center">
              <input type="checkbox" checked={e.withText} onChange={(ev) => onChange({ ...e, withText: ev.target.checked })} /> its text
              beneath
            </label>
          </div>
        </>
      )}
      {e.kind === 'arrow' && (
        <Field label="Points">
          <Select value={e.direction} onChange={(ev) => onChange({ ...e, direction: ev.target.value as typeof e.direction })}>
            <option value="by-level">down for the floor, up for the levels above</option>
            <option value="up">up</option>
            <option value="down">down</option>
          </Select>
        </Field>
      )}
      <TextButton type="button" className="self-start" onClick={onTakeOut}>
        Take it off
      </TextButton>
    </fieldset>
  );
}

/** What the label is printed on. */
export function MediaFields({ media, onChange }: { media: Media; onChange: (m: Media) => void }) {
  const number = (key: Exclude<keyof Media, 'kind'>, label: string) => (
    <Field label={label}>
      <Input
        className="num"
        type="number"
        step={0.5}
        value={media[key]}
        onChange={(e) => onChange({ ...media, [key]: Number(e.target.value) })}
      />
    </Field>
  );
  return (
    <fieldset className="flex flex-col gap-3 border-t-[1.5px] border-ink pt-2">
      <div className="grid grid-cols-3 gap-2">
        <Field label="Printed on">
          <Select value={media.kind} onChange={(e) => onChange({ ...media, kind: e.target.value as Media['kind'] })}>
            <option value="roll">a roll</option>
            <option value="sheet">sheets</option>
          </Select>
        </Field>
        {number('widthMm', 'Label wide, mm')}
        {number('heightMm', 'high, mm')}
      </div>
      {media.kind === 'sheet' && (
        <div className="grid grid-cols-4 gap-2">
          {number('columns', 'Across')}
          {number('rows', 'Down')}
          {number('pageWidthMm', 'Sheet wide')}
          {number('pageHeightMm', 'Sheet high')}
          {number('leftMm', 'From left')}
          {number('topMm', 'From top')}
          {number('gapXMm', 'Gap across')}
          {number('gapYMm', 'Gap down')}
        </div>
      )}
    </fieldset>
  );
}
