import { createBrowserRouter, Navigate, type RouteObject } from 'react-router';
import { BenchPage } from './bench/bench-page';
import { EnrolPage } from './door/enrol-page';
import { ForgottenPage } from './door/forgotten-page';
import { WelcomePage } from './door/welcome-page';
import { FirstRunPage } from './door/first-run-page';
import { MustSignIn } from './door/must-sign-in';
import { SignInPage } from './door/sign-in-page';
import { FloorShell } from './floor/floor-shell';
import { FloorHome } from './floor/home-page';
import { InspectPage } from './floor/inspect/inspect-page';
import { LookPage } from './floor/look-page';
import { PickList, PickPage } from './floor/pick-pages';
import { DuePage } from './floor/receive/due-page';
import { ReceivePage } from './floor/receive/receive-page';
import { QuestionsPage } from './floor/questions-page';
import { FloorSignIn } from './floor/sign-in-page';
import { StorePage } from './floor/store-page';
import { DispatchPage } from './office/dispatch/dispatch-page';
import { ArrivalSheet } from './office/inbound/arrival-sheet';
import { ArrivalsPage } from './office/inbound/arrivals-page';
import { BillForm } from './office/inbound/bill-form';
import { BillSheet } from './office/inbound/bill-sheet';
import { BillsPage } from './office/inbound/bills-page';
import { InboundPage } from './office/inbound/inbound-page';
import { ChecklistForm } from './office/inbound/inspection/checklist-form';
import { InspectionSheet } from './office/inbound/inspection/inspection-sheet';
import { InspectionsPage } from './office/inbound/inspection/inspections-page';
import { RulesSheet } from './office/inbound/inspection/rules-sheet';
import { PurchaseOrderForm } from './office/inbound/purchase-order-form';
import { PurchaseOrderSheet } from './office/inbound/purchase-order-sheet';
import { ReturnForm } from './office/inbound/return-form';
import { ReturnSheet } from './office/inbound/return-sheet';
import { ReturnsPage } from './office/inbound/returns-page';
import { SupplierForm } from './office/inbound/supplier-form';
import { SupplierSheet, SuppliersPage } from './office/inbound/suppliers-page';
import { OwnPage } from './office/own-page';
import { LatePage } from './office/now/late-page';
import { NowPage } from './office/now/now-page';
import { CustomerForm, CustomerSheet, CustomersPage } from './office/orders/customers-page';
import { OrderSheet } from './office/orders/order-sheet';
import { OrdersPage } from './office/orders/orders-page';
import { PackingPage } from './office/packing/packing-page';
import { PickingPage } from './office/picking/picking-page';
import { ChannelForm, ChannelSheet, ChannelsPage } from './office/setup/channels-page';
import { OutboxList } from './office/setup/outbox-list';
import { CompanyPage } from './office/setup/company/company-page';
import { ImportSheet } from './office/setup/imports/import-sheet';
import { ImportsPage } from './office/setup/imports/imports-page';
import { DesignPage } from './office/setup/labels/design-page';
import { DesignsPage } from './office/setup/labels/designs-page';
import { PrintPage } from './office/setup/labels/print-page';
import { PrintersPage } from './office/setup/labels/printers-page';
import { DevicesList } from './office/setup/people/devices-page';
import { DutiesPage } from './office/setup/people/duties-page';
import { PeoplePage } from './office/setup/people/people-page';
import { PersonSheet } from './office/setup/people/person-sheet';
import { SetupPage } from './office/setup/setup-page';
import { OfficeShell } from './office/shell';
import { ItemForm } from './office/shelves/items/item-form';
import { ItemSheet } from './office/shelves/items/item-sheet';
import { ItemsPage } from './office/shelves/items/items-page';
import { AislesPage } from './office/shelves/places/aisles-page';
import { PlaceForm } from './office/shelves/places/place-form';
import { PlaceSheet } from './office/shelves/places/place-sheet';
import { PlacesPage } from './office/shelves/places/places-page';
import { ZonesPage } from './office/shelves/places/zones-page';
import { PlanPage } from './office/shelves/plan/plan-page';
import { ToPutAwayPage } from './office/shelves/to-put-away-page';
import { NothingHere } from './ui/nothing-here';

