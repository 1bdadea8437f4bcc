import { checkDigit } from '@vectrum/core/barcode';
import { RANGE } from './range.js';

/** What sells every day. One item a line: SKU, name, picture, class, base unit and plural, grams, millimetres, cost, price, packs, supplier, tracking. */
const SEED = `
JAR-454-RD|Jar 454 g, round|jar|Jars and lids|jar/jars|245|80x80x110|0.42|0.95|tray/trays:48,pallet/pallets:1536|QUILLON|
JAR-340-HX|Jar 340 g, hex|jar|Jars and lids|jar/jars|205|74x74x104|0.38|0.88|tray/trays:48,pallet/pallets:1536|QUILLON|
JAR-227-RD|Jar 227 g, round|jar|Jars and lids|jar/jars|160|66x66x84|0.30|0.74|tray/trays:48,pallet/pallets:1920|QUILLON|
JAR-042-MI|Jar 42 g, mini|jar|Jars and lids|jar/jars|60|44x44x52|0.22|0.60|tray/trays:72|QUILLON|
LID-63-GD|Lid 63 mm, gold|lid|Jars and lids|lid/lids|9|66x66x14|0.048|0.14|box/boxes:1000|QUILLON|
LID-63-BK|Lid 63 mm, black|lid|Jars and lids|lid/lids|9|66x66x14|0.048|0.14|box/boxes:1000|QUILLON|
LBL-HON-100|Honey labels, roll of 100|label|Jars and lids|roll/rolls|120|90x90x60|2.10|5.40|box/boxes:20|CORRIN|
SEAL-TMP-100|Tamper seals, roll of 100|label|Jars and lids|roll/rolls|80|70x70x40|1.60|4.20|box/boxes:20|CORRIN|
FRM-DN1|Hive frame DN1|frames|Frames|frame/frames|190|430x210x30|0.92|1.85|box/boxes:10,pallet/pallets:500|PELLOWICK|
FRM-DN4|Hive frame DN4|frames|Frames|frame/frames|200|430x210x36|0.98|1.95|box/boxes:10,pallet/pallets:500|PELLOWICK|
FRM-SN1|Super frame SN1|frames|Frames|frame/frames|150|430x140x30|0.84|1.70|box/boxes:10,pallet/pallets:600|PELLOWICK|
FRM-1412|Frame 14 by 12|frames|Frames|frame/frames|240|430x300x36|1.22|2.45|box/boxes:10|PELLOWICK|
HIV-BRD|Brood body, national|hive|Hive parts|body/bodies|5200|470x470x230|19.50|38.00|pallet/pallets:24|PELLOWICK|
HIV-SUP|Super, national|hive|Hive parts|super/supers|3600|470x470x155|14.20|28.50|pallet/pallets:36|PELLOWICK|
HIV-FLR|Open mesh floor|hive|Hive parts|floor/floors|3100|470x470x80|16.80|33.00|pallet/pallets:40|PELLOWICK|
HIV-RUF|Roof, deep, metal|hive|Hive parts|roof/roofs|4400|500x500x120|17.40|35.50|pallet/pallets:30|PELLOWICK|
HIV-CRN|Crown board|hive|Hive parts|board/boards|1500|470x470x20|5.60|12.40|box/boxes:5|PELLOWICK|
QEX-WIRE|Queen excluder, wire|cage|Hive parts|excluder/excluders|1250|460x460x10|7.90|16.50|box/boxes:10|PELLOWICK|
NUC-STD|Nucleus stand|hive|Hive parts|stand/stands|3900|460x300x300|12.00|27.00||PELLOWICK|
WAX-DN-10|Wax foundation, deep|wax|Wax|pack/packs|760|350x205x30|8.40|15.90|case/cases:10|MARROWDALE|
WAX-SN-10|Wax foundation, shallow|wax|Wax|pack/packs|520|350x130x30|6.10|11.80|case/cases:10|MARROWDALE|
WAX-BLK-500|Beeswax block 500 g|wax|Wax|block/blocks|505|150x80x45|5.20|9.90|case/cases:24|MARROWDALE|
CND-MLD-BE|Candle mould, skep|box|Wax|mould/moulds|310|100x100x110|6.90|14.50||MARROWDALE|
SUIT-S|Bee suit, S|suit|Clothing|suit/suits|1180|350x300x90|31.00|62.00|box/boxes:6|TINDRA|
SUIT-M|Bee suit, M|suit|Clothing|suit/suits|1220|350x300x90|31.00|62.00|box/boxes:6|TINDRA|
SUIT-L|Bee suit, L|suit|Clothing|suit/suits|1260|350x300x95|31.00|62.00|box/boxes:6|TINDRA|
SUIT-XL|Bee suit, XL|suit|Clothing|suit/suits|1310|350x300x95|31.00|62.00|box/boxes:6|TINDRA|
GLV-S|Gloves, leather, S|gloves|Clothing|pair/pairs|190|300x130x40|6.40|13.90|box/boxes:12|TINDRA|
GLV-M|Gloves, leather, M|gloves|Clothing|pair/pairs|200|300x130x40|6.40|13.90|box/boxes:12|TINDRA|
GLV-L|Gloves, leather, L|gloves|Clothing|pair/pairs|215|300x130x40|6.40|13.90|box/boxes:12|TINDRA|
VEIL-RND|Veil, round|suit|Clothing|veil/veils|160|260x260x40|5.80|12.50|box/boxes:20|TINDRA|
SMK-LGE|Smoker, large|smoker|Tools|smoker/smokers|890|260x180x110|11.40|24.50|box/boxes:6|BRINDLEMOOR|
SMK-SML|Smoker, small|smoker|Tools|smoker/smokers|640|220x150x100|9.20|19.90|box/boxes:6|BRINDLEMOOR|
TOOL-JH|Hive tool, J hook|tool|Tools|tool/tools|260|260x50x12|3.10|7.90|box/boxes:20|BRINDLEMOOR|
TOOL-STD|Hive tool, standard|tool|Tools|tool/tools|240|250x45x12|2.60|6.90|box/boxes:20|BRINDLEMOOR|
BRSH-BEE|Bee brush|tool|Tools|brush/brushes|90|350x60x25|1.40|3.90|box/boxes:24|BRINDLEMOOR|
UNC-FORK|Uncapping fork|tool|Tools|fork/forks|110|230x70x30|2.20|5.90|box/boxes:20|BRINDLEMOOR|
CAGE-QN|Queen cage, clip|cage|Tools|cage/cages|12|60x30x20|0.36|1.20|bag/bags:50|BRINDLEMOOR|
MRK-PEN|Queen marking pen|tool|Tools|pen/pens|18|140x15x15|1.10|3.20|box/boxes:12|BRINDLEMOOR|
EXT-4T|Honey extractor, 4 frame|extractor|Honey room|extractor/extractors|14500|480x480x900|182.00|349.00||BRINDLEMOOR|serial
SCL-B2|Hive scale|scale|Honey room|scale/scales|2900|420x320x70|58.00|119.00||BRINDLEMOOR|serial
SVE-DBL|Strainer, double|extractor|Honey room|strainer/strainers|720|240x240x110|12.60|26.00|box/boxes:6|BRINDLEMOOR|
TNK-50|Settling tank 50 kg|extractor|Honey room|tank/tanks|3400|380x380x520|34.00|69.00||BRINDLEMOOR|
FDR-RAP|Rapid feeder|feeder|Feeding|feeder/feeders|480|330x330x100|4.10|9.80|box/boxes:10|CORRIN|
FDR-CON|Contact feeder 2 litre|feeder|Feeding|feeder/feeders|310|180x180x150|2.70|6.90|box/boxes:10|CORRIN|
FON-125|Fondant block 12.5 kg|fondant|Feeding|block/blocks|12500|300x200x180|17.20|29.50|pallet/pallets:60|OULDEN|lot-expiry
FON-025|Fondant pack 2.5 kg|fondant|Feeding|pack/packs|2520|200x140x80|4.30|8.40|box/boxes:5|OULDEN|lot-expiry
SYR-05|Syrup, 5 litre can|syrup|Feeding|can/cans|6600|190x140x280|6.90|13.50|box/boxes:4,pallet/pallets:128|OULDEN|lot-expiry
POL-PAT|Pollen patty|fondant|Feeding|patty/patties|460|180x120x25|2.30|4.90|box/boxes:20|OULDEN|lot-expiry
MTS-10|Mite strips|strips|Treatments|pack/packs|95|160x110x25|11.20|22.90|box/boxes:10|VETCHLEY|lot-expiry
MTS-02|Mite strips, 2 hives|strips|Treatments|pack/packs|40|160x110x10|4.80|9.90|box/boxes:20|VETCHLEY|lot-expiry
OXA-35|Oxalic crystals 35 g|strips|Treatments|sachet/sachets|42|120x90x12|3.60|7.50|box/boxes:20|VETCHLEY|lot-expiry
THY-GEL|Thymol gel|strips|Treatments|tub/tubs|270|90x90x60|8.20|16.80|box/boxes:12|VETCHLEY|lot-expiry
BOK-YEAR|Book: The apiary year|book|Books|book/books|520|240x170x22|6.20|14.99|box/boxes:16|CORRIN|
BOK-WAX|Book: Working with wax|book|Books|book/books|440|240x170x18|5.60|12.99|box/boxes:16|CORRIN|
BOK-SWRM|Book: Reading a swarm|book|Books|book/books|390|210x150x20|5.10|11.99|box/boxes:16|CORRIN|
CRD-RECIPE|Recipe card|label|Inserts|card/cards|6|148x105x1|0.04|0.00|pack/packs:250|CORRIN|
STK-TT|Tarn and Thistle sticker|label|Inserts|sticker/stickers|2|80x80x1|0.03|0.00|pack/packs:500|CORRIN|
BAG-PAPER|Paper carrier bag|box|Packaging|bag/bags|40|320x220x4|0.11|0.30|pack/packs:100|CORRIN|
KIT-START|Starter kit|hive|Kits|kit/kits|14200|560x560x520|96.00|179.00||PELLOWICK|
KIT-HARV|Honey harvest kit|extractor|Kits|kit/kits|16900|560x560x980|214.00|399.00||PELLOWICK|
STR-ROLL|Strapping roll|box|Packaging|roll/rolls|2100|200x200x60|7.40|15.00||CORRIN|
`;

