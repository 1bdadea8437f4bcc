/** What a letter can say of its subject: a name in braces, what it stands for, and an example. */
export interface LetterValue {
  says: string;
  example: string;
}
export interface LetterKind {
  label: string;
  /** When it is written. */
  when: string;
  values: Readonly<Record<string, LetterValue>>;
  subject: string;
  body: string;
}

const customer: LetterValue = { says: 'name of the customer', example: 'Wick Hill Farm' };
const order: LetterValue = { says: 'their number of the order, or ours where they have none', example: 'W3017-4471' };
const company: LetterValue = { says: 'name of the company', example: 'Tarn & Thistle' };
const common = { customer, order, company };
const billing = {
  customer,
  invoice: { says: 'number of the invoice or credit note', example: 'I-0031' },
  amount: { says: 'what it comes to', example: '812.40 GBP' },
  company,
};
const parcel: LetterValue = { says: 'number of the parcel', example: 'S-20417-1' };
const back: LetterValue = { says: 'number of the return', example: 'G-0031' };
const carrier: LetterValue = { says: 'name of the carrier', example: 'Harrier Post' };
const tracking: LetterValue = { says: 'its tracking number', example: 'HP10023757GB' };

const define = <T extends Record<string, LetterKind>>(all: T) => all;

/** Every letter that customers get, with the words that it has until a company writes its own. */
export const LETTERS = define({
  confirmation: {
    label: 'We have your order',
    when: 'once it is sent by the order desk, with the priced order attached',
    values: common,
    subject: 'Your order {order}',
    body: 'Dear {customer},\n\nwe have your order {order}. What it holds and costs is attached.\n\n{company}',
  },
  quote: {
    label: 'Our quote',
    when: 'once it is sent by the order desk, with the quote attached',
    values: { ...common, until: { says: 'the last day on which it holds', example: '2026-06-30' } },
    subject: 'Our quote {order}',
    body: 'Dear {customer},\n\nour quote {order} is attached. Answer this mail and we take it as your order.\n\nIt holds until:\n{until}\n\n{company}',
  },
  invoice: {
    label: 'Our invoice',
    when: 'once the books send an invoice, with paper and data attached',
    values: { ...billing, due: { says: 'the day by which it is paid', example: '2026-06-13' } },
    subject: 'Invoice {invoice}',
    body: 'Dear {customer},\n\nour invoice {invoice} over {amount} is attached. Please pay it by {due}, and name its number.\n\n{company}',
  },
  recall: {
    label: 'Goods that you must not use',
    when: 'once somebody has a lot held and writes to those who have it',
    values: {
      ...common,
      goods: { says: 'what it is, with lot or number', example: 'Syrup, 5 litre can, lot L26-114' },
      units: { says: 'how many of it went to them', example: '4 cans' },
      why: { says: 'why it is called back', example: 'It may have fermented' },
    },
    subject: 'Please do not use or sell: {goods}',
    body: 'Dear {customer},\n\nwith your order {order} you had {units} of {goods}. Please do not use or sell any of it, and keep it apart until you hear from us.\n\nWhy:\n{why}\n\nAnswer this mail to send it back.\n\n{company}',
  },
  credit: {
    label: 'Our credit note',
    when: 'once the books send a credit note, with paper and data attached',
    values: { ...billing, due: { says: 'the day of the credit note', example: '2026-05-14' } },
    subject: 'Credit note {invoice}',
    body: 'Dear {customer},\n\nour credit note {invoice} over {amount} is attached.\n\n{company}',
  },
  statement: {
    label: 'What you owe us',
    when: 'once the books send a customer’s statement, with the paper attached',
    values: {
      customer,
      amount: { says: 'what is open in all', example: '£812.40' },
      day: { says: 'the day of the statement', example: '2026-06-13' },
      company,
    },
    subject: 'Your statement of {day}',
    body: 'Dear {customer},\n\nattached is what is open on your account: {amount} on {day}. If you have paid meanwhile, thank you.\n\n{company}',
  },
  'return-paper': {
    label: 'How to send it back',
    when: 'once a return is announced, with the paper that goes into the parcel attached',
    values: { ...common, return: back, goods: { says: 'what they send back, a line each', example: '2 of Smoker, large' } },
    subject: 'Your return {return} of order {order}',
    body: 'Dear {customer},\n\nyou send back from your order {order}:\n{goods}\n\nPlease put the attached paper {return} into the parcel. Its code tells us whose it is.\n\n{company}',
  },
  'return-settled': {
    label: 'What we do about what came back',
    when: 'once somebody has decided what the customer gets for a return',
    values: {
      ...common,
      return: back,
      goods: { says: 'what came back, a line each', example: '2 of Smoker, large' },
      what: { says: 'what they get, in a sentence', example: 'We pay back 64.00 GBP.' },
      why: { says: 'why, in the words of whoever decided', example: 'Back within 30 days' },
    },
    subject: 'Your return {return} of order {order}',
    body: 'Dear {customer},\n\nthis came back to us from your order {order}:\n{goods}\n\n{what}\n{why}\n\n{company}',
  },
  late: {
    label: 'It will be later than we said',
    when: 'once the order desk tells those whom a late arrival hits',
    values: {
      ...common,
      promised: { says: 'the time that was promised', example: 'Thu 14 May 15:30' },
      expected: { says: 'when it can be sent; empty where nobody knows', example: 'Mon 18 May' },
    },
    subject: 'Your order {order} will be later than we said',
    body: 'Dear {customer},\n\nwe promised your order {order} for {promised}. Goods for it are late on their way to us.\n\nWe expect to have them, and send them at once:\n{expected}\n\nIf you would rather have what is here already, or something else, answer this mail.\n\n{company}',
  },
  cancelled: {
    label: 'It is cancelled',
    when: 'once the order desk cancels an order and tells the customer',
    values: { ...common, why: { says: 'why, in the words of the order desk', example: 'The goods are sold out' } },
    subject: 'Your order {order} is cancelled',
    body: 'Dear {customer},\n\nyour order {order} is cancelled, and nothing more of it will be sent.\n\n{why}\n\n{company}',
  },
  shipment: {
    label: 'It is on its way',
    when: 'when a driver has taken a parcel, with its packing list attached',
    values: {
      ...common,
      parcel,
      which: { says: 'Your parcel, or which of how many', example: 'Parcel 1 of 2' },
      carrier,
      tracking,
      contents: { says: 'what is in it, a line each', example: '12 jars of Jar 454 g, round' },
      follows: {
        says: 'what is not in it, since it follows or was left out; empty where nothing is missing',
        example: '2 of Smoker, large',
      },
      complete: { says: 'that the order is complete; empty where something follows', example: '' },
    },
    subject: 'Your order {order} is on its way',
    body: 'Dear {customer},\n\n{which} ({parcel}) left us with {carrier}.\nTracking number: {tracking}\n\nIn it:\n{contents}\n\nNot in it:\n{follows}\n\n{complete}\n\nThe packing list is attached.\n\n{company}',
  },
  trouble: {
    label: 'Something is wrong with it on its way',
    when: 'once the order desk tells the customer from the list of parcels on the road',
    values: {
      ...common,
      parcel,
      carrier,
      tracking,
      what: { says: 'what the carrier says: delayed, damaged, coming back or lost', example: 'delayed' },
      note: { says: 'what the order desk adds', example: 'We expect it on Monday' },
    },
    subject: 'Your parcel of order {order}',
    body: 'Dear {customer},\n\n{carrier} tells us that your parcel {parcel} ({tracking}) is {what}.\n\n{note}\n\nWe see to it. Answer this mail if you want something else of us.\n\n{company}',
  },
});
export type LetterName = keyof typeof LETTERS;
export const isLetterName = (name: string): name is LetterName => Object.hasOwn(LETTERS, name);
