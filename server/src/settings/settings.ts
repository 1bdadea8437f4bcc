import { IN_HOUSE_PREFIXES } from '@vectrum/core/barcode';

interface Base {
  group: 'Company' | 'Buying' | 'Receiving' | 'Counting' | 'Picking and packing' | 'Items' | 'What is kept';
  label: string;
  /** What it changes, in a sentence. */
  says: string;
}
export type SettingKind =
  | { kind: 'text'; most: number; default: string }
  | { kind: 'whole'; least: number; most: number; unit: string; default: number }
  | { kind: 'yes-no'; default: boolean }
  | { kind: 'choice'; choices: readonly string[]; default: string };

const define = <T extends Record<string, Base & SettingKind>>(all: T) => all;

/** Every choice that a company can make, with what it changes. */
export const SETTINGS = define({
  companyName: {
    group: 'Company',
    label: 'Name of the company',
    says: 'Stands at the head of purchase orders, packing lists and badges.',
    kind: 'text',
    most: 80,
    default: '',
  },
  companyAddress: {
    group: 'Company',
    label: 'Address',
    says: 'Stands beneath the name on papers that leave the house.',
    kind: 'text',
    most: 200,
    default: '',
  },
  homeCurrency: {
    group: 'Company',
    label: 'Home currency',
    says: 'Costs are kept in it; orders in another currency also show what they come to in this one.',
    kind: 'text',
    most: 3,
    default: 'GBP',
  },
  units: {
    group: 'Company',
    label: 'Weights and lengths',
    says: 'How weights and sizes are shown. They are kept in grams and millimetres either way.',
    kind: 'choice',
    choices: ['kilograms and millimetres', 'pounds and inches'],
    default: 'kilograms and millimetres',
  },
  returnDays: {
    group: 'Company',
    label: 'Customers may send goods back for',
    says: 'Within so many days of the parcel’s leaving their money is proposed whatever the reason; later only where the fault was not theirs.',
    kind: 'whole',
    least: 0,
    most: 3650,
    unit: 'days',
    default: 30,
  },
  transferDays: {
    group: 'Company',
    label: 'Goods between two sites take',
    says: 'Days from asking for a transfer until its goods are in. Where three have gone the same way, what these took counts instead.',
    kind: 'whole',
    least: 0,
    most: 90,
    unit: 'days',
    default: 2,
  },
  servicePercent: {
    group: 'Buying',
    label: 'Met from the shelf',
    says: 'So much of what is asked for is to be there when it is asked for. More costs more stock; rules for classes and items come before it.',
    kind: 'whole',
    least: 50,
    most: 99,
    unit: 'per cent',
    default: 97,
  },
  orderCost: {
    group: 'Buying',
    label: 'An order costs',
    says: 'What it takes to write, follow and take in one more line of an order. The more it is, the rarer and larger orders are proposed.',
    kind: 'whole',
    least: 0,
    most: 10_000,
    unit: 'of the currency',
    default: 8,
  },
  holdingPercent: {
    group: 'Buying',
    label: 'Keeping stock costs',
    says: 'A year, of what it is worth: money tied up, room, what spoils. The more it is, the smaller orders are proposed.',
    kind: 'whole',
    least: 1,
    most: 200,
    unit: 'per cent',
    default: 22,
  },
  costMethod: {
    group: 'Company',
    label: 'What goods that go out have cost',
    says: 'By moving average every unit costs the same; first in, first out takes the cost of the oldest. Choose before the first goods come in.',
    kind: 'choice',
    choices: ['moving average', 'first in, first out'],
    default: 'moving average',
  },
  slowDays: {
    group: 'Company',
    label: 'Goods are slow after',
    says: 'Days without a sale from which a part of their worth is set aside in the books.',
    kind: 'whole',
    least: 0,
    most: 3650,
    unit: 'days',
    default: 180,
  },
  slowPercent: {
    group: 'Company',
    label: 'Set aside for slow goods',
    says: 'Of what they are worth.',
    kind: 'whole',
    least: 0,
    most: 100,
    unit: 'per cent',
    default: 25,
  },
  deadDays: {
    group: 'Company',
    label: 'Goods are dead after',
    says: 'Days without a sale from which more of their worth is set aside.',
    kind: 'whole',
    least: 0,
    most: 3650,
    unit: 'days',
    default: 365,
  },
  deadPercent: {
    group: 'Company',
    label: 'Set aside for dead goods',
    says: 'Of what they are worth.',
    kind: 'whole',
    least: 0,
    most: 100,
    unit: 'per cent',
    default: 75,
  },
  billPercent: {
    group: 'Receiving',
    label: 'A bill may be off its order by',
    says: 'Beyond this (and beyond the amount below) a line of a bill waits for somebody to decide.',
    kind: 'whole',
    least: 0,
    most: 50,
    unit: 'per cent',
    default: 2,
  },
  billAmount: {
    group: 'Receiving',
    label: 'Small lines of a bill may be off by',
    says: 'The least difference that is asked about, whatever its share.',
    kind: 'whole',
    least: 0,
    most: 10_000,
    unit: 'of the currency',
    default: 1,
  },
  inHousePrefix: {
    group: 'Items',
    label: 'In-house barcodes begin with',
    says: 'The two digits in front of numbers that the house gives to goods without a barcode. Numbers given already stay.',
    kind: 'choice',
    choices: IN_HOUSE_PREFIXES,
    default: '20',
  },
  picturesFromInside: {
    group: 'Items',
    label: 'Pictures may be fetched from the house’s own network',
    says: 'Links to pictures in a file of items may lead to a computer in the building. Off, only to the outside.',
    kind: 'yes-no',
    default: false,
  },
  overPercent: {
    group: 'Receiving',
    label: 'Too many accepted, up to',
    says: 'How far above the ordered quantity a line may be booked in at the dock before it is refused.',
    kind: 'whole',
    least: 0,
    most: 100,
    unit: 'per cent',
    default: 5,
  },
  fillRemaining: {
    group: 'Receiving',
    label: 'Fill in the quantity that is still due',
    says: 'A scan of goods fills the pad with what the line still lacks. Off, nobody books in what they have not counted.',
    kind: 'yes-no',
    default: false,
  },
  wholeSample: {
    group: 'Receiving',
    label: 'Lines to count before a delivery is taken as a whole',
    says: 'Whoever may take in a whole delivery as it stands on the paper counts so many of its lines first; which ones, Vectrum says.',
    kind: 'whole',
    least: 0,
    most: 50,
    unit: 'lines',
    default: 2,
  },
  nextScanBooks: {
    group: 'Receiving',
    label: 'The next scan of goods books in the last',
    says: 'Scan, key the number, scan the next: what was counted is booked in by it. Off, each is booked in with a key or its bin.',
    kind: 'yes-no',
    default: true,
  },
  acceptWithin: {
    group: 'Counting',
    label: 'What is within tolerance is booked at once',
    says: 'When a count is closed, the books follow every line that is within its tolerance. Off, somebody decides on each line that differs.',
    kind: 'yes-no',
    default: false,
  },
  correctLimit: {
    group: 'Counting',
    label: 'One person corrects the books up to',
    says: 'A number that somebody puts right for a reason is booked at once up to this worth; beyond it somebody else decides.',
    kind: 'whole',
    least: 0,
    most: 1_000_000,
    unit: 'of the currency',
    default: 50,
  },
  refillDays: {
    group: 'Picking and packing',
    label: 'Pick faces hold enough for',
    says: 'Goods that say nothing of their own are refilled from the reserve when their pick face has less than so many days of what orders of the last four weeks wanted. Nought: only what says so.',
    kind: 'whole',
    least: 0,
    most: 60,
    unit: 'days',
    default: 2,
  },
  typedCodes: {
    group: 'Picking and packing',
    label: 'Codes may be typed where they cannot be scanned',
    says: 'A torn label is typed, or goods are chosen from a list, and the tape says so. Off, everything on the floor is scanned.',
    kind: 'yes-no',
    default: true,
  },
  scanBins: {
    group: 'Picking and packing',
    label: 'A bin is scanned before goods leave it',
    says: 'Goods go into the tote only once their bin was scanned. Off, a scan of the goods is enough where one stop alone wants them.',
    kind: 'yes-no',
    default: true,
  },
  scanEach: {
    group: 'Picking and packing',
    label: 'Pickers scan every piece',
    says: 'Off, one piece is scanned and the number keyed: nine of one thing are three inputs.',
    kind: 'yes-no',
    default: false,
  },
  scanTotes: {
    group: 'Picking and packing',
    label: 'A tote is scanned before goods go into it',
    says: 'On rounds of several orders, whose totes stand side by side. Off, the phone only shows which one is meant.',
    kind: 'yes-no',
    default: true,
  },
  roundOrders: {
    group: 'Picking and packing',
    label: 'Orders on one round, at most',
    says: 'As many as there are totes on a cart.',
    kind: 'whole',
    least: 1,
    most: 60,
    unit: 'orders',
    default: 6,
  },
  roundKilos: {
    group: 'Picking and packing',
    label: 'A round weighs, at most',
    says: 'What somebody can push or carry. An order that weighs more by itself is a round of its own.',
    kind: 'whole',
    least: 1,
    most: 2000,
    unit: 'kilograms',
    default: 80,
  },
  roundLitres: {
    group: 'Picking and packing',
    label: 'A round takes up, at most',
    says: 'The room in the totes of a cart.',
    kind: 'whole',
    least: 1,
    most: 20_000,
    unit: 'litres',
    default: 300,
  },
  ownChoice: {
    group: 'Picking and packing',
    label: 'Pickers may choose their next round',
    says: 'Off, a picker is given the round whose promise is soonest, and no other.',
    kind: 'yes-no',
    default: true,
  },
  weightPercent: {
    group: 'Picking and packing',
    label: 'A parcel may be off its expected weight by',
    says: 'Beyond this (and beyond the grams below) the packer must look again before the label is printed.',
    kind: 'whole',
    least: 1,
    most: 50,
    unit: 'per cent',
    default: 6,
  },
  weightGrams: {
    group: 'Picking and packing',
    label: 'Light parcels may be off by',
    says: 'The least difference in weight that is asked about, whatever its share.',
    kind: 'whole',
    least: 1,
    most: 5000,
    unit: 'grams',
    default: 40,
  },
  noteByBadge: {
    group: 'Picking and packing',
    label: 'A note is acknowledged by the packer’s own badge',
    says: 'Before the label is printed the packer scans the badge that was given out for them. Off, or without a badge, a key or a card will do.',
    kind: 'yes-no',
    default: false,
  },
  trustTotes: {
    group: 'Picking and packing',
    label: 'Goods scanned at their bins need no second scan',
    says: 'The packer takes all of a tote at once, or the picker packs on the spot. What was typed, or taken off a shelf unscanned, is scanned all the same, as are goods of which each piece is to be scanned.',
    kind: 'yes-no',
    default: false,
  },
  parcelPictures: {
    group: 'Picking and packing',
    label: 'Parcels are pictured before they are closed',
    says: 'The packer takes a picture of what lies in the box, with the camera of the table or phone; the order keeps it. No parcel waits for it.',
    kind: 'yes-no',
    default: false,
  },
  labelsByThemselves: {
    group: 'Picking and packing',
    label: 'The label comes by itself',
    says: 'Once all is in and read and the scale agrees, by the service that is proposed. Off, or without a scale, the packer asks for it.',
    kind: 'yes-no',
    default: true,
  },
  keepDeliveries: {
    group: 'What is kept',
    label: 'What has left the house',
    says: 'Mails, labels and messages that arrived, and messages that were settled, are cleared at night when they are older.',
    kind: 'whole',
    least: 7,
    most: 3650,
    unit: 'days',
    default: 60,
  },
  keepCommands: {
    group: 'What is kept',
    label: 'Answers to what was sent',
    says: 'By these a phone that was away sends nothing twice. One that was away for longer should be emptied by hand.',
    kind: 'whole',
    least: 14,
    most: 3650,
    unit: 'days',
    default: 60,
  },
  keepImports: {
    group: 'What is kept',
    label: 'Rows of imports',
    says: 'An import can be taken back while its rows are kept. That it was made stays in the list.',
    kind: 'whole',
    least: 7,
    most: 3650,
    unit: 'days',
    default: 180,
  },
  keepTape: {
    group: 'What is kept',
    label: 'The tape of what was done',
    says: 'Movements, orders and papers stay for ever; this is the line about each on the tape.',
    kind: 'whole',
    least: 90,
    most: 36_500,
    unit: 'days',
    default: 1_095,
  },
});

export type SettingName = keyof typeof SETTINGS;
type Widen<T> = T extends string ? string : T extends number ? number : T extends boolean ? boolean : never;
export type SettingValue<N extends SettingName> = Widen<(typeof SETTINGS)[N]['default']>;

/** What is wrong with a value for a setting, in words; null where it can be kept. */
export function settingFault(name: SettingName, value: unknown): string | null {
  const setting: Base & SettingKind = SETTINGS[name];
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
