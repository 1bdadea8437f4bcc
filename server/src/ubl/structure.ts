import type { XmlElement } from './xml.js';

/**
 * The sequences of UBL 2.1 (ISO/IEC 19845) for the documents and aggregates that the house writes and reads: names in their
 * order, with ? for at most one, * for any number, + for one or more, nothing for exactly one. Aggregates that are not here are
 * taken as they are.
 */
const SEQUENCES: Readonly<Record<string, string>> = {
  Order: `ext:UBLExtensions? cbc:UBLVersionID? cbc:CustomizationID? cbc:ProfileID? cbc:ProfileExecutionID? cbc:ID cbc:SalesOrderID? cbc:CopyIndicator? cbc:UUID? cbc:IssueDate cbc:IssueTime? cbc:OrderTypeCode? cbc:Note* cbc:RequestedInvoiceCurrencyCode? cbc:DocumentCurrencyCode? cbc:PricingCurrencyCode? cbc:TaxCurrencyCode? cbc:CustomerReference? cbc:AccountingCostCode? cbc:AccountingCost? cbc:LineCountNumeric? cac:ValidityPeriod* cac:QuotationDocumentReference? cac:OrderDocumentReference* cac:OriginatorDocumentReference? cac:CatalogueReference? cac:AdditionalDocumentReference* cac:Contract* cac:ProjectReference* cac:Signature* cac:BuyerCustomerParty cac:SellerSupplierParty cac:OriginatorCustomerParty? cac:FreightForwarderParty? cac:AccountingCustomerParty? cac:Delivery* cac:DeliveryTerms? cac:PaymentMeans* cac:PaymentTerms* cac:TransactionConditions? cac:AllowanceCharge* cac:TaxExchangeRate? cac:PricingExchangeRate? cac:PaymentExchangeRate? cac:DestinationCountry? cac:TaxTotal* cac:AnticipatedMonetaryTotal? cac:OrderLine+`,
  OrderResponse: `ext:UBLExtensions? cbc:UBLVersionID? cbc:CustomizationID? cbc:ProfileID? cbc:ProfileExecutionID? cbc:ID cbc:SalesOrderID? cbc:CopyIndicator? cbc:UUID? cbc:IssueDate cbc:IssueTime? cbc:OrderResponseCode? cbc:Note* cbc:DocumentCurrencyCode? cbc:PricingCurrencyCode? cbc:TaxCurrencyCode? cbc:TotalPackagesQuantity? cbc:GrossWeightMeasure? cbc:NetWeightMeasure? cbc:NetNetWeightMeasure? cbc:GrossVolumeMeasure? cbc:NetVolumeMeasure? cbc:CustomerReference? cbc:AccountingCostCode? cbc:AccountingCost? cbc:LineCountNumeric? cac:ValidityPeriod* cac:OrderReference+ cac:OrderDocumentReference* cac:OriginatorDocumentReference? cac:AdditionalDocumentReference* cac:Contract* cac:Signature* cac:SellerSupplierParty cac:BuyerCustomerParty cac:OriginatorCustomerParty? cac:FreightForwarderParty? cac:AccountingSupplierParty? cac:AccountingCustomerParty? cac:Delivery* cac:DeliveryTerms? cac:PaymentMeans* cac:PaymentTerms* cac:AllowanceCharge* cac:TransactionConditions? cac:TaxExchangeRate? cac:PricingExchangeRate? cac:PaymentExchangeRate? cac:DestinationCountry? cac:TaxTotal* cac:LegalMonetaryTotal? cac:OrderLine*`,
  DespatchAdvice: `ext:UBLExtensions? cbc:UBLVersionID? cbc:CustomizationID? cbc:ProfileID? cbc:ProfileExecutionID? cbc:ID cbc:CopyIndicator? cbc:UUID? cbc:IssueDate cbc:IssueTime? cbc:DocumentStatusCode? cbc:DespatchAdviceTypeCode? cbc:Note* cbc:LineCountNumeric? cac:OrderReference* cac:AdditionalDocumentReference* cac:Signature* cac:DespatchSupplierParty cac:DeliveryCustomerParty cac:BuyerCustomerParty? cac:SellerSupplierParty? cac:OriginatorCustomerParty? cac:Shipment? cac:DespatchLine+`,
  Invoice: `ext:UBLExtensions? cbc:UBLVersionID? cbc:CustomizationID? cbc:ProfileID? cbc:ProfileExecutionID? cbc:ID cbc:CopyIndicator? cbc:UUID? cbc:IssueDate cbc:IssueTime? cbc:DueDate? cbc:InvoiceTypeCode? cbc:Note* cbc:TaxPointDate? cbc:DocumentCurrencyCode? cbc:TaxCurrencyCode? cbc:PricingCurrencyCode? cbc:PaymentCurrencyCode? cbc:PaymentAlternativeCurrencyCode? cbc:AccountingCostCode? cbc:AccountingCost? cbc:LineCountNumeric? cbc:BuyerReference? cac:InvoicePeriod* cac:OrderReference? cac:BillingReference* cac:DespatchDocumentReference* cac:ReceiptDocumentReference* cac:StatementDocumentReference* cac:OriginatorDocumentReference* cac:ContractDocumentReference* cac:AdditionalDocumentReference* cac:ProjectReference* cac:Signature* cac:AccountingSupplierParty cac:AccountingCustomerParty cac:PayeeParty? cac:BuyerCustomerParty? cac:SellerSupplierParty? cac:TaxRepresentativeParty? cac:Delivery* cac:DeliveryTerms? cac:PaymentMeans* cac:PaymentTerms* cac:PrepaidPayment* cac:AllowanceCharge* cac:TaxExchangeRate? cac:PricingExchangeRate? cac:PaymentExchangeRate? cac:PaymentAlternativeExchangeRate? cac:TaxTotal* cac:WithholdingTaxTotal* cac:LegalMonetaryTotal cac:InvoiceLine+`,
  CreditNote: `ext:UBLExtensions? cbc:UBLVersionID? cbc:CustomizationID? cbc:ProfileID? cbc:ProfileExecutionID? cbc:ID cbc:CopyIndicator? cbc:UUID? cbc:IssueDate cbc:IssueTime? cbc:TaxPointDate? cbc:CreditNoteTypeCode? cbc:Note* cbc:DocumentCurrencyCode? cbc:TaxCurrencyCode? cbc:PricingCurrencyCode? cbc:PaymentCurrencyCode? cbc:PaymentAlternativeCurrencyCode? cbc:AccountingCostCode? cbc:AccountingCost? cbc:LineCountNumeric? cbc:BuyerReference? cac:InvoicePeriod* cac:DiscrepancyResponse* cac:OrderReference? cac:BillingReference* cac:DespatchDocumentReference* cac:ReceiptDocumentReference* cac:ContractDocumentReference* cac:AdditionalDocumentReference* cac:StatementDocumentReference* cac:OriginatorDocumentReference* cac:Signature* cac:AccountingSupplierParty cac:AccountingCustomerParty cac:PayeeParty? cac:BuyerCustomerParty? cac:SellerSupplierParty? cac:TaxRepresentativeParty? cac:Delivery* cac:DeliveryTerms* cac:PaymentMeans* cac:PaymentTerms* cac:TaxExchangeRate? cac:PricingExchangeRate? cac:PaymentExchangeRate? cac:PaymentAlternativeExchangeRate? cac:AllowanceCharge* cac:TaxTotal* cac:LegalMonetaryTotal cac:CreditNoteLine+`,
  'cac:InvoiceLine': `cbc:ID cbc:UUID? cbc:Note* cbc:InvoicedQuantity? cbc:LineExtensionAmount cbc:TaxPointDate? cbc:AccountingCostCode? cbc:AccountingCost? cbc:PaymentPurposeCode? cbc:FreeOfChargeIndicator? cac:InvoicePeriod* cac:OrderLineReference* cac:DespatchLineReference* cac:ReceiptLineReference* cac:BillingReference* cac:DocumentReference* cac:PricingReference? cac:OriginatorParty? cac:Delivery* cac:PaymentTerms* cac:AllowanceCharge* cac:TaxTotal* cac:WithholdingTaxTotal* cac:Item cac:Price? cac:DeliveryTerms? cac:SubInvoiceLine* cac:ItemPriceExtension?`,
  'cac:CreditNoteLine': `cbc:ID cbc:UUID? cbc:Note* cbc:CreditedQuantity? cbc:LineExtensionAmount? cbc:TaxPointDate? cbc:AccountingCostCode? cbc:AccountingCost? cbc:PaymentPurposeCode? cbc:FreeOfChargeIndicator? cac:InvoicePeriod* cac:OrderLineReference* cac:DiscrepancyResponse* cac:DespatchLineReference* cac:ReceiptLineReference* cac:BillingReference* cac:DocumentReference* cac:PricingReference? cac:OriginatorParty? cac:Delivery* cac:PaymentTerms* cac:TaxTotal* cac:AllowanceCharge* cac:Item? cac:Price? cac:DeliveryTerms* cac:SubCreditNoteLine* cac:ItemPriceExtension?`,
  'cac:TaxTotal': 'cbc:TaxAmount cbc:RoundingAmount? cbc:TaxEvidenceIndicator? cbc:TaxIncludedIndicator? cac:TaxSubtotal*',
  'cac:TaxSubtotal': `cbc:TaxableAmount? cbc:TaxAmount cbc:CalculationSequenceNumeric? cbc:TransactionCurrencyTaxAmount? cbc:Percent? cbc:BaseUnitMeasure? cbc:PerUnitAmount? cbc:TierRange? cbc:TierRatePercent? cac:TaxCategory`,
  'cac:TaxCategory': taxCategory(),
  'cac:ClassifiedTaxCategory': taxCategory(),
  'cac:LegalMonetaryTotal': `cbc:LineExtensionAmount? cbc:TaxExclusiveAmount? cbc:TaxInclusiveAmount? cbc:AllowanceTotalAmount? cbc:ChargeTotalAmount? cbc:PrepaidAmount? cbc:PayableRoundingAmount? cbc:PayableAmount cbc:PayableAlternativeAmount?`,
  'cac:PartyTaxScheme': `cbc:RegistrationName? cbc:CompanyID? cbc:TaxLevelCode? cbc:ExemptionReasonCode? cbc:ExemptionReason* cac:RegistrationAddress? cac:TaxScheme`,
  'cac:OrderLine': `cbc:SubstitutionStatusCode? cbc:Note* cac:LineItem cac:SellerProposedSubstituteLineItem* cac:SellerSubstitutedLineItem* cac:BuyerProposedSubstituteLineItem* cac:CatalogueLineReference? cac:QuotationLineReference? cac:OrderLineReference* cac:DocumentReference*`,
  'cac:LineItem': `cbc:ID cbc:SalesOrderID? cbc:UUID? cbc:Note* cbc:LineStatusCode? cbc:Quantity? cbc:LineExtensionAmount? cbc:TotalTaxAmount? cbc:MinimumQuantity? cbc:MaximumQuantity? cbc:MinimumBackorderQuantity? cbc:MaximumBackorderQuantity? cbc:InspectionMethodCode? cbc:PartialDeliveryIndicator? cbc:BackOrderAllowedIndicator? cbc:AccountingCostCode? cbc:AccountingCost? cbc:WarrantyInformation* cac:Delivery* cac:DeliveryTerms? cac:OriginatorParty? cac:OrderedShipment* cac:PricingReference? cac:AllowanceCharge* cac:Price? cac:Item cac:SubLineItem* cac:WarrantyValidityPeriod? cac:WarrantyParty? cac:TaxTotal* cac:ItemPriceExtension? cac:LineReference*`,
  'cac:DespatchLine': `cbc:ID cbc:UUID? cbc:Note* cbc:LineStatusCode? cbc:DeliveredQuantity? cbc:BackorderQuantity? cbc:BackorderReason* cbc:OutstandingQuantity? cbc:OutstandingReason* cbc:OversupplyQuantity? cac:OrderLineReference+ cac:DocumentReference* cac:Item cac:Shipment*`,
  'cac:OrderLineReference': `cbc:LineID cbc:SalesOrderLineID? cbc:UUID? cbc:LineStatusCode? cac:OrderReference?`,
  'cac:OrderReference': `cbc:ID cbc:SalesOrderID? cbc:CopyIndicator? cbc:UUID? cbc:IssueDate? cbc:IssueTime? cbc:CustomerReference? cbc:OrderTypeCode? cac:DocumentReference?`,
  'cac:Price': `cbc:PriceAmount cbc:BaseQuantity? cbc:PriceChangeReason* cbc:PriceTypeCode? cbc:PriceType? cbc:OrderableUnitFactorRate? cac:ValidityPeriod* cac:PriceList? cac:AllowanceCharge* cac:PricingExchangeRate?`,
  'cac:Item': `cbc:Description* cbc:PackQuantity? cbc:PackSizeNumeric? cbc:CatalogueIndicator? cbc:Name? cbc:HazardousRiskIndicator? cbc:AdditionalInformation* cbc:Keyword* cbc:BrandName* cbc:ModelName* cac:BuyersItemIdentification? cac:SellersItemIdentification? cac:ManufacturersItemIdentification* cac:StandardItemIdentification? cac:CatalogueItemIdentification? cac:AdditionalItemIdentification* cac:CatalogueDocumentReference? cac:ItemSpecificationDocumentReference* cac:OriginCountry? cac:CommodityClassification* cac:TransactionConditions* cac:HazardousItem* cac:ClassifiedTaxCategory* cac:AdditionalItemProperty* cac:ManufacturerParty* cac:InformationContentProviderParty? cac:OriginAddress* cac:ItemInstance* cac:Certificate* cac:Dimension*`,
  'cac:ItemInstance': `cbc:ProductTraceID? cbc:ManufactureDate? cbc:ManufactureTime? cbc:BestBeforeDate? cbc:RegistrationID? cbc:SerialID? cac:AdditionalItemProperty* cac:LotIdentification?`,
  'cac:LotIdentification': `cbc:LotNumberID? cbc:ExpiryDate? cac:AdditionalItemProperty*`,
  'cac:BuyersItemIdentification': `cbc:ID cbc:ExtendedID? cbc:BarcodeSymbologyID? cac:PhysicalAttribute* cac:MeasurementDimension* cac:IssuerParty?`,
  'cac:SellersItemIdentification': `cbc:ID cbc:ExtendedID? cbc:BarcodeSymbologyID? cac:PhysicalAttribute* cac:MeasurementDimension* cac:IssuerParty?`,
  'cac:StandardItemIdentification': `cbc:ID cbc:ExtendedID? cbc:BarcodeSymbologyID? cac:PhysicalAttribute* cac:MeasurementDimension* cac:IssuerParty?`,
  'cac:BuyerCustomerParty': `cbc:CustomerAssignedAccountID? cbc:SupplierAssignedAccountID? cbc:AdditionalAccountID* cac:Party? cac:DeliveryContact? cac:AccountingContact? cac:BuyerContact?`,
  'cac:DeliveryCustomerParty': `cbc:CustomerAssignedAccountID? cbc:SupplierAssignedAccountID? cbc:AdditionalAccountID* cac:Party? cac:DeliveryContact? cac:AccountingContact? cac:BuyerContact?`,
  'cac:SellerSupplierParty': `cbc:CustomerAssignedAccountID? cbc:AdditionalAccountID* cbc:DataSendingCapability? cac:Party? cac:DespatchContact? cac:AccountingContact? cac:SellerContact?`,
  'cac:DespatchSupplierParty': `cbc:CustomerAssignedAccountID? cbc:AdditionalAccountID* cbc:DataSendingCapability? cac:Party? cac:DespatchContact? cac:AccountingContact? cac:SellerContact?`,
  'cac:Party': `cbc:MarkCareIndicator? cbc:MarkAttentionIndicator? cbc:WebsiteURI? cbc:LogoReferenceID? cbc:EndpointID? cbc:IndustryClassificationCode? cac:PartyIdentification* cac:PartyName* cac:Language? cac:PostalAddress? cac:PhysicalLocation? cac:PartyTaxScheme* cac:PartyLegalEntity* cac:Contact? cac:Person* cac:AgentParty? cac:ServiceProviderParty* cac:PowerOfAttorney* cac:FinancialAccount?`,
  'cac:PartyIdentification': 'cbc:ID',
  'cac:PartyName': 'cbc:Name',
  'cac:AddressLine': 'cbc:Line',
  'cac:Contact': `cbc:ID? cbc:Name? cbc:Telephone? cbc:Telefax? cbc:ElectronicMail? cbc:Note* cac:OtherCommunication*`,
  'cac:Delivery': `cbc:ID? cbc:Quantity? cbc:MinimumQuantity? cbc:MaximumQuantity? cbc:ActualDeliveryDate? cbc:ActualDeliveryTime? cbc:LatestDeliveryDate? cbc:LatestDeliveryTime? cbc:ReleaseID? cbc:TrackingID? cac:DeliveryAddress? cac:DeliveryLocation? cac:AlternativeDeliveryLocation? cac:RequestedDeliveryPeriod? cac:PromisedDeliveryPeriod? cac:EstimatedDeliveryPeriod? cac:CarrierParty? cac:DeliveryParty? cac:NotifyParty* cac:Despatch? cac:DeliveryTerms* cac:MinimumDeliveryUnit? cac:MaximumDeliveryUnit? cac:Shipment?`,
  'cac:RequestedDeliveryPeriod': period(),
  'cac:PromisedDeliveryPeriod': period(),
  'cac:EstimatedDeliveryPeriod': period(),
  'cac:AllowanceCharge': `cbc:ID? cbc:ChargeIndicator cbc:AllowanceChargeReasonCode? cbc:AllowanceChargeReason* cbc:MultiplierFactorNumeric? cbc:PrepaidIndicator? cbc:SequenceNumeric? cbc:Amount cbc:BaseAmount? cbc:AccountingCostCode? cbc:AccountingCost? cbc:PerUnitAmount? cac:TaxCategory* cac:TaxTotal? cac:PaymentMeans*`,
  'cac:AnticipatedMonetaryTotal': `cbc:LineExtensionAmount? cbc:TaxExclusiveAmount? cbc:TaxInclusiveAmount? cbc:AllowanceTotalAmount? cbc:ChargeTotalAmount? cbc:PrepaidAmount? cbc:PayableRoundingAmount? cbc:PayableAmount cbc:PayableAlternativeAmount?`,
  'cac:Shipment': `cbc:ID cbc:ShippingPriorityLevelCode? cbc:HandlingCode? cbc:HandlingInstructions* cbc:Information* cbc:GrossWeightMeasure? cbc:NetWeightMeasure? cbc:NetNetWeightMeasure? cbc:GrossVolumeMeasure? cbc:NetVolumeMeasure? cbc:TotalGoodsItemQuantity? cbc:TotalTransportHandlingUnitQuantity? cbc:InsuranceValueAmount? cbc:DeclaredCustomsValueAmount? cbc:DeclaredForCarriageValueAmount? cbc:DeclaredStatisticsValueAmount? cbc:FreeOnBoardValueAmount? cbc:SpecialInstructions* cbc:DeliveryInstructions* cbc:SplitConsignmentIndicator? cbc:ConsignmentQuantity? cac:Consignment* cac:GoodsItem* cac:ShipmentStage* cac:Delivery? cac:TransportHandlingUnit* cac:ReturnAddress? cac:OriginAddress? cac:FirstArrivalPortLocation? cac:LastExitPortLocation? cac:ExportCountry? cac:FreightAllowanceCharge*`,
  'cac:TransportHandlingUnit': `cbc:ID? cbc:TransportHandlingUnitTypeCode? cbc:HandlingCode? cbc:HandlingInstructions* cbc:HazardousRiskIndicator? cbc:TotalGoodsItemQuantity? cbc:TotalPackageQuantity? cbc:DamageRemarks* cbc:ShippingMarks* cbc:TraceID? cac:HandlingUnitDespatchLine* cac:ActualPackage* cac:ReceivedHandlingUnitReceiptLine* cac:TransportEquipment* cac:TransportMeans* cac:HazardousGoodsTransit* cac:MeasurementDimension* cac:MinimumTemperature? cac:MaximumTemperature? cac:GoodsItem* cac:FloorSpaceMeasurementDimension? cac:PalletSpaceMeasurementDimension? cac:ShipmentDocumentReference* cac:Status* cac:CustomsDeclaration* cac:ReferencedShipment* cac:Package*`,
};

