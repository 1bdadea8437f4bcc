import { useState } from 'react';
import { Input } from '../../../ui/input';

/** A cell being changed where it stands: Enter keeps and goes down, Tab keeps and goes on, Escape leaves it as it was. */
export function CellEdit({
  value,
  label,
  onKeep,
  onLeave,
}: {
  value: string;
  label: string;
  onKeep: (value: string, go: 'down' | 'on' | 'back' | null) => void;
  onLeave: () => void;
}) {
  const [text, setText] = useState(value);
  return (
    <Input
      className="cell-edit"
      data-scan
      aria-label={label}
      autoFocus
      value={text}
      onFocus={(e) => e.target.select()}
      onChange={(e) => setText(e.target.value)}
      onBlur={() => (text === value ? onLeave() : onKeep(text, null))}
      onKeyDown={(e) => {
        e.stopPropagation();
        if (e.key === 'Escape') onLeave();
        if (e.key !== 'Enter' && e.key !== 'Tab') return;
        e.preventDefault();
        onKeep(text, e.key === 'Enter' ? 'down' : e.shiftKey ? 'back' : 'on');
      }}
    />
  );
}