const office: RouteObject = {
  element: <OfficeShell />,
  children: [
    { index: true, element: <NowPage /> },
    { path: 'late', element: <LatePage /> },
    {
      path: 'inbound/suppliers',
      element: <SuppliersPage />,
      children: [
        { path: 'new', element: <SupplierForm /> },
        { path: ':code', element: <SupplierSheet /> },
        { path: ':code/edit', element: <SupplierForm /> },
      ],
    },
    {
      path: 'inbound/bills',
      element: <BillsPage />,
      children: [
        { path: 'new', element: <BillForm /> },
        { path: ':code', element: <BillSheet /> },
      ],
    },
    {
      path: 'inbound/returns',
      element: <ReturnsPage />,
      children: [
        { path: 'new', element: <ReturnForm /> },
        { path: ':code', element: <ReturnSheet /> },
      ],
    },
    {
      path: 'inbound/inspection',
      element: <InspectionsPage />,
      children: [
        { path: 'rules', element: <RulesSheet /> },
        { path: 'checklists/new', element: <ChecklistForm /> },
        { path: 'checklists/:id', element: <ChecklistForm /> },
        { path: ':code', element: <InspectionSheet /> },
      ],
    },
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
    { path: 'shelves/aisles', element: <AislesPage /> },
    { path: 'shelves/zones', element: <ZonesPage /> },
    { path: 'shelves/plan', element: <PlanPage /> },
    { path: 'shelves/to-put-away', element: <ToPutAwayPage /> },
    { path: 'own', element: <OwnPage /> },
    {
      path: 'orders/customers',
      element: <CustomersPage />,
      children: [
        { path: 'new', element: <CustomerForm /> },
        { path: ':code', element: <CustomerSheet /> },
        { path: ':code/edit', element: <CustomerForm /> },
      ],
    },
    { path: 'orders', element: <OrdersPage />, children: [{ path: ':code', element: <OrderSheet /> }] },
    { path: 'picking', element: <PickingPage /> },
    { path: 'packing', element: <PackingPage /> },
    { path: 'dispatch', element: <DispatchPage /> },
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
        { path: 'imports', element: <ImportsPage />, children: [{ path: ':id', element: <ImportSheet /> }] },
        { path: 'labels', element: <DesignsPage /> },
        { path: 'labels/new', element: <DesignPage /> },
        { path: 'labels/print', element: <PrintPage /> },
        { path: 'labels/:id', element: <DesignPage /> },
        { path: 'printers', element: <PrintersPage /> },
        { path: 'company', element: <CompanyPage /> },
        { path: 'devices', element: <DevicesList /> },
        { path: 'outbox', element: <OutboxList /> },
        {
          path: 'channels',
          element: <ChannelsPage />,
          children: [
            { path: 'new', element: <ChannelForm /> },
            { path: ':code', element: <ChannelSheet /> },
            { path: ':code/edit', element: <ChannelForm /> },
          ],
        },
      ],
    },
  ],
};

const floor: RouteObject = {
  path: 'floor',
  element: <FloorShell />,
  children: [
    { index: true, element: <FloorHome /> },
    { path: 'receive', element: <DuePage /> },
    { path: 'receive/:code', element: <ReceivePage /> },
    { path: 'inspect', element: <InspectPage /> },
    { path: 'store', element: <StorePage /> },
    { path: 'look', element: <LookPage /> },
    { path: 'questions', element: <QuestionsPage /> },
    { path: 'pick', element: <PickList /> },
    { path: 'pick/:code', element: <PickPage /> },
  ],
};

/** Development only: every component in every state. */
const kit: RouteObject[] = import.meta.env.DEV
  ? [{ path: '/kit', lazy: async () => ({ Component: (await import('./kit/kit-page')).KitPage }) }]
  : [];

export const router = createBrowserRouter([
  { path: '/sign-in', element: <SignInPage /> },
  { path: '/first-run', element: <FirstRunPage /> },
  { path: '/enrol', element: <EnrolPage /> },
  { path: '/welcome', element: <WelcomePage /> },
  { path: '/forgotten', element: <ForgottenPage /> },
  { path: '/floor/sign-in', element: <FloorSignIn /> },
  ...kit,
  {
    element: <MustSignIn door="/sign-in" />,
    children: [office, floor, { path: '/bench/:code?', element: <BenchPage /> }],
  },
  { path: '*', element: <NothingHere /> },
]);
