/** @jest-environment ./jest-page.js */
import { act } from 'react';
import { createRoot } from 'react-dom/client';
import { useState } from 'react';
import { Input, withPoint } from './input';

describe('decimals as they are typed', () => {
  it('have a comma or a point; what parts thousands is left alone', () => {
    expect(['0,42', ',5', '-1,5', '1,234.50', '1.234,50', '1,2,3', 'a,b', '12'].map(withPoint)).toEqual([
      '0.42',
      '.5',
      '-1.5',
      '1,234.50',
      '1.234,50',
      '1,2,3',
      'a,b',
      '12', // prettier-ignore
    ]);
  });

  it('are a point as soon as they stand in a field of decimals, and in no other', () => {
    function Both() {
      const [price, setPrice] = useState('');
      const [name, setName] = useState('');
      return (
        <>
          <Input aria-label="price" inputMode="decimal" value={price} onChange={(e) => setPrice(e.target.value)} />
          <Input aria-label="name" value={name} onChange={(e) => setName(e.target.value)} />
        </>
      );
    }
    const box = document.createElement('div');
    document.body.append(box);
    act(() => createRoot(box).render(<Both />));
    const type = (label: string, value: string) => {
      const field = box.querySelector<HTMLInputElement>(`[aria-label=${label}]`)!;
      act(() => {
        Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')!.set!.call(field, value);
        field.dispatchEvent(new Event('input', { bubbles: true }));
      });
      return field.value;
    };
    expect(type('price', '0,42')).toBe('0.42');
    expect(type('name', '0,42')).toBe('0,42');
  });
});
