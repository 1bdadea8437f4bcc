/** Figures of one item, at one site or over all. Whole base units. */
export interface StockFigures {
  /** Everything in the house, whatever its condition. */
  onHand: number;
  /** Of that, what is held, damaged or waits for inspection. */
  held: number;
  /** Promised to orders and not yet gone. */
  reserved: number;
}

/** What may still be promised: on hand − held − reserved. Below nought where more is promised than is there. */
export function available({ onHand, held, reserved }: StockFigures): number {
  return onHand - held - reserved;
}

/** One line of an opened sum: sign, term, figure and the documents behind it. */
export interface WhyTerm {
  sign: '' | '+' | '−' | '=';
  term: string;
  units: number;
  documents: string[];
}

/** The sum behind "available", ready to be shown. The last term is the result of those before it. */
export function whyAvailable(figures: StockFigures, documents: { onHand: string[]; reserved: string[] }): WhyTerm[] {
  return [
    { sign: '', term: 'On hand', units: figures.onHand, documents: documents.onHand },
    { sign: '−', term: 'Reserved', units: figures.reserved, documents: documents.reserved },
    { sign: '−', term: 'Held', units: figures.held, documents: [] },
    { sign: '=', term: 'Available', units: available(figures), documents: [] },
  ];
}