function period(): string {
  return 'cbc:StartDate? cbc:StartTime? cbc:EndDate? cbc:EndTime? cbc:DurationMeasure? cbc:DescriptionCode* cbc:Description*';
}

function taxCategory(): string {
  return 'cbc:ID? cbc:Name? cbc:Percent? cbc:BaseUnitMeasure? cbc:PerUnitAmount? cbc:TaxExemptionReasonCode? cbc:TaxExemptionReason* cbc:TierRange? cbc:TierRatePercent? cac:TaxScheme';
}

interface Part {
  name: string;
  least: number;
  most: number;
}

const partsOf = new Map(
  Object.entries(SEQUENCES).map(([name, text]): [string, Part[]] => [
    name,
    text.split(/\s+/).map((word) => {
      const mark = /[?*+]$/.exec(word)?.[0] ?? '';
      return {
        name: mark ? word.slice(0, -1) : word,
        least: mark === '' || mark === '+' ? 1 : 0,
        most: mark === '' || mark === '?' ? 1 : Infinity,
      };
    }),
  ]),
);

/** Another name for the same aggregate. */
const SAME: Readonly<Record<string, string>> = { 'cac:HandlingUnitDespatchLine': 'cac:DespatchLine' };
const MOST_FAULTS = 12;

/** Where a document departs from the structure of UBL 2.1, in words with the path; empty where it does not. O(elements). */
export function structureFaults(root: XmlElement): string[] {
  if (!partsOf.has(root.name) || root.name.startsWith('cac:')) return [`${root.name} is no document that is taken here`];
  const faults: string[] = [];
  check(root, root.name, faults);
  return faults.slice(0, MOST_FAULTS);
}

function check(element: XmlElement, path: string, faults: string[]): void {
  const parts = partsOf.get(SAME[element.name] ?? element.name);
  if (parts) sequence(element, parts, path, faults);
  for (const child of element.children) if (faults.length < MOST_FAULTS) check(child, `${path}/${child.name}`, faults);
  if (element.name.startsWith('cbc:') && element.children.length > 0) faults.push(`${path} holds text, no other elements`);
  if (element.name.startsWith('cbc:') && element.text === '' && element.children.length === 0) faults.push(`${path} is empty`);
}

function sequence(element: XmlElement, parts: readonly Part[], path: string, faults: string[]): void {
  const counts = new Map<string, number>();
  let last = 0;
  for (const { name } of element.children) {
    const at = parts.findIndex((p) => p.name === name);
    if (at < 0) faults.push(`${path} has no ${name}`);
    else if (at < last) faults.push(`${name} stands too late in ${path}`);
    else last = at;
    counts.set(name, (counts.get(name) ?? 0) + 1);
  }
  for (const { name, least, most } of parts) {
    const count = counts.get(name) ?? 0;
    if (count < least) faults.push(`${path} lacks ${name}`);
    if (count > most) faults.push(`${path} has more than one ${name}`);
  }
}
