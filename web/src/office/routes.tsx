import { Navigate, type RouteObject } from 'react-router';
import { ArrivalSheet } from './inbound/arrival-sheet';
import { ArrivalsPage } from './inbound/arrivals-page';
import { InboundPage } from './inbound/inbound-page';
import { RulesSheet } from './inbound/inspection/rules-sheet';
import { PurchaseOrderForm } from './inbound/purchase-order-form';
import { PurchaseOrderSheet } from './inbound/purchase-order-sheet';
import { SupplierSheet, SuppliersPage } from './inbound/suppliers-page';
import { OwnPage } from './own-page';
import { LatePage } from './now/late-page';
import { NowPage } from './now/now-page';
import { CustomerForm } from './orders/customer-form';
import { CustomerSheet, CustomersPage } from './orders/customers-page';
import { UnreadPage } from './orders/unread-page';
import { UnreadSheet } from './orders/unread-sheet';
import { OrderForm } from './orders/keyed/order-form';
import { OrderSheet } from './orders/order-sheet';
import { OrdersPage } from './orders/orders-page';
import { PackingPage } from './packing/packing-page';
import { PickingPage } from './picking/picking-page';
import { RoundSheet } from './picking/round-sheet';
import { WalksPage } from './picking/walks-page';
import { ChannelForm } from './setup/channels/channel-form';
import { ChannelSheet } from './setup/channels/channel-sheet';
import { ChannelsPage } from './setup/channels/channels-page';
import { OutboxList } from './setup/outbox-list';
import { CompanyPage } from './setup/company/company-page';
import { ImportsPage } from './setup/imports/imports-page';
import { PrintPage } from './setup/labels/print-page';
import { DevicesList } from './setup/people/devices-page';
import { DutiesPage } from './setup/people/duties-page';
import { PeoplePage } from './setup/people/people-page';
import { PersonSheet } from './setup/people/person-sheet';
import { SetupPage } from './setup/setup-page';
import { OfficeShell } from './shell';
import { ItemForm } from './shelves/items/item-form';
import { ItemSheet } from './shelves/items/item-sheet';
import { ItemsPage } from './shelves/items/items-page';
import { PlaceForm } from './shelves/places/place-form';
import { PlaceSheet } from './shelves/places/place-sheet';
import { PlacesPage } from './shelves/places/places-page';
import { PlanPage } from './shelves/plan/plan-page';
import { ToPutAwayPage } from './shelves/to-put-away-page';
import { ToCountPage } from './shelves/to-count-page';
import { ExpiringPage } from './shelves/expiring-page';
import { SlottingPage } from './shelves/slotting-page';
import { ToRefillPage } from './shelves/to-refill-page';