/** Items that came without a barcode: they show up as incomplete. */
const BARE = new Set(['STR-ROLL', 'CND-MLD-BE']);
/** GS1 prefix 952 is set apart for demonstrations and examples. */
const PREFIX = '9521077';

export interface DemoPack {
  name: string;
  plural: string;
  factor: number;
  barcode: string | null;
}
export interface DemoItem {
  sku: string;
  name: string;
  picture: string;
  className: string;
  tracking: 'none' | 'lot-expiry' | 'serial';
  weightG: number;
  sizeMm: [number, number, number];
  cost: string;
  price: string;
  packs: DemoPack[];
  supplier: string;
}

function gtin(index: number, packIndex: number): string {
  const body = `${packIndex}${PREFIX}${String(index + 1).padStart(5, '0')}`;
  return `${body}${checkDigit(body)}`;
}

function read(line: string, index: number): DemoItem {
  const [
    sku = '',
    name = '',
    picture = '',
    className = '',
    unit = '',
    grams = '',
    size = '',
    cost = '',
    price = '',
    packs = '',
    supplier = '',
    tracking = '',
  ] = line.split('|');
  const ladder = [`${unit}:1`, ...packs.split(',').filter(Boolean)].map((text, i): DemoPack => {
    const [names = '', factor = '1'] = text.split(':');
    const [one = '', many = ''] = names.split('/');
    return {
      name: one,
      plural: many,
      factor: Number(factor),
      barcode: BARE.has(sku) ? null : gtin(index, i),
    };
  });
  const [l = 1, w = 1, h = 1] = size.split('x').map(Number);
  return {
    sku,
    name,
    picture,
    className,
    tracking: tracking === 'lot-expiry' || tracking === 'serial' ? tracking : 'none',
    weightG: Number(grams),
    sizeMm: [l, w, h],
    cost,
    price,
    packs: ladder,
    supplier,
  };
}

const lines = (seed: string) => seed.trim().split('\n');

/** The goods of the made-up business, in a fixed order: what sells every day, then the rest of the range. */
export function demoItems(): DemoItem[] {
  return [...lines(SEED), ...lines(RANGE)].map(read);
}

/** What most orders are of. */
export function everyDayItems(): DemoItem[] {
  return demoItems().slice(0, lines(SEED).length);
}
