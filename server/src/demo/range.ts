/** The rest of what the made-up business sells, an item a line as in `goods.ts`: sizes, colours, spare parts, and what is asked for once a month. */
export const RANGE = `
JAR-120-SQ|Jar 120 g, square|jar|Jars and lids|jar/jars|118|52x52x82|0.29|0.72|tray/trays:48|QUILLON|
JAR-720-RD|Jar 720 g, round|jar|Jars and lids|jar/jars|330|92x92x128|0.61|1.30|tray/trays:24|QUILLON|
JAR-250-SK|Jar 250 g, skep|jar|Jars and lids|jar/jars|210|78x78x92|0.74|1.65|tray/trays:30|QUILLON|
JAR-190-HX|Jar 190 g, hex|jar|Jars and lids|jar/jars|142|62x62x80|0.33|0.79|tray/trays:60|QUILLON|
BTL-340-SQ|Squeeze bottle 340 g|jar|Jars and lids|bottle/bottles|34|68x68x150|0.31|0.80|bag/bags:50|QUILLON|
BTL-500-GL|Mead bottle 500 ml|jar|Jars and lids|bottle/bottles|420|70x70x270|0.86|1.95|tray/trays:20|QUILLON|
PAIL-3|Honey pail 3 kg|jar|Jars and lids|pail/pails|160|180x180x160|1.35|3.20|stack/stacks:25|CORRIN|
PAIL-15|Honey pail 15 kg|jar|Jars and lids|pail/pails|620|290x290x300|3.10|6.90|stack/stacks:20|CORRIN|
LID-53-GD|Lid 53 mm, gold|lid|Jars and lids|lid/lids|7|56x56x13|0.044|0.13|box/boxes:1000|QUILLON|
LID-82-GD|Lid 82 mm, gold|lid|Jars and lids|lid/lids|13|85x85x15|0.066|0.18|box/boxes:600|QUILLON|
LID-63-SK|Lid 63 mm, skep print|lid|Jars and lids|lid/lids|9|66x66x14|0.062|0.18|box/boxes:1000|QUILLON|
LBL-MIN-200|Mini labels, roll of 200|label|Jars and lids|roll/rolls|110|80x80x50|2.60|6.20|box/boxes:20|CORRIN|
LBL-SET-50|Set honey labels, sheet of 50|label|Jars and lids|sheet/sheets|14|297x210x1|0.90|2.40|pack/packs:25|CORRIN|
LBL-BB-500|Best-before labels, roll of 500|label|Jars and lids|roll/rolls|140|90x90x40|2.20|5.80|box/boxes:20|CORRIN|
FRM-SN4|Super frame SN4|frames|Frames|frame/frames|165|430x140x36|0.89|1.80|box/boxes:10,pallet/pallets:600|PELLOWICK|
FRM-MNL|Manley frame|frames|Frames|frame/frames|170|430x140x42|0.94|1.90|box/boxes:10|PELLOWICK|
FRM-LNG|Langstroth frame, deep|frames|Frames|frame/frames|215|482x232x35|1.05|2.10|box/boxes:10|PELLOWICK|
FRM-LNM|Langstroth frame, medium|frames|Frames|frame/frames|180|482x159x35|0.96|1.95|box/boxes:10|PELLOWICK|
FRM-SEC|Section frame with 3 sections|frames|Frames|frame/frames|240|430x140x42|2.40|4.80|box/boxes:10|PELLOWICK|
FRM-FDR|Frame feeder, deep|feeder|Frames|feeder/feeders|620|430x210x60|4.40|9.60|box/boxes:5|PELLOWICK|
NAL-FRM-500|Frame nails 500 g|box|Frames|bag/bags|505|150x100x30|2.10|4.90|box/boxes:20|BRINDLEMOOR|
WIR-FRM-250|Frame wire, 250 g reel|box|Frames|reel/reels|270|90x90x60|2.40|5.60|box/boxes:24|BRINDLEMOOR|
SPC-PLA-50|Frame spacers, 50|box|Frames|bag/bags|210|200x150x50|1.70|3.90|box/boxes:20|CORRIN|
RUN-CAS-10|Castellated runners, 10|tool|Frames|pack/packs|680|430x60x40|4.20|8.90|box/boxes:10|PELLOWICK|
HIV-LNB|Brood body, Langstroth|hive|Hive parts|body/bodies|5900|510x410x245|21.00|41.00|pallet/pallets:24|PELLOWICK|
HIV-LNS|Super, Langstroth|hive|Hive parts|super/supers|3900|510x410x170|15.40|30.50|pallet/pallets:36|PELLOWICK|
HIV-POL|Hive in one, polystyrene|hive|Hive parts|hive/hives|6100|500x500x480|62.00|118.00|pallet/pallets:12|PELLOWICK|
HIV-NUC|Nucleus box, 6 frames|hive|Hive parts|box/boxes|3300|510x250x300|17.80|36.00|pallet/pallets:32|PELLOWICK|
HIV-ENT|Entrance block|hive|Hive parts|block/blocks|140|420x25x22|0.80|2.10|box/boxes:25|PELLOWICK|
HIV-EKE|Eke, 75 mm|hive|Hive parts|eke/ekes|1100|460x460x75|5.20|11.50|box/boxes:6|PELLOWICK|
HIV-QLT|Quilt, insulated|hive|Hive parts|quilt/quilts|780|460x460x40|7.10|15.20|box/boxes:6|TINDRA|
HIV-GRD|Mouse guard|cage|Hive parts|guard/guards|90|450x35x2|0.90|2.40|box/boxes:25|BRINDLEMOOR|
HIV-STR|Hive strap with buckle|box|Hive parts|strap/straps|190|120x90x40|2.20|5.40|box/boxes:20|TINDRA|
HIV-LEG|Hive stand, four legs|hive|Hive parts|stand/stands|4600|520x520x300|13.60|29.00||PELLOWICK|
QEX-PLA|Queen excluder, plastic|cage|Hive parts|excluder/excluders|260|460x460x5|2.60|5.90|box/boxes:20|BRINDLEMOOR|
ESC-PRT|Porter escape|cage|Hive parts|escape/escapes|16|120x40x10|0.55|1.60|bag/bags:50|BRINDLEMOOR|
ESC-RHO|Clearer board, rhombus|cage|Hive parts|board/boards|1450|460x460x30|8.20|17.50|box/boxes:5|PELLOWICK|
TRP-POL|Pollen trap|cage|Hive parts|trap/traps|1900|460x460x90|14.60|31.00|box/boxes:4|PELLOWICK|
TRP-WSP|Wasp trap lid|lid|Hive parts|lid/lids|24|72x72x40|0.70|2.20|bag/bags:25|CORRIN|
WAX-LN-10|Wax foundation, Langstroth|wax|Wax|pack/packs|840|420x205x30|9.10|17.20|case/cases:10|MARROWDALE|
WAX-UW-10|Wax foundation, unwired|wax|Wax|pack/packs|700|350x205x28|8.90|16.50|case/cases:10|MARROWDALE|
WAX-SEC-20|Section foundation, 20|wax|Wax|pack/packs|190|110x110x30|4.40|8.90|case/cases:10|MARROWDALE|
WAX-BLK-050|Beeswax bars, 50 g|wax|Wax|bar/bars|51|100x30x20|0.62|1.50|box/boxes:60|MARROWDALE|
WAX-PEL-1K|Beeswax pellets 1 kg|wax|Wax|bag/bags|1010|250x180x50|10.80|19.90|case/cases:12|MARROWDALE|
WAX-SOY-1K|Rapeseed wax 1 kg|wax|Wax|bag/bags|1010|250x180x50|4.90|9.80|case/cases:12|MARROWDALE|
WCK-FLT-10|Candle wick, flat, 10 m|box|Wax|reel/reels|40|60x60x40|1.30|3.40|box/boxes:24|MARROWDALE|
CND-MLD-PI|Candle mould, pillar|box|Wax|mould/moulds|290|90x90x150|6.20|13.20||MARROWDALE|
CND-MLD-TP|Candle mould, two tapers|box|Wax|mould/moulds|240|60x60x260|7.40|15.90||MARROWDALE|
CND-SHT-05|Rolling sheets, 5 colours|wax|Wax|pack/packs|620|420x210x20|5.80|11.90|case/cases:10|MARROWDALE|
MLT-WAX|Wax melter, steam|extractor|Wax|melter/melters|9800|450x450x520|88.00|169.00||BRINDLEMOOR|serial
SUIT-XXL|Bee suit, XXL|suit|Clothing|suit/suits|1370|350x300x100|32.50|64.00|box/boxes:6|TINDRA|
SUIT-CH-7|Bee suit, child, 7 to 8|suit|Clothing|suit/suits|720|300x250x70|22.00|44.00|box/boxes:6|TINDRA|
SUIT-CH-10|Bee suit, child, 10 to 12|suit|Clothing|suit/suits|810|300x250x75|22.00|44.00|box/boxes:6|TINDRA|
JKT-S|Bee jacket, S|suit|Clothing|jacket/jackets|760|330x280x70|21.00|43.00|box/boxes:6|TINDRA|
JKT-M|Bee jacket, M|suit|Clothing|jacket/jackets|790|330x280x70|21.00|43.00|box/boxes:6|TINDRA|
JKT-L|Bee jacket, L|suit|Clothing|jacket/jackets|830|330x280x75|21.00|43.00|box/boxes:6|TINDRA|
JKT-XL|Bee jacket, XL|suit|Clothing|jacket/jackets|870|330x280x75|21.00|43.00|box/boxes:6|TINDRA|
GLV-XS|Gloves, leather, XS|gloves|Clothing|pair/pairs|180|300x130x40|6.40|13.90|box/boxes:12|TINDRA|
GLV-XL|Gloves, leather, XL|gloves|Clothing|pair/pairs|230|300x130x40|6.40|13.90|box/boxes:12|TINDRA|
GLV-NIT-M|Gloves, nitrile, M, 50|gloves|Clothing|box/boxes|420|220x120x80|4.10|8.90|case/cases:10|TINDRA|
GLV-NIT-L|Gloves, nitrile, L, 50|gloves|Clothing|box/boxes|450|220x120x80|4.10|8.90|case/cases:10|TINDRA|
VEIL-SQR|Veil, square, folding|suit|Clothing|veil/veils|210|260x260x30|7.20|15.50|box/boxes:20|TINDRA|
HAT-VEIL|Hat with veil|suit|Clothing|hat/hats|240|360x340x110|8.40|17.90|box/boxes:12|TINDRA|
GTR-PAIR|Gaiters|suit|Clothing|pair/pairs|150|250x180x40|3.90|8.90|box/boxes:20|TINDRA|
BOOT-CVR|Boot covers|suit|Clothing|pair/pairs|90|250x180x20|1.60|4.20|box/boxes:40|TINDRA|
SMK-BLW|Bellows for smokers|smoker|Tools|bellows/bellows|230|180x130x60|3.60|8.50|box/boxes:12|BRINDLEMOOR|
SMK-FUL-1K|Smoker fuel 1 kg|box|Tools|bag/bags|1020|260x200x120|2.60|6.40|box/boxes:12|CORRIN|
SMK-FUL-5K|Smoker fuel 5 kg|box|Tools|sack/sacks|5050|500x350x180|10.40|22.00||CORRIN|
SMK-CRT-8|Smoker cartridges, 8|box|Tools|pack/packs|310|200x140x60|2.90|7.20|box/boxes:12|CORRIN|
TOOL-FRM|Frame lifter|tool|Tools|lifter/lifters|310|200x110x40|4.80|11.20|box/boxes:12|BRINDLEMOOR|
TOOL-SCR|Scraper, wide|tool|Tools|scraper/scrapers|210|230x80x20|2.90|7.20|box/boxes:20|BRINDLEMOOR|
TOOL-EMB|Wire embedder|tool|Tools|embedder/embedders|160|170x50x30|3.40|8.10|box/boxes:12|BRINDLEMOOR|
TOOL-GRF|Grafting tool|tool|Tools|tool/tools|14|170x10x10|1.20|3.50|box/boxes:24|BRINDLEMOOR|
TOOL-BOX|Tool box for the apiary|box|Tools|box/boxes|3100|480x320x300|16.00|34.00||PELLOWICK|
UNC-KNF|Uncapping knife|tool|Tools|knife/knives|260|420x50x25|6.90|15.40|box/boxes:10|BRINDLEMOOR|
UNC-ELK|Uncapping knife, heated|tool|Tools|knife/knives|780|450x70x50|38.00|79.00||BRINDLEMOOR|serial
UNC-TRY|Uncapping tray|extractor|Honey room|tray/trays|2700|600x420x180|21.00|44.00||BRINDLEMOOR|
CAGE-CRW|Push-in cage|cage|Tools|cage/cages|46|120x90x30|1.30|3.60|bag/bags:25|BRINDLEMOOR|
CAGE-MRK|Marking cage|cage|Tools|cage/cages|52|90x90x40|1.90|4.90|bag/bags:25|BRINDLEMOOR|
CAGE-TRV|Travelling cage|cage|Tools|cage/cages|18|90x40x20|0.62|1.80|bag/bags:50|BRINDLEMOOR|
MRK-NUM|Numbered discs, 5 colours|label|Tools|set/sets|12|100x70x10|2.40|6.20|box/boxes:24|BRINDLEMOOR|
REF-HND|Refractometer|scale|Honey room|refractometer/refractometers|340|210x80x60|19.00|39.00|box/boxes:10|BRINDLEMOOR|
THM-DIG|Thermometer, digital|scale|Honey room|thermometer/thermometers|90|230x40x25|5.10|11.90|box/boxes:20|BRINDLEMOOR|
MIC-40|Microscope, 40 to 1000|scale|Honey room|microscope/microscopes|4100|380x240x190|96.00|189.00||BRINDLEMOOR|serial
EXT-2T|Honey extractor, 2 frame|extractor|Honey room|extractor/extractors|9800|420x420x800|118.00|229.00||BRINDLEMOOR|serial
EXT-9R|Honey extractor, 9 frame, motor|extractor|Honey room|extractor/extractors|31000|620x620x1050|486.00|899.00||BRINDLEMOOR|serial
TNK-100|Settling tank 100 kg|extractor|Honey room|tank/tanks|5600|460x460x680|52.00|104.00||BRINDLEMOOR|
TAP-40|Honey tap 40 mm|tool|Honey room|tap/taps|110|110x80x70|2.90|6.90|box/boxes:12|BRINDLEMOOR|
SVE-NYL|Strainer cloth, nylon|extractor|Honey room|cloth/cloths|60|250x200x10|2.10|5.40|box/boxes:24|TINDRA|
SVE-CON|Conical strainer|extractor|Honey room|strainer/strainers|340|260x260x280|6.80|14.90|box/boxes:6|BRINDLEMOOR|
CRM-MIX|Creaming screw|tool|Honey room|screw/screws|610|450x100x100|14.20|31.00|box/boxes:6|BRINDLEMOOR|
WRM-CAB|Warming cabinet|extractor|Honey room|cabinet/cabinets|16500|600x600x900|148.00|289.00||BRINDLEMOOR|serial
CTR-CMB-12|Cut-comb boxes, 12|box|Honey room|pack/packs|260|320x220x120|3.30|7.50|case/cases:10|CORRIN|
CUT-CMB|Cut-comb cutter|tool|Honey room|cutter/cutters|230|110x110x60|6.10|13.50|box/boxes:12|BRINDLEMOOR|
FDR-ASH|Ashforth feeder|feeder|Hive parts|feeder/feeders|4200|460x460x95|17.40|36.50||PELLOWICK|
FDR-MIL|Miller feeder|feeder|Hive parts|feeder/feeders|4000|460x460x95|16.90|35.50||PELLOWICK|
FDR-ENT|Entrance feeder|feeder|Feeding|feeder/feeders|160|180x110x80|1.60|4.20|box/boxes:20|CORRIN|
FDR-CON-4|Contact feeder 4 litre|feeder|Feeding|feeder/feeders|440|230x230x190|3.60|8.40|box/boxes:8|CORRIN|
FON-010|Fondant pack 1 kg|fondant|Feeding|pack/packs|1010|160x110x60|2.10|4.40|box/boxes:12|OULDEN|lot-expiry
SYR-10|Syrup, 10 litre can|syrup|Feeding|can/cans|13200|240x190x310|12.90|24.50|pallet/pallets:64|OULDEN|lot-expiry
SYR-IBC|Syrup, 25 litre drum|syrup|Feeding|drum/drums|33000|300x300x420|29.00|52.00|pallet/pallets:24|OULDEN|lot-expiry
POL-SUB-1K|Pollen substitute 1 kg|fondant|Feeding|bag/bags|1020|220x160x70|5.20|10.90|box/boxes:10|OULDEN|lot-expiry
THY-STR|Thymol strips|strips|Treatments|pack/packs|60|160x110x15|7.40|15.20|box/boxes:12|VETCHLEY|lot-expiry
FOR-PAD|Formic pads, 2 hives|strips|Treatments|pack/packs|310|200x140x40|12.80|25.50|box/boxes:10|VETCHLEY|lot-expiry
OXA-VAP|Oxalic vaporiser|strips|Treatments|vaporiser/vaporisers|480|420x60x50|24.00|52.00|box/boxes:6|VETCHLEY|serial
NOS-TEA|Hive herbal tea, 10 bags|strips|Treatments|pack/packs|90|140x90x50|3.20|7.10|box/boxes:20|VETCHLEY|lot-expiry
CLN-SOD-1K|Washing soda 1 kg|box|Treatments|bag/bags|1010|220x150x60|1.10|3.20|box/boxes:12|VETCHLEY|
DRN-FRM|Drone comb frame|frames|Treatments|frame/frames|210|430x210x36|1.90|4.20|box/boxes:10|PELLOWICK|
MIT-BRD|Mite count board|label|Treatments|board/boards|140|420x380x2|1.30|3.40|pack/packs:25|CORRIN|
BOK-QUEN|Book: Raising your own queens|book|Books|book/books|480|240x170x20|6.00|14.50|box/boxes:16|CORRIN|
BOK-KIDS|Book: A hive for the school|book|Books|book/books|350|280x210x10|4.20|9.99|box/boxes:20|CORRIN|
BOK-MEAD|Book: Mead, cup by cup|book|Books|book/books|410|210x150x18|5.20|11.99|box/boxes:16|CORRIN|
BOK-LOG|Apiary log, three years|book|Books|book/books|300|210x150x15|2.90|7.50|box/boxes:20|CORRIN|
BOX-GFT-2|Gift box for two jars|box|Packaging|box/boxes|95|190x100x120|0.78|1.95|pack/packs:50|CORRIN|
BOX-GFT-3|Gift box for three jars|box|Packaging|box/boxes|130|280x100x120|0.96|2.40|pack/packs:50|CORRIN|
BOX-POST-1|Postal box for one jar|box|Packaging|box/boxes|88|120x120x140|0.52|1.25|pack/packs:50|CORRIN|
KIT-CHILD|Young beekeeper’s kit|suit|Kits|kit/kits|1120|360x300x140|34.00|69.00||TINDRA|
KIT-TREAT|Autumn treatment kit|strips|Kits|kit/kits|430|300x220x90|22.00|45.00||VETCHLEY|
`;
