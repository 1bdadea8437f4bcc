/** @jest-environment ./jest-page.js */
import { act, fireEvent, render, screen } from '@testing-library/react';
import { ScannerTest } from './scanner-test';
import { CARD } from './test-card';

// How the card is drawn is not this page's to prove.
jest.mock('../ui/barcode', () => ({ CardDrawing: () => null }));

const sent = (keys: readonly string[]) => {
  for (const key of keys) fireEvent.keyDown(document.body, { key, code: key });
};

describe('the page of the test card', () => {
  beforeEach(() => {
    jest.useFakeTimers();
    localStorage.clear();
  });
  afterEach(() => jest.useRealTimers());

  it('hears a scan whole, though the page is drawn anew in its middle', () => {
    const { rerender } = render(<ScannerTest />);
    sent([...`01${CARD.gtin}10${CARD.lot}`, 'F9']);
    rerender(<ScannerTest />);
    sent([...`17${CARD.date}`, 'Enter']);
    act(() => jest.advanceTimersByTime(500));
    expect(screen.getByRole('list', { name: 'What the scanner sent' }).textContent).toContain('It sends F9 for the separator');
  });
});
