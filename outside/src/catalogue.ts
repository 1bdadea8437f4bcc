/** What the web shop offers; its own list, as a shop would keep it. */
export const CATALOGUE: readonly { sku: string; title: string; price: string; barcode?: string }[] = [
  { sku: 'JAR-454-RD', title: 'Round honey jar, 454 g', price: '0.95' },
  { sku: 'JAR-340-HX', title: 'Hexagonal jar, 340 g', price: '0.88' },
  { sku: 'JAR-227-RD', title: 'Round honey jar, 227 g', price: '0.74' },
  { sku: 'LID-63-GD', title: 'Gold lid, 63 mm', price: '0.14' },
  { sku: 'FRM-DN1', title: 'Hive frame DN1', price: '1.85' },
  { sku: 'SMK-LGE', title: 'Large smoker', price: '24.50' },
  { sku: 'SUIT-M', title: 'Bee suit, size M', price: '62.00' },
  { sku: 'TOOL-JH', title: 'J hook hive tool', price: '7.90' },
  { sku: 'WAX-DN-10', title: 'Deep wax foundation, 10 sheets', price: '15.90' },
  { sku: 'TRAY-454', title: 'Round honey jars, tray of 48', price: '40.00', barcode: '19521077000017' },
  { sku: 'VEIL-FOLD', title: 'Folding veil', price: '11.80' },
  { sku: 'BOK-YEAR', title: 'The apiary year', price: '14.99' },
];
