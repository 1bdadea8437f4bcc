type Field = HTMLInputElement | HTMLTextAreaElement;

export const isField = (target: EventTarget | null): target is Field =>
  (target instanceof HTMLInputElement && !['checkbox', 'radio', 'button', 'submit', 'file', 'range', 'color'].includes(target.type)) ||
  target instanceof HTMLTextAreaElement;

/** Puts a value into a field as typing would, so that whoever renders it hears of it. */
export function typeInto(field: Field | HTMLSelectElement, value: string): void {
  const proto =
    field instanceof HTMLInputElement
      ? HTMLInputElement.prototype
      : field instanceof HTMLTextAreaElement
        ? HTMLTextAreaElement.prototype
        : HTMLSelectElement.prototype;
  Object.getOwnPropertyDescriptor(proto, 'value')?.set?.call(field, value);
  field.dispatchEvent(new Event(field instanceof HTMLSelectElement ? 'change' : 'input', { bubbles: true }));
}

/** A field as it was before the first key of what may be a scan: its text, and where the caret or the selection stood. */
export class FieldHold {
  private readonly value: string;
  private readonly start: number | null;
  private readonly end: number | null;

  constructor(readonly field: Field) {
    this.value = field.value;
    this.start = field.selectionStart;
    this.end = field.selectionEnd;
  }

  /** Leaves the field as it was. */
  restore(): void {
    if (this.field.value !== this.value) typeInto(this.field, this.value);
    this.select(this.start, this.end);
  }

  /** What looked like a scan was typed after all: it goes where it would have gone. */
  giveBack(text: string): void {
    const [from, to] = [this.start ?? this.value.length, this.end ?? this.value.length];
    typeInto(this.field, this.value.slice(0, from) + text + this.value.slice(to));
    this.select(this.start === null ? null : from + text.length);
  }

  /** Fields for numbers and dates have no caret to ask for. */
  private select(from: number | null, to = from): void {
    if (from !== null && document.activeElement === this.field) this.field.setSelectionRange(from, to);
  }
}

/** Chooses what begins with a letter, as a list does by itself when nothing keeps the key from it. */
export function chooseByLetter(list: HTMLSelectElement, letter: string): void {
  const { options, selectedIndex } = list;
  for (let step = 1; step <= options.length; step++) {
    const option = options[(selectedIndex + step) % options.length];
    if (!option || option.disabled || !option.text.toLowerCase().startsWith(letter.toLowerCase())) continue;
    return typeInto(list, option.value);
  }
}
