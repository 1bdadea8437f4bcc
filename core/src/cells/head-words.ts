/**
 * Heads of columns as German, French and Dutch houses write them, each under the English head that it stands for. Compounds
 * that are one word elsewhere ("Artikelnummer") are listed whole; "Preis (netto)" and the like are found by their parts.
 */
const WORDS: Readonly<Record<string, string>> = {
  sku: 'artikelnummer artikelnr artnr artikelno artikel artikelcode sachnummer materialnummer bestellnummer | reference réference référence article codearticle refarticle numéroarticle | artikelnummers itemnummer',
  name: 'bezeichnung artikelbezeichnung beschreibung artikelname produktname produkt benennung warenbezeichnung | désignation désignationarticle libellé description nom nomproduit produit | omschrijving artikelomschrijving productnaam naam benaming',
  class: 'warengruppe artikelgruppe kategorie produktgruppe gruppe | famille catégorie groupe | artikelgroep categorie productgroep groep',
  tags: 'schlagworte stichworte etiketten | étiquettes motsclés | labels trefwoorden',
  unit: 'einheit mengeneinheit basiseinheit me | unité unitédebase | eenheid basiseenheid',
  barcode: 'strichcode gtinean ean13 eancode barcodenummer | codebarres codebarre gencod | streepjescode barcodes eannummer',
  weight: 'gewicht gewichtg stückgewicht nettogewicht bruttogewicht | poids poidsnet poidsbrut | nettogewicht stuksgewicht',
  length: 'länge tiefe | longueur profondeur | lengte diepte',
  width: 'breite | largeur | breedte',
  height: 'höhe | hauteur | hoogte',
  cost: 'einkaufspreis ekpreis ek einstandspreis selbstkosten kosten | prixachat prixdachat coût prixderevient | inkoopprijs kostprijs',
  price:
    'preis verkaufspreis vkpreis vk nettopreis listenpreis einzelpreis stückpreis | prix prixvente prixdevente prixunitaire | prijs verkoopprijs stuksprijs nettoprijs',
  tax: 'steuer mwst ust steuersatz umsatzsteuer | tva taxe | btw belasting',
  tracking:
    'verfolgung rückverfolgung chargenpflicht chargenpflichtig seriennummernpflicht chargenführung | suivi traçabilité suivilot | tracering opvolging batchplicht',
  'tracked by': 'verfolgtnach | suivipar | gevolgdper',
  picture: 'bild bilddatei foto abbildung | image photo illustration | afbeelding foto plaatje',
  fragile: 'zerbrechlich | cassable | breekbaar',
  storage: 'lagerung lagerart lagerbedingung | stockage conditionsdestockage | opslag',
  bin: 'lagerplatz platz lagerfach fach stellplatz regal regalplatz lagerort | emplacement casier rayon | locatie vak schap stelling opslagplaats',
  site: 'standort lager filiale werk betrieb | dépôt entrepôt établissement | vestiging magazijn filiaal',
  warehouse: 'lagerhaus | magasin | pakhuis',
  zone: 'bereich lagerbereich lagerzone | secteur | gebied',
  lot: 'charge chargennummer chargennr los losnummer | numérodelot nlot | partij partijnummer lotnummer batchnummer',
  'serial number': 'seriennummer seriennr | numérodesérie nsérie | serienummer',
  expires:
    'mhd mindesthaltbarkeit mindesthaltbarkeitsdatum haltbarbis verfallsdatum verfall ablaufdatum | dlc dluo ddm péremption datedepéremption datelimite | tht houdbaartot houdbaarheid vervaldatum',
  condition: 'zustand | état | toestand staat',
  quantity: 'menge anzahl bestand stückzahl lagerbestand stück istbestand | quantité qté stock stockactuel | aantal hoeveelheid voorraad',
  holds:
    'inhalt packungsgröße gebindegröße vpe ve stückjeve stückprove verpackungseinheit | contenance colisage conditionnement | inhoud verpakkingsgrootte',
  pack: 'gebinde verpackung packung packeinheit | emballage colis | verpakking',
  supplier:
    'lieferant lieferantennummer lieferantennr lieferantenname kreditor | fournisseur codefournisseur | leverancier leveranciersnummer leverancierscode',
  'supplier sku':
    'lieferantenartikelnummer bestellnummerlieferant artikelnummerlieferant | référencefournisseur réffournisseur | artikelnummerleverancier leveranciersartikelnummer',
  'lead time': 'lieferzeit wiederbeschaffungszeit lieferzeittage | délai délaidelivraison | levertijd leveringstermijn',
  'minimum order quantity': 'mindestbestellmenge | quantitéminimum minimumdecommande | minimumbestelhoeveelheid',
  'minimum order value': 'mindestbestellwert | montantminimum | minimumbestelwaarde',
  'payment terms':
    'zahlungsziel zahlungsbedingungen zahlungsbedingung | conditionsdepaiement délaidepaiement | betalingstermijn betaalvoorwaarden',
  currency: 'währung | devise monnaie | valuta munt',
  'reorder point':
    'meldebestand bestellpunkt mindestbestand | seuildecommande pointdecommande stockminimum stockmini | bestelpunt minimumvoorraad',
  'order up to': 'sollbestand höchstbestand maximalbestand | stockmaximum stockmaxi | maximumvoorraad',
  customer:
    'kunde kundennummer kundennr debitor kundenname | client codeclient numéroclient nomclient | klant klantnummer klantcode klantnaam',
  company: 'firma unternehmen | société entreprise raisonsociale | bedrijf bedrijfsnaam firmanaam',
  contact: 'ansprechpartner kontakt kontaktperson | interlocuteur personneàcontacter | contactpersoon',
  role: 'funktion abteilung | fonction service | functie afdeling',
  email: 'mailadresse emailadresse | courriel adressemail adresseemail mél | emailadres mailadres',
  phone: 'telefon telefonnummer tel rufnummer | téléphone numérodetéléphone | telefoon telefoonnummer',
  street: 'straße strasse anschrift adresse | rue adresse | straat adres',
  city: 'ort stadt wohnort | ville commune localité | plaats woonplaats stad',
  postcode: 'plz postleitzahl | codepostal cp | postcode',
  country: 'land länderkennzeichen | pays | land landcode',
  note: 'bemerkung notiz hinweis anmerkung | remarque commentaire | opmerking notitie',
};

/** Letters without their marks, in the way in which heads are compared. */
export const bareHead = (head: string): string =>
  head
    .toLowerCase()
    .replace(/ß/g, 'ss')
    .replace(/æ/g, 'ae')
    .replace(/œ/g, 'oe')
    .replace(/ø/g, 'o')
    .normalize('NFKD')
    .replace(/[^a-z0-9]+/g, '');

const ENGLISH = new Map<string, string>();
for (const [english, words] of Object.entries(WORDS))
  for (const word of words.split(/[\s|]+/)) if (word && !ENGLISH.has(bareHead(word))) ENGLISH.set(bareHead(word), bareHead(english));

/** The English head that a head in another language stands for, bare; null where it is none that is known. "Gewicht (kg)" is found by its first word. */
export function englishHead(head: string): string | null {
  const whole = ENGLISH.get(bareHead(head));
  if (whole) return whole;
  const words = head.split(/[^\p{L}\p{N}]+/u).filter(Boolean);
  for (const n of [3, 2, 1]) {
    if (words.length < n) continue;
    const found = ENGLISH.get(bareHead(words.slice(0, n).join('')));
    if (found) return found;
  }
  return null;
}