/** The office: everything at a desk. */
export const routes: RouteObject = {
  element: <OfficeShell />,
  children: [
    { index: true, element: <NowPage /> },
    { path: 'late', element: <LatePage /> },
    {
      path: 'inbound/suppliers',
      element: <SuppliersPage />,
      children: [
        { path: 'new', lazy: async () => ({ Component: (await import('./inbound/supplier-form')).SupplierForm }) },
        { path: ':code', element: <SupplierSheet /> },
        { path: ':code/edit', lazy: async () => ({ Component: (await import('./inbound/supplier-form')).SupplierForm }) },
      ],
    },
    {
      path: 'inbound/bills',
      lazy: async () => ({ Component: (await import('./inbound/bills-page')).BillsPage }),
      children: [
        { path: 'new', lazy: async () => ({ Component: (await import('./inbound/bill-form')).BillForm }) },
        { path: ':code', lazy: async () => ({ Component: (await import('./inbound/bill-sheet')).BillSheet }) },
      ],
    },
    {
      path: 'inbound/unread',
      lazy: async () => ({ Component: (await import('./inbound/unread-documents-page')).UnreadDocumentsPage }),
      children: [{ path: ':id', lazy: async () => ({ Component: (await import('./inbound/unread-document-sheet')).UnreadDocumentSheet }) }],
    },
    {
      path: 'inbound/returns',
      lazy: async () => ({ Component: (await import('./inbound/returns-page')).ReturnsPage }),
      children: [
        { path: 'new', lazy: async () => ({ Component: (await import('./inbound/return-form')).ReturnForm }) },
        { path: ':code', lazy: async () => ({ Component: (await import('./inbound/return-sheet')).ReturnSheet }) },
      ],
    },
    {
      path: 'inbound/inspection',
      lazy: async () => ({ Component: (await import('./inbound/inspection/inspections-page')).InspectionsPage }),
      children: [
        { path: 'rules', element: <RulesSheet /> },
        { path: 'checklists/new', lazy: async () => ({ Component: (await import('./inbound/inspection/checklist-form')).ChecklistForm }) },
        { path: 'checklists/:id', lazy: async () => ({ Component: (await import('./inbound/inspection/checklist-form')).ChecklistForm }) },
        { path: ':code', lazy: async () => ({ Component: (await import('./inbound/inspection/inspection-sheet')).InspectionSheet }) },
      ],
    },
    { path: 'inbound/lines', lazy: async () => ({ Component: (await import('./inbound/lines-page')).LinesPage }) },
    {
      path: 'inbound/arrivals',
      element: <ArrivalsPage />,
      children: [{ path: ':code', element: <ArrivalSheet /> }],
    },
    {
      path: 'inbound',
      element: <InboundPage />,
      children: [
        { path: 'new', element: <PurchaseOrderForm /> },
        { path: ':code', element: <PurchaseOrderSheet /> },
        { path: ':code/edit', element: <PurchaseOrderForm /> },
      ],
    },
    { path: 'shelves', element: <Navigate to="/shelves/items" replace /> },
    {
      path: 'shelves/items',
      element: <ItemsPage />,
      children: [
        { path: 'new', element: <ItemForm /> },
        { path: ':sku', element: <ItemSheet /> },
        { path: ':sku/edit', element: <ItemForm /> },
      ],
    },
    {
      path: 'shelves/places',
      element: <PlacesPage />,
      children: [
        { path: 'new', element: <PlaceForm /> },
        { path: ':code', element: <PlaceSheet /> },
      ],
    },
    { path: 'shelves/aisles', lazy: async () => ({ Component: (await import('./shelves/places/aisles-page')).AislesPage }) },
    { path: 'shelves/zones', lazy: async () => ({ Component: (await import('./shelves/places/zones-page')).ZonesPage }) },
    { path: 'shelves/plan', element: <PlanPage /> },
    { path: 'shelves/to-put-away', element: <ToPutAwayPage /> },
    { path: 'shelves/to-refill', element: <ToRefillPage /> },
    { path: 'shelves/expiring', element: <ExpiringPage /> },
    { path: 'shelves/slotting', element: <SlottingPage /> },
    { path: 'shelves/to-count', element: <ToCountPage /> },
    { path: 'shelves/counts/accuracy', lazy: async () => ({ Component: (await import('./shelves/counts/accuracy-page')).AccuracyPage }) },
    { path: 'shelves/counts/rules', lazy: async () => ({ Component: (await import('./shelves/counts/rules-page')).CountRulesPage }) },
    { path: 'shelves/counts/:code/review', lazy: async () => ({ Component: (await import('./shelves/counts/review-page')).ReviewPage }) },
    {
      path: 'shelves/counts',
      lazy: async () => ({ Component: (await import('./shelves/counts/counts-page')).CountsPage }),
      children: [
        { path: 'new', lazy: async () => ({ Component: (await import('./shelves/counts/count-form')).CountForm }) },
        { path: ':code', lazy: async () => ({ Component: (await import('./shelves/counts/count-sheet')).CountSheet }) },
      ],
    },
    {
      path: 'shelves/transfers',
      lazy: async () => ({ Component: (await import('./shelves/transfers/transfers-page')).TransfersPage }),
      children: [
        { path: 'new', lazy: async () => ({ Component: (await import('./shelves/transfers/transfer-form')).TransferForm }) },
        { path: ':code', lazy: async () => ({ Component: (await import('./shelves/transfers/transfer-sheet')).TransferSheet }) },
      ],
    },
    { path: 'shelves/trace', lazy: async () => ({ Component: (await import('./shelves/trace-page')).TracePage }) },
    {
      path: 'shelves/builds',
      lazy: async () => ({ Component: (await import('./shelves/builds/builds-page')).BuildsPage }),
      children: [
        { path: 'new', lazy: async () => ({ Component: (await import('./shelves/builds/build-form')).BuildForm }) },
        { path: ':code', lazy: async () => ({ Component: (await import('./shelves/builds/build-sheet')).BuildSheet }) },
      ],
    },
    { path: 'shelves/codes', lazy: async () => ({ Component: (await import('./shelves/codes-page')).CodesPage }) },
    {
      path: 'plan',
      lazy: async () => ({ Component: (await import('./plan/buying-page')).BuyingPage }),
      children: [{ path: 'items/:sku', lazy: async () => ({ Component: (await import('./plan/item-plan-sheet')).ItemPlanSheet }) }],
    },
    { path: 'plan/coverage', lazy: async () => ({ Component: (await import('./plan/coverage-page')).CoveragePage }) },
    { path: 'plan/too-much', lazy: async () => ({ Component: (await import('./plan/excess-page')).ExcessPage }) },
    { path: 'plan/rules', lazy: async () => ({ Component: (await import('./plan/rules-page')).RulesPage }) },
    { path: 'plan/proof', lazy: async () => ({ Component: (await import('./plan/proof-page')).ProofPage }) },
    { path: 'books', lazy: async () => ({ Component: (await import('./books/to-invoice-page')).ToInvoicePage }) },
    { path: 'books/check', lazy: async () => ({ Component: (await import('./books/check-page')).CheckPage }) },
    {
      path: 'books/invoices',
      lazy: async () => ({ Component: (await import('./books/invoices-page')).InvoicesPage }),
      children: [{ path: ':code', lazy: async () => ({ Component: (await import('./books/invoice-sheet')).InvoiceSheet }) }],
    },
    { path: 'books/payments', lazy: async () => ({ Component: (await import('./books/payments-page')).PaymentsPage }) },
    { path: 'books/journal', lazy: async () => ({ Component: (await import('./books/journal-page')).JournalPage }) },
    { path: 'books/accounts', lazy: async () => ({ Component: (await import('./books/accounts-page')).AccountsPage }) },
    { path: 'books/value', lazy: async () => ({ Component: (await import('./books/value-page')).ValuePage }) },
    { path: 'books/slow', lazy: async () => ({ Component: (await import('./books/slow-page')).SlowPage }) },
    { path: 'books/margin', lazy: async () => ({ Component: (await import('./books/margin-page')).MarginPage }) },
    { path: 'own', element: <OwnPage /> },
    { path: 'orders/returns/tally', lazy: async () => ({ Component: (await import('./orders/back/tally-page')).TallyPage }) },
    {
      path: 'orders/returns',
      lazy: async () => ({ Component: (await import('./orders/back/customer-returns-page')).CustomerReturnsPage }),
      children: [
        { path: 'new', lazy: async () => ({ Component: (await import('./orders/back/announce-form')).AnnounceForm }) },
        { path: ':code', lazy: async () => ({ Component: (await import('./orders/back/customer-return-sheet')).CustomerReturnSheet }) },
      ],
    },
    {
      path: 'orders/claims',
      lazy: async () => ({ Component: (await import('./orders/claims-page')).ClaimsPage }),
      children: [
        { path: 'new', lazy: async () => ({ Component: (await import('./orders/claim-form')).ClaimForm }) },
        { path: ':id', lazy: async () => ({ Component: (await import('./orders/claim-sheet')).ClaimSheet }) },
      ],
    },
    { path: 'orders/unread', element: <UnreadPage />, children: [{ path: ':id', element: <UnreadSheet /> }] },
    {
      path: 'orders/customers',
      element: <CustomersPage />,
      children: [
        { path: 'new', element: <CustomerForm /> },
        { path: ':code', element: <CustomerSheet /> },
        { path: ':code/edit', element: <CustomerForm /> },
      ],
    },
    {
      path: 'orders',
      element: <OrdersPage />,
      children: [
        { path: 'new', element: <OrderForm /> },
        { path: ':code', element: <OrderSheet /> },
        { path: ':code/edit', element: <OrderForm /> },
      ],
    },
    { path: 'picking', element: <PickingPage />, children: [{ path: ':code', element: <RoundSheet /> }] },
    { path: 'picking/release', lazy: async () => ({ Component: (await import('./picking/release/release-page')).ReleasePage }) },
    { path: 'picking/walks', element: <WalksPage /> },
    {
      path: 'picking/runs',
      lazy: async () => ({ Component: (await import('./picking/runs-page')).RunsPage }),
      children: ['new', ':id'].map((path) => ({ path, lazy: async () => ({ Component: (await import('./picking/run-form')).RunForm }) })),
    },
    { path: 'packing', element: <PackingPage /> },
    { path: 'dispatch', lazy: async () => ({ Component: (await import('./dispatch/dispatch-page')).DispatchPage }) },
    {
      path: 'setup',
      element: <SetupPage />,
      children: [
        { index: true, element: <Navigate to="/setup/people" replace /> },
        { path: 'people/duties', element: <DutiesPage /> },
        {
          path: 'people',
          element: <PeoplePage />,
          children: [
            { path: 'new', element: <PersonSheet /> },
            { path: ':id', element: <PersonSheet /> },
          ],
        },
        {
          path: 'imports',
          element: <ImportsPage />,
          children: [{ path: ':id', lazy: async () => ({ Component: (await import('./setup/imports/import-sheet')).ImportSheet }) }],
        },
        { path: 'labels', lazy: async () => ({ Component: (await import('./setup/labels/designs-page')).DesignsPage }) },
        { path: 'labels/new', lazy: async () => ({ Component: (await import('./setup/labels/design-page')).DesignPage }) },
        { path: 'labels/print', element: <PrintPage /> },
        { path: 'labels/:id', lazy: async () => ({ Component: (await import('./setup/labels/design-page')).DesignPage }) },
        { path: 'printers', lazy: async () => ({ Component: (await import('./setup/labels/printers-page')).PrintersPage }) },
        { path: 'scanner', lazy: async () => ({ Component: (await import('./setup/scanner-page')).ScannerPage }) },
        { path: 'company', element: <CompanyPage /> },
        { path: 'devices', element: <DevicesList /> },
        { path: 'outbox', element: <OutboxList /> },
        { path: 'inserts', lazy: async () => ({ Component: (await import('./setup/inserts/inserts-page')).InsertsPage }) },
        {
          path: 'letters',
          lazy: async () => ({ Component: (await import('./setup/letters/letters-page')).LettersPage }),
          children: [{ path: ':name', lazy: async () => ({ Component: (await import('./setup/letters/letter-sheet')).LetterSheet }) }],
        },
        {
          path: 'carriers',
          lazy: async () => ({ Component: (await import('./setup/carriers/carriers-page')).CarriersPage }),
          children: [
            { path: 'new', lazy: async () => ({ Component: (await import('./setup/carriers/carrier-form')).CarrierForm }) },
            { path: ':code', lazy: async () => ({ Component: (await import('./setup/carriers/carrier-sheet')).CarrierSheet }) },
            { path: ':code/edit', lazy: async () => ({ Component: (await import('./setup/carriers/carrier-form')).CarrierForm }) },
          ],
        },
        {
          path: 'boxes',
          lazy: async () => ({ Component: (await import('./setup/carriers/boxes-page')).BoxesPage }),
          children: [
            { path: 'new', lazy: async () => ({ Component: (await import('./setup/carriers/box-form')).BoxForm }) },
            { path: ':code', lazy: async () => ({ Component: (await import('./setup/carriers/box-form')).BoxForm }) },
          ],
        },
        {
          path: 'channels',
          element: <ChannelsPage />,
          children: [
            { path: 'new', element: <ChannelForm /> },
            { path: ':code', element: <ChannelSheet /> },
            { path: ':code/edit', element: <ChannelForm /> },
            {
              path: ':code/catalogue',
              lazy: async () => ({ Component: (await import('./setup/channels/channel-catalogue')).ChannelCatalogue }),
            },
          ],
        },
      ],
    },
  ],
};
