/** @jest-environment ./jest-page.js */
import { fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { SearchField } from './search-field';

const FOUND = [
  { value: 'JAR-227', title: 'Jar, small' },
  { value: 'JAR-454', title: 'Jar, large' },
];

function Field({ onTake, onDone }: { onTake: (value: string) => void; onDone: () => void }) {
  const [text, setText] = useState('');
  return (
    <SearchField
      label="Goods"
      value={text}
      found={text.startsWith('jar') ? FOUND : []}
      onType={setText}
      onTake={(o) => {
        setText(o.value);
        onTake(o.value);
      }}
      onDone={onDone}
    />
  );
}

describe('a field that finds records', () => {
  const shown = () => {
    const heard: string[] = [];
    render(<Field onTake={(v) => heard.push(v)} onDone={() => heard.push('done')} />);
    return { heard, field: screen.getByRole('combobox', { name: 'Goods' }) };
  };

  it('is chosen from by arrows and Enter, and keeps to its ends', () => {
    const { heard, field } = shown();
    fireEvent.change(field, { target: { value: 'jar' } });
    expect(screen.getAllByRole('option')).toHaveLength(2);
    for (const key of ['ArrowUp', 'ArrowDown', 'ArrowDown', 'ArrowDown', 'Enter']) fireEvent.keyDown(field, { key });
    expect(heard).toEqual(['JAR-454']);
    expect(screen.queryByRole('option')).toBeNull();
  });

  it('goes on with Enter where there is nothing to choose, and shuts with Escape', () => {
    const { heard, field } = shown();
    fireEvent.change(field, { target: { value: 'jar' } });
    fireEvent.keyDown(field, { key: 'Escape' });
    expect(screen.queryByRole('option')).toBeNull();
    fireEvent.change(field, { target: { value: 'SUIT-XL' } });
    fireEvent.keyDown(field, { key: 'Enter' });
    expect(heard).toEqual(['done']);
  });

  it('is taken from by a click', () => {
    const { heard, field } = shown();
    fireEvent.change(field, { target: { value: 'jar' } });
    fireEvent.mouseDown(screen.getByRole('option', { name: /small/ }));
    expect(heard).toEqual(['JAR-227']);
  });
});
